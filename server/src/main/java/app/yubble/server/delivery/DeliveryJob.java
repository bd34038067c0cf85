package app.yubble.server.delivery;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageCache;
import app.yubble.core.refocus.View;
import app.yubble.core.refocus.Viewer;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.PictureWriter;
import app.yubble.media.recipe.RecipeJson;
import app.yubble.server.jobs.ClipLane;
import app.yubble.server.jobs.JobStarter;
import app.yubble.server.jobs.MemoryGate;
import app.yubble.server.jobs.NodeStoppedException;
import app.yubble.server.jobs.StoredProgress;
import app.yubble.server.shoot.Materials;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotStill;
import app.yubble.server.shoot.Shots;
import app.yubble.server.storage.FileStore;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Duration;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import org.jobrunr.jobs.annotations.Job;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Renders a delivery at full size and stores its file. */
@Component
public class DeliveryJob {
    private static final Logger LOG = LoggerFactory.getLogger(DeliveryJob.class);

    /** Jobs of one clip's delivery: as many nodes can share it. */
    private static final int HANDS = 4;

    /** Work on one clip at a stretch, before others get their turn. */
    private static final Duration TURN = Duration.ofSeconds(20);

    private static final Duration LOOK_AGAIN = Duration.ofSeconds(3);

    private static final int LONGEST_PROBLEM = 500;

    private final Deliveries deliveries;
    private final Shots shots;
    private final Materials materials;
    private final FileStore files;
    private final PictureReader reader;
    private final MemoryGate gate;
    private final JobStarter starter;
    private final ClipLane lane;
    private final ClipDelivery clips;

    DeliveryJob(
            Deliveries deliveries,
            Shots shots,
            Materials materials,
            FileStore files,
            PictureReader reader,
            MemoryGate gate,
            JobStarter starter,
            ClipLane lane,
            ClipDelivery clips) {
        this.lane = lane;
        this.clips = clips;
        this.deliveries = deliveries;
        this.shots = shots;
        this.materials = materials;
        this.files = files;
        this.reader = reader;
        this.gate = gate;
        this.starter = starter;
    }

    void enqueue(UUID delivery) {
        starter.<DeliveryJob>enqueue(job -> job.run(delivery));
    }

    /** Runs in a worker. */
    @Job(name = "Delivery %0")
    public void run(UUID id) {
        long start = System.nanoTime();
        if (!deliveries.reach(id, Delivery.State.RENDERING, 0.01, null)) {
            return;
        }
        Delivery delivery = deliveries.byId(id);
        if (delivery.format().isForClips()) {
            beginClip(delivery);
            return;
        }
        try {
            Shot shot = shots.byId(delivery.shotId());
            FileStore.Stored stored = gate.with(shot.size().pixels(), () -> render(delivery, shot));
            deliveries.done(id, stored.hash(), stored.bytes());
            LOG.info("delivery of {} in {} ms", delivery.fileName(), (System.nanoTime() - start) / 1_000_000);
        } catch (CancellationException cancelled) {
            LOG.info("delivery of {} cancelled", delivery.fileName());
        } catch (RuntimeException | OutOfMemoryError fault) {
            fail(id, "The picture could not be made: ", fault);
        }
    }

    /**
     * A clip's stretches are rendered by several jobs, so that nodes share them and a node that is lost costs one stretch. Each renders
     * what nobody has or is rendering for as long as its turn lasts and comes again; who finds all of them there joins them.
     */
    private void beginClip(Delivery delivery) {
        UUID id = delivery.id();
        for (int hand = 0; hand < Math.min(HANDS, ClipDelivery.parts(delivery).size()); hand++) {
            enqueueStretches(id, hand);
        }
    }

    private void enqueueStretches(UUID id, int hand) {
        starter.<DeliveryJob>enqueue(job -> job.stretches(id, hand));
    }

    /** Runs in a worker. A node that dies over it leaves it to another one. */
    @Job(name = "Stretches of delivery %0, hand %1", retries = 5)
    public void stretches(UUID id, int hand) {
        lane.<DeliveryJob>run(() -> rendered(id, hand), job -> job.stretches(id, hand));
    }

    private void rendered(UUID id, int hand) {
        Delivery delivery = deliveries.find(id).orElse(null);
        if (delivery == null || delivery.isOver()) {
            return;
        }
        try {
            ClipDelivery.State state = clips.render(delivery, TURN, done -> {
                if (!deliveries.advance(id, done)) {
                    throw new CancellationException("cancelled");
                }
            });
            if (state == ClipDelivery.State.MORE) {
                enqueueStretches(id, hand);
            } else if (state == ClipDelivery.State.ELSEWHERE) {
                // Whoever renders the rest may be lost or called off.
                starter.<DeliveryJob>later(LOOK_AGAIN, job -> job.stretches(id, hand));
            } else {
                FileStore.Stored stored = clips.join(delivery);
                deliveries.done(id, stored.hash(), stored.bytes());
                LOG.info("delivery of {} done", delivery.fileName());
            }
        } catch (CancellationException cancelled) {
            NodeStoppedException.rethrow(cancelled);
            LOG.info("delivery of {} cancelled", delivery.fileName());
        } catch (IOException | RuntimeException | OutOfMemoryError fault) {
            NodeStoppedException.rethrow(fault);
            fail(id, "The clip could not be made: ", fault);
        }
    }

    private void fail(UUID id, String what, Throwable fault) {
        LOG.error("delivery {} failed", id, fault);
        String why = fault instanceof OutOfMemoryError ? "it needs more memory than there is" : fault.getMessage();
        deliveries.reach(id, Delivery.State.FAILED, 0, shortened(what + why));
    }

    private static String shortened(String text) {
        return text.length() <= LONGEST_PROBLEM ? text : text.substring(0, LONGEST_PROBLEM - 3) + "...";
    }

    private FileStore.Stored render(Delivery delivery, Shot shot) {
        UUID id = delivery.id();
        StoredProgress progress =
                new StoredProgress(done -> deliveries.reach(id, Delivery.State.RENDERING, done, null));
        Recipe recipe = RecipeJson.read(delivery.recipe());
        ShotStill still = materials.of(shot).frame(0);
        Integer longest = delivery.longestSide();
        Size size = longest == null ? shot.size() : shot.size().fitting(longest);
        progress.at(0.02);
        // A cache of its own: the stages of one large picture would push everybody's previews out of the shared one.
        RefocusLine line = new RefocusLine(StageCache.keepingAll());
        line.nearness(still, recipe.depth(), size);
        progress.at(0.15);
        Picture result =
                line.render(new Viewer(), still, recipe.at(still.moment()), View.of(size), progress.part(0.15, 0.9));
        try {
            Origin origin = reader.inspect(files.bytes(shot.contentHash())).withSize(size);
            return files.put((FileStore.Writing)
                    out -> PictureWriter.write(result, origin, delivery.format().picture(), delivery.quality(), out));
        } catch (IOException e) {
            throw new UncheckedIOException("the file could not be stored", e);
        }
    }
}
