package app.yubble.server.jobs;

import app.yubble.server.news.News;
import app.yubble.server.news.NewsReader;
import java.time.Duration;
import java.time.Instant;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jobrunr.jobs.lambdas.IocJobLambda;
import org.jobrunr.scheduling.JobScheduler;
import org.jobrunr.server.BackgroundJobServer;
import org.jobrunr.server.runner.ThreadLocalJobContext;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.context.event.EventListener;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/**
 * Puts jobs in the queue and has this node look at the queue right away.
 *
 * <p>JobRunr polls every five seconds at best; somebody who has just dropped a photo should not wait for that. Other nodes are told
 * of the job, and find it by their own polling at the latest.
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

    /** So that a hundred jobs at once are looked for once. */
    private final AtomicBoolean asked = new AtomicBoolean();

    private final JdbcTemplate database;
    private final News news;

    JobStarter(JobScheduler scheduler, ObjectProvider<BackgroundJobServer> server, JdbcTemplate database, News news) {
        this.database = database;
        this.news = news;
        this.scheduler = scheduler;
        this.server = server;
    }

    /** @param account whose work it is */
    public <S> void enqueue(UUID account, Urgency urgency, IocJobLambda<S> job) {
        scheduler.<S>enqueue(noted(account, urgency), job);
        news.tell(account, News.Kind.QUEUE, "", 0);
        look();
    }

    /** For a job that finds no room: it comes again, as the work of whoever it is now. */
    public <S> void later(Duration wait, IocJobLambda<S> job) {
        UUID id = UUID.randomUUID();
        database.update(
                "insert into job_turn (job_id, account_id, urgency) select ?, account_id, urgency from job_turn where job_id = ?",
                id.toString(),
                ThreadLocalJobContext.getJobContext().getJobId().toString());
        scheduler.<S>schedule(id, Instant.now().plus(wait), job);
    }

    private UUID noted(UUID account, Urgency urgency) {
        UUID id = UUID.randomUUID();
        database.update(
                "insert into job_turn (job_id, account_id, urgency) values (?, ?, ?)",
                id.toString(),
                account,
                urgency.name());
        return id;
    }

    /** Another node has put something into the queue. */
    @EventListener
    void told(NewsReader.Edition news) {
        if (news.items().stream().anyMatch(item -> item.kind() == News.Kind.QUEUE && !item.isOwn())) {
            look();
        }
    }

    private void look() {
        if (asked.compareAndSet(false, true)) {
            looking.execute(() -> {
                asked.set(false);
                server.ifAvailable(JobStarter::look);
            });
        }
    }

    private static void look(BackgroundJobServer running) {
        try {
            if (running.isRunning()) {
                running.getJobSteward().run();
            }
        } catch (RuntimeException fault) {
            LOG.debug("the queue will be looked at by polling", fault);
        }
    }

    /** Forgets whose work was what is done. */
    void forgetDone() {
        database.update("delete t from job_turn t left join jobrunr_jobs j on j.id = t.job_id"
                + " where t.created < current_timestamp(6) - interval 1 hour"
                + " and (j.id is null or j.state in ('SUCCEEDED', 'DELETED'))");
    }

    @Override
    public void destroy() throws InterruptedException {
        looking.shutdown();
        looking.awaitTermination(2, TimeUnit.SECONDS);
    }
}
