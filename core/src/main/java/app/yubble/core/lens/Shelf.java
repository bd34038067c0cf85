package app.yubble.core.lens;

import app.yubble.core.raster.Bands;
import java.lang.ref.SoftReference;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentLinkedQueue;
import org.jspecify.annotations.Nullable;

/**
 * Planes of numbers for one tile at a time, kept for the next tile or the next preview.
 *
 * <p>Measured: of the time of a preview a quarter went into getting and clearing 60 MB of fresh memory, on one core. A shelf
 * outlives its rendering only while memory is plentiful.
 */
final class Shelf implements AutoCloseable {
    private static final ConcurrentLinkedQueue<SoftReference<Shelf>> IDLE = new ConcurrentLinkedQueue<>();
    /** Sets of sheets that wait to be used again: one for each of two cores. */
    private static final int MOST_IDLE = 2;
    /** About a preview's worth, 160 MB: more is given up, and so are large tiles, which differ in size. */
    private static final long MOST_KEPT = 40_000_000;

    private final Map<Long, List<float[][]>> free = new HashMap<>();
    private final List<float[][]> lent = new ArrayList<>();

    private Shelf() {}

    static Shelf open() {
        for (SoftReference<Shelf> next = IDLE.poll(); next != null; next = IDLE.poll()) {
            @Nullable Shelf shelf = next.get();
            if (shelf != null) {
                return shelf;
            }
        }
        return new Shelf();
    }

    /** By row; what the numbers are is not defined. */
    float[][] rows(int width, int height) {
        List<float[][]> fitting = free.get(key(width, height));
        float[][] rows =
                fitting == null || fitting.isEmpty() ? new float[height][width] : fitting.remove(fitting.size() - 1);
        lent.add(rows);
        return rows;
    }

    /** By row, all 0. */
    float[][] clearRows(int width, int height) {
        float[][] rows = rows(width, height);
        Bands.ofRows(height, (from, to) -> {
            for (int y = from; y < to; y++) {
                Arrays.fill(rows[y], 0);
            }
        });
        return rows;
    }

    private static long key(int width, int height) {
        return (long) width << 32 | height;
    }

    /** Takes back one that nobody uses any more. */
    void takeBack(float[][] rows) {
        lent.remove(rows);
        free.computeIfAbsent(key(rows[0].length, rows.length), size -> new ArrayList<>())
                .add(rows);
    }

    /** Takes everything back that was lent. */
    void takeBack() {
        while (!lent.isEmpty()) {
            takeBack(lent.get(lent.size() - 1));
        }
        long held = 0;
        for (Map.Entry<Long, List<float[][]>> each : free.entrySet()) {
            held += (each.getKey() >> 32)
                    * (each.getKey() & 0xffffffffL)
                    * each.getValue().size();
        }
        if (held > MOST_KEPT) {
            free.clear();
        }
    }

    @Override
    public void close() {
        takeBack();
        if (IDLE.size() < MOST_IDLE) {
            IDLE.add(new SoftReference<>(this));
        }
    }
}
