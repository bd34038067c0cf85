package app.yubble.core.lens;

import app.yubble.core.raster.Bands;
import java.lang.ref.SoftReference;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;

/**
 * Rows of numbers for one tile at a time, kept for the next tile or the next preview.
 *
 * <p>Measured: of the time of a preview a quarter went into getting and clearing 60 MB of fresh memory, on one core. A shelf
 * outlives its rendering only while memory is plentiful.
 */
final class Shelf implements AutoCloseable {
    private static final ConcurrentLinkedQueue<SoftReference<Shelf>> IDLE = new ConcurrentLinkedQueue<>();
    /** Sets of sheets that wait to be used again: one for each of two cores. */
    private static final int MOST_IDLE = 2;
    /** About a preview's worth, 160 MB: a shelf that holds more is not kept after its rendering. */
    private static final long MOST_KEPT = 40_000_000;

    /** Series that are under way. */
    private static final AtomicInteger SERIES = new AtomicInteger();

    /** By width. */
    private final Map<Integer, Deque<float[]>> free = new HashMap<>();

    private final List<float[][]> lent = new ArrayList<>();
    /** Widths that the tile has asked for. */
    private final Set<Integer> asked = new HashSet<>();

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
        asked.add(width);
        Deque<float[]> fitting = free.computeIfAbsent(width, none -> new ArrayDeque<>());
        float[][] rows = new float[height][];
        int known = Math.min(height, fitting.size());
        for (int y = 0; y < known; y++) {
            rows[y] = fitting.pop();
        }
        for (int y = known; y < height; y++) {
            rows[y] = new float[width];
        }
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

    /** Takes back what nobody uses any more. */
    void takeBack(float[][] rows) {
        lent.remove(rows);
        Deque<float[]> fitting = free.computeIfAbsent(rows[0].length, none -> new ArrayDeque<>());
        for (float[] row : rows) {
            fitting.push(row);
        }
    }

    /** Takes everything back that was lent to a tile, and lets go of what that tile did not need. */
    void takeBack() {
        while (!lent.isEmpty()) {
            takeBack(lent.get(lent.size() - 1));
        }
        free.keySet().retainAll(asked);
        asked.clear();
    }

    private long held() {
        return free.entrySet().stream()
                .mapToLong(each -> (long) each.getKey() * each.getValue().size())
                .sum();
    }

    @Override
    public void close() {
        takeBack();
        if ((held() <= MOST_KEPT || SERIES.get() > 0) && IDLE.size() < MOST_IDLE) {
            IDLE.add(new SoftReference<>(this));
        }
    }

    static void beginSeries() {
        SERIES.incrementAndGet();
    }

    /** The memory of the last one is let go of. */
    static void endSeries() {
        if (SERIES.decrementAndGet() == 0) {
            IDLE.clear();
        }
    }
}
