package app.yubble.server.jobs;

import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.core.instrument.Timer;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import org.jobrunr.jobs.Job;
import org.jobrunr.jobs.filters.JobServerFilter;
import org.springframework.stereotype.Component;

/**
 * What the workers of this node have in hand. One of them is always free for drafts of depth, which somebody waits for, and one for
 * everything else, however many photos come in.
 */
@Component
class Lanes implements JobServerFilter {
    private final Map<UUID, Hold> inHand = new ConcurrentHashMap<>();
    private final MeterRegistry meters;

    Lanes(MeterRegistry meters) {
        this.meters = meters;
    }

    private record Hold(Urgency urgency, long since) {}

    void take(UUID job, Urgency urgency) {
        inHand.put(job, new Hold(urgency, System.nanoTime()));
    }

    /**
     * Whether one more job is taken.
     *
     * @param others whether something else than drafts waits
     */
    boolean hasRoom(Urgency urgency, int workers, boolean others) {
        int all = Math.max(1, workers - 1);
        long drafts = count(Urgency.DRAFT);
        return urgency == Urgency.DRAFT ? drafts < (others ? all : workers) : inHand.size() - drafts < all;
    }

    long count(Urgency urgency) {
        return inHand.values().stream()
                .filter(each -> each.urgency() == urgency)
                .count();
    }

    @Override
    public void onProcessingSucceeded(Job job) {
        end(job, "done");
    }

    @Override
    public void onProcessingFailed(Job job, Exception fault) {
        end(job, "failed");
    }

    private void end(Job job, String outcome) {
        Hold hold = inHand.remove(job.getId());
        if (hold != null) {
            Timer.builder("yubble.job")
                    .tag("urgency", hold.urgency().name())
                    .tag("outcome", outcome)
                    .register(meters)
                    .record(System.nanoTime() - hold.since(), TimeUnit.NANOSECONDS);
        }
    }

    /** It could not be taken. */
    void drop(UUID job) {
        inHand.remove(job);
    }

    /** When no worker has anything: what was not told of its end is not in hand any more. */
    void clear() {
        inHand.clear();
    }
}
