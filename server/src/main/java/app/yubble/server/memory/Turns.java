package app.yubble.server.memory;

import app.yubble.core.raster.Progress;
import app.yubble.server.problem.TooOftenException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Supplier;

/**
 * A fair queue for a few places: they go round among the people who wait, one turn each, however much any of them asks for.
 * What soon passes and what is to stay wait in rows of their own, which get equal parts of the time while somebody waits in both. What is no
 * longer wanted leaves the queue.
 */
public final class Turns {
    /** How often who waits asks whether it is still wanted. */
    private static final long LOOK_MILLIS = 40;

    /** What somebody waits for. */
    public enum Kind {
        /** It is worth little when it comes late. */
        PASSING,
        LASTING
    }

    private final int places;
    private final int mostOfOne;
    private final int mostOfAll;
    private final ReentrantLock lock = new ReentrantLock();
    private final Row passing = new Row();
    private final Row lasting = new Row();
    private int free;
    private int count;

    /** Guarded by the lock, as all that changes here. */
    private final class Waiter {
        final Condition called = lock.newCondition();
        boolean granted;
    }

    /** Those who wait for one kind. */
    private static final class Row {
        /** Who has waited longest for a turn first. */
        final Map<UUID, Deque<Waiter>> waiting = new LinkedHashMap<>();

        int working;
        long spentNanos;

        /** A time without anybody is no claim to more later on. */
        void join(Row other) {
            if (working == 0 && waiting.isEmpty()) {
                spentNanos = Math.max(spentNanos, other.spentNanos);
            }
        }
    }

    /**
     * @param places how many work at once
     * @param mostOfOne of a kind that one person waits for at once; more is refused
     * @param mostOfAll the same of all together
     */
    public Turns(int places, int mostOfOne, int mostOfAll) {
        this.places = places;
        free = places;
        this.mostOfOne = mostOfOne;
        this.mostOfAll = mostOfAll;
    }

    /**
     * Does the work when it is this person's turn.
     *
     * @param wanted throws when the work is no longer wanted
     * @throws TooOftenException when too much waits already
     */
    public <T> T in(UUID person, Kind kind, Progress wanted, Supplier<T> work) {
        Row row = row(kind);
        await(person, row, wanted);
        long start = System.nanoTime();
        try {
            return work.get();
        } finally {
            done(row, System.nanoTime() - start);
        }
    }

    private Row row(Kind kind) {
        return kind == Kind.PASSING ? passing : lasting;
    }

    /** Whether nobody works and nobody waits. */
    public boolean areFree() {
        return used() == 0;
    }

    /** How many work or wait. */
    public int used() {
        lock.lock();
        try {
            return places - free + count;
        } finally {
            lock.unlock();
        }
    }

    /** How many people wait for anything of a kind. */
    public int people(Kind kind) {
        lock.lock();
        try {
            return row(kind).waiting.size();
        } finally {
            lock.unlock();
        }
    }

    private void await(UUID person, Row row, Progress wanted) {
        lock.lock();
        try {
            row.join(row == passing ? lasting : passing);
            if (free > 0) {
                free--;
                row.working++;
                return;
            }
            Deque<Waiter> mine = row.waiting.getOrDefault(person, new ArrayDeque<>());
            if (mine.size() >= mostOfOne || count >= mostOfAll) {
                throw new TooOftenException("Too much is asked for at once. Wait until some of it is there.");
            }
            row.waiting.putIfAbsent(person, mine);
            Waiter waiter = new Waiter();
            mine.add(waiter);
            count++;
            try {
                while (!waiter.granted) {
                    wanted.at(0);
                    waiter.called.await(LOOK_MILLIS, TimeUnit.MILLISECONDS);
                }
            } catch (InterruptedException | RuntimeException left) {
                leave(person, row, waiter);
                if (left instanceof RuntimeException fault) {
                    throw fault;
                }
                Thread.currentThread().interrupt();
                throw new CancellationException("the server stops");
            }
        } finally {
            lock.unlock();
        }
    }

    private void leave(UUID person, Row row, Waiter waiter) {
        if (waiter.granted) {
            done(row, 0);
            return;
        }
        count--;
        row.waiting.computeIfPresent(person, (id, mine) -> {
            mine.remove(waiter);
            return mine.isEmpty() ? null : mine;
        });
    }

    /** Gives the place on to the next person, who then goes to the end of the row. */
    private void done(Row row, long nanos) {
        lock.lock();
        try {
            row.working--;
            row.spentNanos += nanos;
            boolean passes = !passing.waiting.isEmpty()
                    && (lasting.waiting.isEmpty() || passing.spentNanos <= lasting.spentNanos);
            Row next = passes ? passing : lasting;
            var people = next.waiting.entrySet().iterator();
            if (!people.hasNext()) {
                free++;
                return;
            }
            Map.Entry<UUID, Deque<Waiter>> person = people.next();
            Waiter waiter = person.getValue().remove();
            count--;
            next.working++;
            next.waiting.remove(person.getKey());
            if (!person.getValue().isEmpty()) {
                next.waiting.put(person.getKey(), person.getValue());
            }
            waiter.granted = true;
            waiter.called.signal();
        } finally {
            lock.unlock();
        }
    }
}
