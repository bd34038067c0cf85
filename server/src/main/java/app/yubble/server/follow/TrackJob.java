package app.yubble.server.follow;

import app.yubble.server.jobs.BrokenOffException;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import org.jobrunr.jobs.annotations.Job;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Follows a point in the background. */
@Component
public class TrackJob {
    private static final Logger LOG = LoggerFactory.getLogger(TrackJob.class);

    private final Tracks tracks;

    TrackJob(Tracks tracks) {
        this.tracks = tracks;
    }

    /** Runs in a worker. */
    @Job(name = "Track %0", retries = 3)
    public void run(UUID id) {
        try {
            tracks.make(id);
        } catch (CancellationException stopped) {
            BrokenOffException.rethrow(stopped);
            LOG.info("track {} is no longer wanted", id);
        } catch (RuntimeException fault) {
            BrokenOffException.rethrow(fault);
            LOG.warn("track {} failed", id, fault);
            tracks.fail(id, fault);
        }
    }
}
