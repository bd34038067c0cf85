package app.yubble.server.jobs;

import app.yubble.server.node.NodeClock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.jobrunr.jobs.Job;
import org.jobrunr.jobs.states.StateName;
import org.jobrunr.server.BackgroundJobServer;
import org.jobrunr.storage.StorageException;
import org.jobrunr.storage.StorageProvider;
import org.jobrunr.storage.navigation.AmountRequest;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.dao.DataAccessException;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.CannotCreateTransactionException;

/**
 * Finds what waits for a job that does not exist and gives it one: a node may have died between writing the one and putting the
 * other into the queue, or after the last try of a job.
 */
@Component
public class Reconciler {
    private static final Logger LOG = LoggerFactory.getLogger(Reconciler.class);

    /** Whoever put something down a moment ago may still be on the way to the queue. */
    private static final Duration GRACE = Duration.ofSeconds(90);
    /** More jobs than this are not looked through: what is in doubt waits until there are fewer. */
    private static final int MOST_JOBS = 5000;

    private static final List<StateName> ALIVE =
            List.of(StateName.ENQUEUED, StateName.SCHEDULED, StateName.AWAITING, StateName.PROCESSING);

    private final StorageProvider jobs;
    private final ObjectProvider<BackgroundJobServer> workers;
    private final List<Unfinished> kinds;
    private final JobStarter starter;
    private final NodeClock clock;

    Reconciler(
            StorageProvider jobs,
            ObjectProvider<BackgroundJobServer> workers,
            List<Unfinished> kinds,
            JobStarter starter,
            NodeClock clock) {
        this.clock = clock;
        this.starter = starter;
        this.jobs = jobs;
        this.workers = workers;
        this.kinds = kinds;
    }

    /** Also starts the workers again: after some time without a database they give up. */
    @Scheduled(initialDelay = 20_000, fixedDelay = 60_000)
    public void look() {
        try {
            workers.ifAvailable(server -> {
                if (!server.isRunning() && clock.problem().isEmpty()) {
                    LOG.warn("the workers have stopped; they are started again");
                    server.start();
                }
            });
            reconcile(Instant.now().minus(GRACE));
            starter.forgetDone();
        } catch (DataAccessException | CannotCreateTransactionException | StorageException noDatabase) {
            LOG.debug("nothing is reconciled while the database is away");
        }
    }

    /** Looks at what nothing has happened to since {@code moment}; the answer is how many were given a job. */
    public int reconcile(Instant moment) {
        int resumed = 0;
        Set<UUID> named = null;
        for (Unfinished kind : kinds) {
            for (UUID id : kind.untouchedSince(moment)) {
                named = named == null ? named() : named;
                if (!named.contains(id) && kind.claim(id, moment)) {
                    LOG.warn("nobody works on {} any more: it is begun again", id);
                    kind.resume(id);
                    resumed++;
                }
            }
        }
        return resumed;
    }

    /** All that jobs which are still to run, or run, are told to work on. */
    private Set<UUID> named() {
        Set<UUID> ids = new HashSet<>();
        for (StateName state : ALIVE) {
            for (Job job : jobs.getJobList(state, new AmountRequest("updatedAt:ASC", MOST_JOBS))) {
                for (Object value : job.getJobDetails().getJobParameterValues()) {
                    if (value instanceof UUID id) {
                        ids.add(id);
                    }
                }
            }
        }
        return ids;
    }
}
