package app.yubble.server.shoot;

import app.yubble.core.depth.DepthEstimator;
import app.yubble.core.focus.FocusFinder;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.media.picture.PictureReader;
import app.yubble.server.jobs.JobStarter;
import app.yubble.server.jobs.StoredProgress;
import app.yubble.server.storage.FileStore;
import java.io.IOException;
import java.util.UUID;
import org.jobrunr.jobs.annotations.Job;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Component;

/** Estimates a shot's depth and finds its subject, from the reduced picture. */
@Component
public class DepthJob {
    private static final Logger LOG = LoggerFactory.getLogger(DepthJob.class);

    private final Shots shots;
    private final FileStore files;
    private final PictureReader reader;
    private final DepthEstimator estimator;
    private final JobStarter starter;
    private final ApplicationEventPublisher events;

    DepthJob(
            Shots shots,
            FileStore files,
            PictureReader reader,
            DepthEstimator estimator,
            JobStarter starter,
            ApplicationEventPublisher events) {
        this.shots = shots;
        this.files = files;
        this.reader = reader;
        this.estimator = estimator;
        this.starter = starter;
        this.events = events;
    }

    /** Depth is there and the main subject found in the map that a new version starts with. */
    public record DepthReady(UUID shot, DepthChoice.Source source, SharpBand subject) {}

    void enqueue(UUID shot) {
        starter.<DepthJob>enqueue(job -> job.run(shot));
    }

    /** Runs in a worker. */
    @Job(name = "Depth of shot %0")
    public void run(UUID id) {
        long start = System.nanoTime();
        Shot shot = shots.byId(id);
        try {
            shots.reach(id, Shot.State.ESTIMATING, 0.02, null);
            String proxy = shot.proxyHash();
            if (proxy == null) {
                throw new IllegalStateException("the shot has no reduced picture");
            }
            Picture picture = reader.read(files.bytes(proxy)).picture();
            shots.reach(id, Shot.State.ESTIMATING, 0.3, null);
            StoredProgress progress = new StoredProgress(done -> {
                shots.reach(id, Shot.State.ESTIMATING, 0.3 + 0.6 * done, null);
                return true;
            });
            Plane map = estimator.estimate(picture, progress);
            shots.putDepth(id, DepthChoice.Source.ESTIMATED, estimator.name(), map);
            boolean file = shots.depthMaps(id).stream().anyMatch(known -> known.source() == DepthChoice.Source.FILE);
            DepthChoice.Source source = file ? DepthChoice.Source.FILE : DepthChoice.Source.ESTIMATED;
            Plane used = new ShotMaterial(shot, shots.depthMaps(id), files, reader).depth(source);
            events.publishEvent(new DepthReady(id, source, FocusFinder.subject(picture, used)));
            shots.reach(id, Shot.State.READY, 1, null);
            LOG.info("depth of {} in {} ms", shot.name(), (System.nanoTime() - start) / 1_000_000);
        } catch (IOException | RuntimeException fault) {
            LOG.error("depth of shot {} failed", id, fault);
            shots.reach(id, Shot.State.FAILED, 0, "Depth could not be estimated: " + fault.getMessage());
        }
    }
}
