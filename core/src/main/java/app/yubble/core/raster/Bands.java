package app.yubble.core.raster;

import java.util.concurrent.Executor;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Splits rows, or numbered pieces of work, over an executor: the common pool, or the one that {@link #on} is given for all that is
 * called from within. The result never depends on the split.
 */
public final class Bands {
    /** Below this many rows a band costs more to hand out than to compute. By the times of previews. */
    private static final int LEAST_ROWS = 16;
    /** So many that nobody waits long for the last one, though cores are not equally fast. By the times of previews. */
    private static final int BANDS_PER_CORE = 8;

    /** Who works: the caller and as many helpers. */
    private record Workers(Executor executor, int helpers) {}

    private static final Workers USUAL =
            new Workers(ForkJoinPool.commonPool(), Runtime.getRuntime().availableProcessors() - 1);
    private static final ThreadLocal<Workers> CURRENT = ThreadLocal.withInitial(() -> USUAL);

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

    /**
     * Runs {@code work} with helpers from {@code executor}, in this thread and in those of the helpers.
     *
     * @param helpers at most, beside the caller; 0 for one piece after another in this thread
     */
    public static <T> T on(Executor executor, int helpers, Supplier<T> work) {
        Workers before = CURRENT.get();
        CURRENT.set(new Workers(executor, helpers));
        try {
            return work.get();
        } finally {
            CURRENT.set(before);
        }
    }

    public static void ofRows(int height, Rows rows) {
        int most = (CURRENT.get().helpers() + 1) * BANDS_PER_CORE;
        int bands = Math.max(1, Math.min(height / LEAST_ROWS, most));
        ofPieces(bands, band -> {
            int from = (int) ((long) height * band / bands);
            int to = (int) ((long) height * (band + 1) / bands);
            rows.run(from, to);
        });
    }

    /**
     * Runs every piece once. The caller works too, and helpers take pieces as they get free; one that comes when nothing is left
     * finds nothing to do, so short work never waits for a thread to wake up.
     */
    public static void ofPieces(int count, Piece piece) {
        Workers workers = CURRENT.get();
        Work work = new Work(count, piece, workers);
        for (int i = 0; i < Math.min(workers.helpers(), count - 1); i++) {
            workers.executor().execute(work);
        }
        work.run();
        work.awaitHelpers();
        work.rethrow();
    }

    /** Pieces handed out one by one to whoever asks. Guarded by its atomic numbers. */
    private static final class Work implements Runnable {
        private final int count;
        private final Piece piece;
        private final Workers workers;
        private final Thread caller = Thread.currentThread();
        private final AtomicInteger next = new AtomicInteger();
        private final AtomicInteger running = new AtomicInteger();
        private final AtomicReference<@Nullable Throwable> fault = new AtomicReference<>();

        Work(int count, Piece piece, Workers workers) {
            this.count = count;
            this.piece = piece;
            this.workers = workers;
        }

        @Override
        public void run() {
            // Before a piece is taken, so that whoever sees none left also sees who still works on one.
            running.incrementAndGet();
            Workers before = CURRENT.get();
            CURRENT.set(workers);
            try {
                for (int i = next.getAndIncrement(); i < count; i = next.getAndIncrement()) {
                    piece.run(i);
                }
            } catch (Throwable thrown) {
                fault.compareAndSet(null, thrown);
                next.set(count);
            } finally {
                CURRENT.set(before);
                if (running.decrementAndGet() == 0) {
                    LockSupport.unpark(caller);
                }
            }
        }

        void awaitHelpers() {
            while (running.get() > 0) {
                LockSupport.park(this);
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
