package app.yubble.server.depth;

import app.yubble.core.depth.DepthShapeException;
import app.yubble.media.clip.ClipToolException;
import app.yubble.media.clip.DepthClip;
import app.yubble.media.clip.UnreadableClipException;
import app.yubble.media.picture.PictureReader;
import app.yubble.server.jobs.BrokenOffException;
import app.yubble.server.jobs.ClipLane;
import app.yubble.server.jobs.JobStarter;
import app.yubble.server.jobs.StoredProgress;
import app.yubble.server.jobs.Urgency;
import app.yubble.server.shoot.ClipDepths;
import app.yubble.server.shoot.ClipFiles;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import app.yubble.server.storage.FileStore;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import org.jobrunr.jobs.annotations.Job;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Reads depth of every frame of a clip from a file that somebody brought in: a film or a zip of pictures. */
@Component
public class DepthClipJob {
    private static final Logger LOG = LoggerFactory.getLogger(DepthClipJob.class);

    private final Shots shots;
    private final ClipDepths depths;
    private final ClipFiles clips;
    private final FileStore files;
    private final PictureReader reader;
    private final DepthJob estimates;
    private final JobStarter starter;
    private final ClipLane lane;

    DepthClipJob(
            Shots shots,
            ClipDepths depths,
            ClipFiles clips,
            FileStore files,
            PictureReader reader,
            DepthJob estimates,
            JobStarter starter,
            ClipLane lane) {
        this.shots = shots;
        this.depths = depths;
        this.clips = clips;
        this.files = files;
        this.reader = reader;
        this.estimates = estimates;
        this.starter = starter;
        this.lane = lane;
    }

    /** @param hash of the stored file */
    public void enqueue(UUID shot, String name, String hash) {
        UUID account = shots.byId(shot).accountId();
        UUID run = shots.beginDepth(shot);
        starter.<DepthClipJob>enqueue(account, Urgency.CLIP, job -> job.run(shot, run, name, hash));
    }

    /** Runs in a worker. */
    @Job(name = "Depth from a file for clip %0", retries = 3)
    public void run(UUID id, UUID run, String name, String hash) {
        lane.<DepthClipJob>run(() -> read(id, run, name, hash), job -> job.run(id, run, name, hash));
    }

    private void read(UUID id, UUID run, String name, String hash) {
        try {
            Shot shot = shots.byId(id);
            ClipDepths.Arriving arriving = depths.arrive(shot, run);
            StoredProgress progress =
                    new StoredProgress(done -> shots.reach(id, run, Shot.State.ESTIMATING, done, null));
            Path times = files.incoming();
            try {
                new DepthClip(reader).read(files.local(hash), times, clips.sheet(shot), arriving::add, progress);
            } finally {
                Files.deleteIfExists(times);
            }
            arriving.finish(name);
            estimates.publish(shot, true);
            LOG.info("depth of clip {} from {}", shot.name(), name);
            shots.reach(id, run, Shot.State.READY, 1, null);
        } catch (CancellationException cancelled) {
            BrokenOffException.rethrow(cancelled);
            LOG.info("depth from a file for clip {} cancelled", id);
        } catch (UnreadableClipException | ClipToolException | DepthShapeException | IOException fault) {
            BrokenOffException.rethrow(fault);
            LOG.warn("depth of clip {} cannot be used", id, fault);
            shots.failDepth(id, run, name + ": " + fault.getMessage());
        }
    }
}
