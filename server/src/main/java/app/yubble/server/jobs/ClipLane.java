package app.yubble.server.jobs;

import java.time.Duration;
import java.util.concurrent.Semaphore;
import org.jobrunr.jobs.lambdas.IocJobLambda;
import org.springframework.stereotype.Component;

/**
 * Work on clips takes minutes or hours. One piece of it runs at a time on this node, so that the other worker is always free for
 * photos; what finds the lane taken comes again.
 */
@Component
public class ClipLane {
    private static final Duration WAIT = Duration.ofSeconds(3);

    private final Semaphore room = new Semaphore(1);
    private final JobStarter starter;

    ClipLane(JobStarter starter) {
        this.starter = starter;
    }

    /**
     * Runs {@code work} when the lane is free.
     *
     * @param again the same job, for later
     */
    public <S> void run(Runnable work, IocJobLambda<S> again) {
        if (!room.tryAcquire()) {
            starter.<S>later(WAIT, again);
            return;
        }
        try {
            work.run();
        } finally {
            room.release();
        }
    }
}
