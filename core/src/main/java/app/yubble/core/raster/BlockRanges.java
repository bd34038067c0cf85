package app.yubble.core.raster;

import java.util.Arrays;

/** The least and the greatest sample of each block of a plane: one where any of its samples is no number is no number either. */
public final class BlockRanges {
    /** Pixels on a side. */
    public static final int SIDE = 32;

    private final Plane low;
    private final Plane high;

    /**
     * @param low one sample for each block
     * @param high of the same size
     */
    public BlockRanges(Plane low, Plane high) {
        this.low = low;
        this.high = high;
    }

    public static BlockRanges of(Plane plane) {
        Size blocks = new Size((plane.width() + SIDE - 1) / SIDE, (plane.height() + SIDE - 1) / SIDE);
        BlockRanges out = new BlockRanges(new Plane(blocks), new Plane(blocks));
        out.renew(plane, Region.all(plane.size()));
        return out;
    }

    /** The least sample of each block. */
    public Plane low() {
        return low;
    }

    /** The greatest sample of each block. */
    public Plane high() {
        return high;
    }

    /** Looks anew at every block that {@code part} touches. */
    public void renew(Plane plane, Region part) {
        int firstRow = part.y() / SIDE;
        int left = part.x() / SIDE * SIDE;
        int width = Math.min(plane.width(), (part.x() + part.width() + SIDE - 1) / SIDE * SIDE) - left;
        Bands.ofPieces((part.y() + part.height() - 1) / SIDE - firstRow + 1, index -> {
            int by = firstRow + index;
            float[] row = new float[width];
            float[] most = new float[width];
            float[] least = new float[width];
            Arrays.fill(most, Float.NEGATIVE_INFINITY);
            Arrays.fill(least, Float.POSITIVE_INFINITY);
            for (int y = by * SIDE; y < Math.min(plane.height(), (by + 1) * SIDE); y++) {
                System.arraycopy(plane.samples(), y * plane.width() + left, row, 0, width);
                widen(row, least, most);
            }
            for (int x = 0; x < width; x += SIDE) {
                float lowest = least[x];
                float highest = most[x];
                for (int i = x + 1; i < Math.min(width, x + SIDE); i++) {
                    lowest = Math.min(lowest, least[i]);
                    highest = Math.max(highest, most[i]);
                }
                int block = by * low.width() + (left + x) / SIDE;
                low.samples()[block] = lowest;
                high.samples()[block] = highest;
            }
        });
    }

    // Math.max and Math.min hand on what is no number.
    private static void widen(float[] row, float[] low, float[] high) {
        for (int i = 0; i < row.length; i++) {
            high[i] = Math.max(high[i], row[i]);
            low[i] = Math.min(low[i], row[i]);
        }
    }
}
