package app.yubble.server.jobs;

import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.jobrunr.jobs.Job;
import org.jobrunr.jobs.filters.JobServerFilter;
import org.springframework.stereotype.Component;

/**
 * What the workers of this node have in hand. One of them is always free for drafts of depth, which somebody waits for, and one for
 * everything else, however many photos come in.
 */
@Component
class Lanes implements JobServerFilter {
    private final Map<UUID, Urgency> inHand = new ConcurrentHashMap<>();

    /** Made by the framework. */
    Lanes() {}

    void take(UUID job, Urgency urgency) {
        inHand.put(job, urgency);
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
        return inHand.values().stream().filter(urgency::equals).count();
    }

    @Override
    public void onProcessingSucceeded(Job job) {
        inHand.remove(job.getId());
    }

    @Override
    public void onProcessingFailed(Job job, Exception fault) {
        inHand.remove(job.getId());
    }

    /** When no worker has anything: what was not told of its end is not in hand any more. */
    void clear() {
        inHand.clear();
    }
}
