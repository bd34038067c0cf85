package app.yubble.server.depth;

import app.yubble.core.clip.DepthOverTime;
import app.yubble.core.clip.FlowFinder;
import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthEstimator;
import app.yubble.core.focus.FocusFinder;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Resample;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.subject.Face;
import app.yubble.core.subject.Quality;
import app.yubble.media.clip.ClipFile;
import app.yubble.media.clip.PlaneFiles;
import app.yubble.media.picture.PictureReader;
import app.yubble.server.YubbleProperties;
import app.yubble.server.jobs.BrokenOffException;
import app.yubble.server.jobs.ClipLane;
import app.yubble.server.jobs.JobStarter;
import app.yubble.server.jobs.StoredProgress;
import app.yubble.server.jobs.Urgency;
import app.yubble.server.memory.MemoryGate;
import app.yubble.server.shoot.ClipDepths;
import app.yubble.server.shoot.ClipFiles;
import app.yubble.server.shoot.DepthMaps;
import app.yubble.server.shoot.Faces;
import app.yubble.server.shoot.FramesWanted;
import app.yubble.server.shoot.Materials;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotMaterial;
import app.yubble.server.shoot.ShotStill;
import app.yubble.server.shoot.Shots;
import app.yubble.server.storage.FileStore;
import app.yubble.vision.InverseSearchFlow;
import io.micrometer.core.instrument.MeterRegistry;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.List;
import java.util.OptionalInt;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import java.util.concurrent.TimeUnit;
import org.jobrunr.jobs.annotations.Job;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Component;

/**
 * Estimates a shot's depth and finds its subject, from the reduced picture: first as a draft that can be used at once, then
 * better when that was asked for. As long as any photo has no depth at all, drafts come before what is better.
 */
@Component
public class DepthJob {
    private static final Logger LOG = LoggerFactory.getLogger(DepthJob.class);
    private static final int FOCUS_SIDE = 512;
    private static final double ODD_PIXELS = 0.02;
    private static final double DECODED = 0.1;
    private static final double DRAFTED = 0.4;

    private final Shots shots;
    private final DepthMaps maps;
    private final Materials materials;
    private final FileStore files;
    private final PictureReader reader;
    private final Engines engines;
    private final JobStarter starter;
    private final ApplicationEventPublisher events;
    private final ClipDepths clipDepths;
    private final ClipFiles clips;
    private final ClipLane lane;
    private final MemoryGate gate;
    private final YubbleProperties properties;
    private final FramesWanted wanted;
    private final Faces faces;
    private final MeterRegistry meters;
    private final FlowFinder flows = new InverseSearchFlow();

    DepthJob(
            Shots shots,
            DepthMaps maps,
            Materials materials,
            FileStore files,
            PictureReader reader,
            Engines engines,
            JobStarter starter,
            ApplicationEventPublisher events,
            ClipDepths clipDepths,
            ClipFiles clips,
            ClipLane lane,
            MemoryGate gate,
            YubbleProperties properties,
            FramesWanted wanted,
            Faces faces,
            MeterRegistry meters) {
        this.meters = meters;
        this.faces = faces;
        this.wanted = wanted;
        this.clipDepths = clipDepths;
        this.clips = clips;
        this.lane = lane;
        this.gate = gate;
        this.properties = properties;
        this.shots = shots;
        this.maps = maps;
        this.materials = materials;
        this.files = files;
        this.reader = reader;
        this.engines = engines;
        this.starter = starter;
        this.events = events;
    }

    /**
     * Depth is there and the main subject found in the map that a new version starts with.
     *
     * @param farthest nearness of what lies farthest away, but for the odd pixel
     * @param settled whether it stays; of a clip the first frame is known before the others
     */
    public record DepthReady(
            UUID shot, DepthChoice.Source source, SharpBand subject, double farthest, boolean settled) {}

