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
 * What is no longer wanted leaves the queue.
 */
public final class Turns {
    /** How often who waits asks whether it is still wanted. */
    private static final long LOOK_MILLIS = 40;

    private final int places;
    private final int mostOfOne;
    private final int mostOfAll;
    private final ReentrantLock lock = new ReentrantLock();
    /** Who has waited longest for a turn first. */
    private final Map<UUID, Deque<Waiter>> waiting = new LinkedHashMap<>();

    private int free;
    private int count;

    private final class Waiter {
        final Condition called = lock.newCondition();
        boolean granted;
    }

    /**
     * @param places how many work at once
     * @param mostOfOne person who wait at once; more is refused
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
    public <T> T in(UUID person, Progress wanted, Supplier<T> work) {
        await(person, wanted);
        try {
            return work.get();
        } finally {
            done();
        }
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

    /** How many people wait, whatever each of them waits for. */
    public int people() {
        lock.lock();
        try {
            return waiting.size();
        } finally {
            lock.unlock();
        }
    }

    private void await(UUID person, Progress wanted) {
        lock.lock();
        try {
            if (free > 0) {
                free--;
                return;
            }
            Deque<Waiter> mine = waiting.getOrDefault(person, new ArrayDeque<>());
            if (mine.size() >= mostOfOne || count >= mostOfAll) {
                throw new TooOftenException("Too much is asked for at once. Wait until some of it is there.");
            }
            waiting.putIfAbsent(person, mine);
            Waiter waiter = new Waiter();
            mine.add(waiter);
            count++;
            try {
                while (!waiter.granted) {
                    wanted.at(0);
                    waiter.called.await(LOOK_MILLIS, TimeUnit.MILLISECONDS);
                }
            } catch (InterruptedException | RuntimeException left) {
                leave(person, mine, waiter);
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

    private void leave(UUID person, Deque<Waiter> mine, Waiter waiter) {
        if (waiter.granted) {
            done();
            return;
        }
        mine.remove(waiter);
        count--;
        if (mine.isEmpty()) {
            waiting.remove(person, mine);
        }
    }

    /** Gives the place on to the next person, who then goes to the end of the queue. */
    private void done() {
        lock.lock();
        try {
            var next = waiting.entrySet().iterator();
            if (!next.hasNext()) {
                free++;
                return;
            }
            Map.Entry<UUID, Deque<Waiter>> person = next.next();
            Waiter waiter = person.getValue().remove();
            count--;
            waiting.remove(person.getKey());
            if (!person.getValue().isEmpty()) {
                waiting.put(person.getKey(), person.getValue());
            }
            waiter.granted = true;
            waiter.called.signal();
        } finally {
            lock.unlock();
        }
    }
}
