package app.yubble.server.jobs;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Predicate;
import java.util.function.ToDoubleFunction;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Who is served next. The most urgent comes first; among equals it goes round among accounts, each as often as its weight says,
 * however much any of them has asked for. Whoever asks after a pause takes their place in the round that is under way: they have
 * saved nothing up.
 *
 * @see <a href="https://doi.org/10.1145/248156.248171">P. Goyal, H. M. Vin, H. Cheng: Start-time Fair Queueing, SIGCOMM 1996</a>
 */
final class Round {
    private final List<Waiting> waiting;
    private final Map<UUID, Double> served;
    private final Map<UUID, Double> changed = new HashMap<>();
    private final ToDoubleFunction<UUID> weights;
    private double at;

    /**
     * A job in the queue.
     *
     * @param account whose work it is
     */
    record Waiting(UUID job, UUID account, Urgency urgency) {}

    /**
     * @param waiting the oldest of each account first
     * @param served how much each account was before
     * @param at where the round is
     */
    Round(List<Waiting> waiting, Map<UUID, Double> served, double at, ToDoubleFunction<UUID> weights) {
        this.waiting = new ArrayList<>(waiting);
        this.served = new HashMap<>(served);
        this.at = at;
        this.weights = weights;
    }

    /** The next job, which leaves the queue; null when there is none for which there is room. */
    @Nullable
    Waiting next(Predicate<Urgency> room) {
        Stream<Waiting> possible = waiting.stream().filter(each -> room.test(each.urgency()));
        Waiting next = possible.min(Comparator.comparing(Waiting::urgency).thenComparing(this::start))
                .orElse(null);
        waiting.remove(next);
        return next;
    }

    private double start(Waiting of) {
        return Math.max(at, served.getOrDefault(of.account(), 0.0));
    }

    /** Notes that a job is given to a worker. */
    void serve(Waiting given) {
        at = start(given);
        double now = at + 1 / weights.applyAsDouble(given.account());
        served.put(given.account(), now);
        changed.put(given.account(), now);
    }

    /** Whether others than drafts wait. */
    boolean hasLessUrgent() {
        return waiting.stream().anyMatch(each -> each.urgency() != Urgency.DRAFT);
    }

    boolean hasDrafts() {
        return waiting.stream().anyMatch(each -> each.urgency() == Urgency.DRAFT);
    }

    double at() {
        return at;
    }

    /** Of accounts that were served. */
    Map<UUID, Double> changed() {
        return changed;
    }
}