    public void enqueue(UUID shot, String engine, Quality quality) {
        Shot of = shots.byId(shot);
        UUID run = shots.beginDepth(shot);
        Urgency urgency = of.isClip() ? Urgency.CLIP : Urgency.DRAFT;
        starter.<DepthJob>enqueue(of.accountId(), urgency, job -> job.run(shot, run, engine, quality));
    }

    /** Runs in a worker. */
    @Job(name = "Depth of shot %0", retries = 3)
    public void run(UUID id, UUID run, String engine, Quality quality) {
        guarded(id, run, () -> {
            Shot shot = shots.byId(id);
            if (shot.isClip()) {
                lane.<DepthJob>run(() -> ofClip(shot, run, engine, quality), job -> job.run(id, run, engine, quality));
                return;
            }
            gate.estimating(() -> ofPhoto(shot, run, engine, quality));
        });
    }

    /** Runs in a worker: makes a draft better that had to let others pass. */
    @Job(name = "Better depth of shot %0", retries = 3)
    public void refine(UUID id, UUID run, String engine) {
        guarded(id, run, () -> {
            gate.estimating(() -> {
                Shot shot = shots.byId(id);
                DepthEstimate draft = materials.of(shot).frame(0).depth(DepthChoice.Source.ESTIMATED);
                refine(shot, run, engines.namedOrBest(engine), pictureOf(shot), draft);
            });
        });
    }

    private void guarded(UUID id, UUID run, Runnable work) {
        try {
            work.run();
        } catch (CancellationException cancelled) {
            BrokenOffException.rethrow(cancelled);
            LOG.info("depth of shot {} cancelled", id);
        } catch (RuntimeException fault) {
            BrokenOffException.rethrow(fault);
            LOG.error("depth of shot {} failed", id, fault);
            shots.failDepth(id, run, "Depth could not be estimated: " + fault.getMessage());
        }
    }

    private void ofPhoto(Shot shot, UUID run, String engine, Quality quality) {
        UUID id = shot.id();
        long start = System.nanoTime();
        reach(id, run, Shot.State.ESTIMATING, 0.02);
        Picture picture = pictureOf(shot);
        reach(id, run, Shot.State.ESTIMATING, DECODED);
        DepthEstimator estimator = engines.namedOrBest(engine);
        boolean best = quality == Quality.BEST;
        Progress drafting = progress(id, run, Shot.State.ESTIMATING).part(DECODED, best ? DRAFTED : 1);
        DepthEstimate draft = estimator.estimate(picture, Quality.DRAFT, drafting);
        store(id, run, estimator, draft, Quality.DRAFT);
        publish(shot, picture, draft);
        record("draft", start);
        LOG.info("draft depth of {} in {} ms", shot.name(), (System.nanoTime() - start) / 1_000_000);
        if (!best) {
            reach(id, run, Shot.State.READY, 1);
            return;
        }
        reach(id, run, Shot.State.REFINING, DRAFTED);
        if (shots.anyPhotoWaits()) {
            starter.<DepthJob>enqueue(shot.accountId(), Urgency.BETTER, job -> job.refine(id, run, engine));
        } else {
            refine(shot, run, estimator, picture, draft);
        }
    }

    private void refine(Shot shot, UUID run, DepthEstimator estimator, Picture picture, DepthEstimate draft) {
        long start = System.nanoTime();
        Progress refining = progress(shot.id(), run, Shot.State.REFINING).part(DRAFTED, 1);
        store(shot.id(), run, estimator, estimator.improve(picture, draft, refining), Quality.BEST);
        record("best", start);
        LOG.info("best depth of {} after another {} ms", shot.name(), (System.nanoTime() - start) / 1_000_000);
        reach(shot.id(), run, Shot.State.READY, 1);
    }

    private void record(String kind, long start) {
        meters.timer("yubble.depth", "kind", kind).record(System.nanoTime() - start, TimeUnit.NANOSECONDS);
    }

