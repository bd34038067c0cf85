package app.yubble.server.delivery;

import app.yubble.server.jobs.BrokenOffException;
import app.yubble.server.jobs.ClipLane;
import app.yubble.server.jobs.JobStarter;
import app.yubble.server.jobs.StoredProgress;
import app.yubble.server.jobs.Urgency;
import app.yubble.server.memory.MemoryGate;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import app.yubble.server.storage.FileStore;
import io.micrometer.core.instrument.MeterRegistry;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Duration;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import java.util.concurrent.TimeUnit;
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
    private final PhotoDelivery photos;
    private final MemoryGate gate;
    private final JobStarter starter;
    private final ClipLane lane;
    private final ClipDelivery clips;
    private final MeterRegistry meters;

    DeliveryJob(
            Deliveries deliveries,
            Shots shots,
            PhotoDelivery photos,
            MemoryGate gate,
            JobStarter starter,
            ClipLane lane,
            ClipDelivery clips,
            MeterRegistry meters) {
        this.meters = meters;
        this.lane = lane;
        this.clips = clips;
        this.deliveries = deliveries;
        this.shots = shots;
        this.photos = photos;
        this.gate = gate;
        this.starter = starter;
    }

    void enqueue(Delivery delivery) {
        UUID id = delivery.id();
        starter.<DeliveryJob>enqueue(delivery.accountId(), urgency(delivery), job -> job.run(id));
    }

    private static Urgency urgency(Delivery delivery) {
        return delivery.isPlaying() ? Urgency.AHEAD : Urgency.DELIVERY;
    }

    /** Runs in a worker. A node that dies over it leaves it to another one. */
    @Job(name = "Delivery %0", retries = 5)
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
            PhotoDelivery.Made made = gate.withLine(shot.size().pixels(), () -> render(delivery, shot));
            deliveries.done(id, made.file().hash(), made.file().bytes(), made.thumbnail());
            meters.timer("yubble.delivery", "format", delivery.format().name())
                    .record(System.nanoTime() - start, TimeUnit.NANOSECONDS);
            LOG.info("delivery of {} in {} ms", delivery.fileName(), (System.nanoTime() - start) / 1_000_000);
        } catch (CancellationException cancelled) {
            BrokenOffException.rethrow(cancelled);
            LOG.info("delivery of {} cancelled", delivery.fileName());
        } catch (RuntimeException | OutOfMemoryError fault) {
            BrokenOffException.rethrow(fault);
            fail(id, "The picture could not be made: ", fault);
        }
    }

    /**
     * A clip's stretches are rendered by several jobs, so that nodes share them and a node that is lost costs one stretch. Each renders
     * what nobody has or is rendering for as long as its turn lasts and comes again; who finds all of them there joins them.
     */
    private void beginClip(Delivery delivery) {
        for (int hand = 0; hand < Math.min(HANDS, ClipDelivery.parts(delivery).size()); hand++) {
            enqueueStretches(delivery, hand);
        }
    }

    private void enqueueStretches(Delivery delivery, int hand) {
        UUID id = delivery.id();
        starter.<DeliveryJob>enqueue(delivery.accountId(), urgency(delivery), job -> job.stretches(id, hand));
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
                enqueueStretches(delivery, hand);
            } else if (state == ClipDelivery.State.ELSEWHERE) {
                // Whoever renders the rest may be lost or called off.
                starter.<DeliveryJob>later(LOOK_AGAIN, job -> job.stretches(id, hand));
            } else {
                FileStore.Stored stored = clips.join(delivery);
                deliveries.done(id, stored.hash(), stored.bytes(), null);
                LOG.info("delivery of {} done", delivery.fileName());
            }
        } catch (CancellationException cancelled) {
            BrokenOffException.rethrow(cancelled);
            LOG.info("delivery of {} cancelled", delivery.fileName());
        } catch (IOException | RuntimeException | OutOfMemoryError fault) {
            BrokenOffException.rethrow(fault);
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

    private PhotoDelivery.Made render(Delivery delivery, Shot shot) {
        UUID id = delivery.id();
        StoredProgress progress =
                new StoredProgress(done -> deliveries.reach(id, Delivery.State.RENDERING, done, null));
        try {
            return photos.render(delivery, shot, progress);
        } catch (IOException e) {
            throw new UncheckedIOException(String.valueOf(e.getMessage()), e);
        }
    }
}
