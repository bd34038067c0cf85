package app.yubble.server.jobs;

import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.jobrunr.jobs.lambdas.IocJobLambda;
import org.jobrunr.scheduling.JobScheduler;
import org.jobrunr.server.BackgroundJobServer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.stereotype.Component;

/**
 * Puts jobs in the queue and has this node look at the queue right away.
 *
 * <p>JobRunr polls every five seconds at best; somebody who has just dropped a photo should not wait for that. Any other
 * node finds the job by its own polling when this one is busy.
 */
@Component
public class JobStarter implements DisposableBean {
    private static final Logger LOG = LoggerFactory.getLogger(JobStarter.class);

    private final JobScheduler scheduler;
    private final ObjectProvider<BackgroundJobServer> server;
    private final ExecutorService looking = Executors.newSingleThreadExecutor(work -> {
        Thread thread = new Thread(work, "job-starter");
        thread.setDaemon(true);
        return thread;
    });

    JobStarter(JobScheduler scheduler, ObjectProvider<BackgroundJobServer> server) {
        this.scheduler = scheduler;
        this.server = server;
    }

    public <S> void enqueue(IocJobLambda<S> job) {
        scheduler.<S>enqueue(job);
        looking.execute(() -> server.ifAvailable(running -> {
            try {
                if (running.isRunning()) {
                    running.getJobSteward().run();
                }
            } catch (RuntimeException fault) {
                LOG.debug("the queue will be looked at by polling", fault);
            }
        }));
    }

    /** For a job that finds no room: it comes again. */
    public <S> void later(Duration wait, IocJobLambda<S> job) {
        scheduler.<S>schedule(Instant.now().plus(wait), job);
    }

    @Override
    public void destroy() throws InterruptedException {
        looking.shutdown();
        looking.awaitTermination(2, TimeUnit.SECONDS);
    }
}