    private Picture pictureOf(Shot shot) {
        String proxy = shot.proxyHash();
        if (proxy == null) {
            throw new IllegalStateException("the shot has no reduced picture");
        }
        try {
            return reader.read(files.bytes(proxy)).picture();
        } catch (IOException fault) {
            throw new UncheckedIOException(fault.getMessage(), fault);
        }
    }

    private void reach(UUID id, UUID run, Shot.State state, double progress) {
        if (!shots.reach(id, run, state, progress, null)) {
            throw new CancellationException("no longer wanted");
        }
    }

    private StoredProgress progress(UUID id, UUID run, Shot.State state) {
        return new StoredProgress(done -> shots.reach(id, run, state, done, null));
    }

    private void ofClip(Shot shot, UUID run, String engine, Quality quality) {
        UUID id = shot.id();
        long start = System.nanoTime();
        DepthEstimator estimator = engines.namedOrBest(engine);
        ClipDepths.Running running = clipDepths.begin(shot, run, estimator.name(), quality);
        ClipFile small = clips.small(shot);
        Path folder = properties.data().toAbsolutePath().resolve("work").resolve("depth-" + run);
        // What lies there already is of a node that stopped or died over it.
        PlaneFiles shelves = new PlaneFiles(folder);
        try {
            reach(id, run, Shot.State.ESTIMATING, 0);
            new DepthOverTime(estimator, flows, quality)
                    .run(small.shot(), small, shelves, sink(shot, running), progress(id, run, Shot.State.ESTIMATING));
            publish(shot, true);
            record("clip", start);
            LOG.info("depth of clip {} in {} ms", shot.name(), (System.nanoTime() - start) / 1_000_000);
            reach(id, run, Shot.State.READY, 1);
        } finally {
            if (Thread.currentThread().isInterrupted()) {
                shelves.close();
            } else {
                shelves.remove();
            }
        }
    }

    /** Whoever waits for the first frame can begin with it; all that follows is stored as it comes. */
    private DepthOverTime.Sink sink(Shot shot, ClipDepths.Running running) {
        boolean[] told = new boolean[1];
        return new DepthOverTime.Sink() {
            @Override
            public void first(int frame, DepthEstimate estimate) {
                running.first(frame, estimate);
                if (!told[0]) {
                    told[0] = true;
                    publish(shot, false);
                }
            }

            @Override
            public OptionalInt wanted() {
                return wanted.take(shot.id());
            }

            @Override
            public void settled(int frame, DepthEstimate estimate) {
                running.settled(frame, estimate);
            }
        };
    }

    /** Tells that a clip has depth. */
    void publish(Shot shot, boolean settled) {
        ShotMaterial material = materials.of(shot);
        ShotStill still = material.frame(0);
        DepthChoice.Source source = material.usualSource();
        Picture picture = still.picture(still.size().fitting(FOCUS_SIDE));
        Plane nearness = DepthEdges.follow(still.depth(source), picture, source.usual());
        SharpBand subject = FocusFinder.subject(picture, nearness, still.clearMatte(), faces.of(still));
        events.publishEvent(new DepthReady(shot.id(), source, subject, nearness.quantile(ODD_PIXELS), settled));
    }

    private void store(UUID id, UUID run, DepthEstimator estimator, DepthEstimate estimate, Quality quality) {
        if (!maps.putEstimate(id, run, estimator.name(), estimate, quality)) {
            throw new CancellationException("no longer wanted");
        }
    }

    private void publish(Shot shot, Picture picture, DepthEstimate draft) {
        ShotMaterial material = materials.of(shot);
        DepthChoice.Source source = material.usualSource();
        Picture small = Resample.toSize(picture, picture.size().fitting(FOCUS_SIDE));
        Plane nearness = DepthEdges.follow(material.frame(0).depth(source), small, source.usual());
        List<Face> people = faces.of(material.frame(0), picture);
        SharpBand subject = FocusFinder.subject(small, nearness, draft.clearMatte(), people);
        events.publishEvent(new DepthReady(shot.id(), source, subject, nearness.quantile(ODD_PIXELS), true));
    }
}
