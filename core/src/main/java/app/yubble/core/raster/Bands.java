package app.yubble.core.raster;

import java.util.stream.IntStream;

/** Splits rows, or numbered pieces of work, over the common pool. The result never depends on the split. */
public final class Bands {
    // Below this many rows a band costs more to hand out than to compute.
    private static final int LEAST_ROWS = 16;
    private static final int BANDS_PER_CORE = 4;

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
        int cores = Runtime.getRuntime().availableProcessors();
        int bands = Math.max(1, Math.min(height / LEAST_ROWS, cores * BANDS_PER_CORE));
        if (bands == 1) {
            rows.run(0, height);
            return;
        }
        IntStream.range(0, bands).parallel().forEach(band -> {
            int from = (int) ((long) height * band / bands);
            int to = (int) ((long) height * (band + 1) / bands);
            rows.run(from, to);
        });
    }

    public static void ofPieces(int count, Piece piece) {
        if (count == 1) {
            piece.run(0);
        } else {
            IntStream.range(0, count).parallel().forEach(piece::run);
        }
    }
}
