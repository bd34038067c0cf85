package app.yubble.core.raster;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.ForkJoinTask;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import org.jspecify.annotations.Nullable;

/** Splits rows, or numbered pieces of work, over the common pool. The result never depends on the split. */
public final class Bands {
    // Below this many rows a band costs more to hand out than to compute.
    private static final int LEAST_ROWS = 16;
    private static final int BANDS_PER_CORE = 4;
    private static final int CORES = Runtime.getRuntime().availableProcessors();

    private Bands() {}

    /** Work on rows from {@code from} (inclusive) to {@code to} (exclusive). */
    @FunctionalInterface
    public interface Rows {
        void run(int from, int to);
    }

    /** Work on the piece with this number. */
    @FunctionalInterface
    public interface Piece {
        void run(int index);
    }

    public static void ofRows(int height, Rows rows) {
        int bands = Math.max(1, Math.min(height / LEAST_ROWS, CORES * BANDS_PER_CORE));
        ofPieces(bands, band -> {
            int from = (int) ((long) height * band / bands);
            int to = (int) ((long) height * (band + 1) / bands);
            rows.run(from, to);
        });
    }

    /**
     * Runs every piece once. The caller works too and helpers of the common pool take pieces as they get free; a helper that
     * has not begun when nothing is left is called off, so short work never waits for a thread to wake up.
     */
    public static void ofPieces(int count, Piece piece) {
        Work work = new Work(count, piece);
        int helpers = Math.min(CORES, count) - 1;
        List<ForkJoinTask<?>> tasks = new ArrayList<>(Math.max(0, helpers));
        for (int i = 0; i < helpers; i++) {
            tasks.add(ForkJoinPool.commonPool().submit(work));
        }
        try {
            work.run();
        } finally {
            work.stop();
            for (ForkJoinTask<?> task : tasks) {
                if (!task.cancel(false) || !task.isCancelled()) {
                    task.quietlyJoin();
                }
            }
            work.awaitHelpers();
        }
        work.rethrow();
    }

    /** Pieces handed out one by one to whoever asks. */
    private static final class Work implements Runnable {
        private final int count;
        private final Piece piece;
        private final AtomicInteger next = new AtomicInteger();
        private final AtomicInteger running = new AtomicInteger();
        private final AtomicReference<@Nullable Throwable> fault = new AtomicReference<>();

        Work(int count, Piece piece) {
            this.count = count;
            this.piece = piece;
        }

        @Override
        public void run() {
            running.incrementAndGet();
            try {
                for (int i = next.getAndIncrement(); i < count; i = next.getAndIncrement()) {
                    piece.run(i);
                }
            } catch (Throwable thrown) {
                fault.compareAndSet(null, thrown);
                stop();
            } finally {
                running.decrementAndGet();
            }
        }

        void stop() {
            next.set(count);
        }

        // A helper that was called off while it began may still hold its last piece.
        void awaitHelpers() {
            while (running.get() > 0) {
                Thread.onSpinWait();
            }
        }

        void rethrow() {
            Throwable thrown = fault.get();
            if (thrown instanceof RuntimeException runtime) {
                throw runtime;
            }
            if (thrown instanceof Error error) {
                throw error;
            }
        }
    }
}
