package app.yubble.core.lens;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import java.util.Arrays;

/** How far blur reaches into a tile from outside: most tiles need much less margin than the largest radius. */
final class Reach {
    /** Pixels on a side of which the largest radius is known. */
    private static final int BLOCK = 32;
    /** Beyond any radius: marks blocks without pixels. */
    private static final float MOST = 1e6f;

    /** Largest radius behind the band in each block, and in front of it. */
    private final float[] behind;

    private final float[] front;
    private final int across;
    private final int down;

    /** Finds the largest radii in each block, and refuses what is no number. */
    Reach(Plane radius) {
        across = (radius.width() + BLOCK - 1) / BLOCK;
        down = (radius.height() + BLOCK - 1) / BLOCK;
        behind = new float[across * down];
        front = new float[across * down];
        renew(radius, Region.all(radius.size()));
    }

    /** Looks anew at every block that {@code part} touches. */
    void renew(Plane radius, Region part) {
        int firstRow = part.y() / BLOCK;
        int firstColumn = part.x() / BLOCK;
        int lastColumn = (part.x() + part.width() - 1) / BLOCK;
        int left = firstColumn * BLOCK;
        int width = Math.min(radius.width(), (lastColumn + 1) * BLOCK) - left;
        Bands.ofPieces((part.y() + part.height() - 1) / BLOCK - firstRow + 1, index -> {
            int by = firstRow + index;
            float[] row = new float[width];
            float[] high = new float[width];
            float[] low = new float[width];
            for (int y = by * BLOCK; y < Math.min(radius.height(), (by + 1) * BLOCK); y++) {
                System.arraycopy(radius.samples(), y * radius.width() + left, row, 0, width);
                widen(row, low, high);
            }
            Arrays.fill(behind, by * across + firstColumn, by * across + lastColumn + 1, 0);
            Arrays.fill(front, by * across + firstColumn, by * across + lastColumn + 1, 0);
            for (int x = 0; x < width; x++) {
                int block = by * across + firstColumn + x / BLOCK;
                if (!(high[x] < MOST && low[x] > -MOST)) {
                    throw new IllegalArgumentException("blur radius must be a number below a million pixels, found "
                            + (high[x] < MOST ? low[x] : high[x]));
                }
                behind[block] = Math.max(behind[block], Math.min(high[x], LensRender.MOST_RADIUS));
                front[block] = Math.max(front[block], Math.min(-low[x], LensRender.MOST_RADIUS));
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

    float overall() {
        float most = 0;
        for (int i = 0; i < behind.length; i++) {
            most = Math.max(most, Math.max(behind[i], front[i]));
        }
        return most;
    }

    /** The largest radius of the blocks that {@code box} touches. */
    float within(Region box) {
        float most = 0;
        for (int by = box.y() / BLOCK; by <= (box.y() + box.height() - 1) / BLOCK; by++) {
            for (int bx = box.x() / BLOCK; bx <= (box.x() + box.width() - 1) / BLOCK; bx++) {
                most = Math.max(most, Math.max(behind[by * across + bx], front[by * across + bx]));
            }
        }
        return most;
    }

    /** Pixels of margin that {@code tile} needs: a block counts as far as its radius, when that reaches the tile.
     *
     * @param mostEdge of the disc, for a radius of 1
     */
    int into(Region tile, double mostEdge) {
        double margin = 0;
        for (int by = 0; by < down; by++) {
            double dy = Math.max(0, Math.max(tile.y() - (by + 1) * BLOCK, by * BLOCK - tile.y() - tile.height()));
            for (int bx = 0; bx < across; bx++) {
                int block = by * across + bx;
                double reach = Math.max(behind[block], front[block]) * mostEdge + 4;
                double dx = Math.max(0, Math.max(tile.x() - (bx + 1) * BLOCK, bx * BLOCK - tile.x() - tile.width()));
                if (reach > margin && reach >= Math.max(dx, dy)) {
                    margin = reach;
                }
            }
        }
        return (int) Math.ceil(margin);
    }

    /** Whether anything in {@code box} is blurred in front of the band. */
    boolean hasFront(Region box) {
        return any(front, box);
    }

    /** Whether anything in {@code box} is blurred behind the band. */
    boolean hasBehind(Region box) {
        return any(behind, box);
    }

    private boolean any(float[] values, Region box) {
        int lastRow = Math.min(down, (box.y() + box.height() + BLOCK - 1) / BLOCK);
        int lastColumn = Math.min(across, (box.x() + box.width() + BLOCK - 1) / BLOCK);
        for (int by = box.y() / BLOCK; by < lastRow; by++) {
            for (int bx = box.x() / BLOCK; bx < lastColumn; bx++) {
                if (values[by * across + bx] > 0) {
                    return true;
                }
            }
        }
        return false;
    }
}
