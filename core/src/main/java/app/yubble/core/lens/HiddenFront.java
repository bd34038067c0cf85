package app.yubble.core.lens;

import app.yubble.core.raster.Bands;
import java.util.Arrays;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jspecify.annotations.Nullable;

/**
 * What goes on behind the nearest things in front of the sharp band: grass behind a fence, itself blurred but less. A wide
 * blur shows it through, so it is needed deeper than the grass's own blur reaches.
 *
 * <p>How: on cells of 4 x 4 pixels, a pixel counts as nearest when its radius is far above the least radius around it, as
 * far as its own blur reaches; such pixels are filled in from the others.
 */
final class HiddenFront {
    /** As in {@link HiddenFill}. */
    private static final int CELL = 2;
    /** Three colours and coverage. */
    private static final int CHANNELS = 4;
    /** Pixels in front from which it is worth looking behind. */
    private static final float LEAST_RADIUS = 3;
    /**
     * How much brighter than its surroundings a hidden pixel may be; more is a lamp that would show through. By eye
     * on dusk.
     */
    private static final float TIMES = 1.6f;
    /** See {@link #TIMES}; in linear light. */
    private static final float MORE = 1.5f;

    private final TilePixels pixels;
    private final int width;
    private final int height;
    /** Radius of the cell's farthest pixel, at most 0. */
    private final float[] farthest;

    private final float[] nearest;

    private HiddenFront(TilePixels pixels) {
        this.pixels = pixels;
        width = pixels.width >> CELL;
        height = pixels.height >> CELL;
        farthest = new float[width * height];
        nearest = new float[width * height];
        Bands.ofRows(height, (from, to) -> {
            for (int cy = from; cy < to; cy++) {
                measure(cy);
            }
        });
    }

    /** One list for each band of rows: whole pixels that lie behind the pixel of that place. */
    static Pieces[] of(TilePixels pixels) {
        HiddenFront front = new HiddenFront(pixels);
        Pieces[] hidden = new Pieces[(pixels.height + LayerCut.BAND - 1) / LayerCut.BAND];
        float @Nullable [] limits = front.limits();
        float[] values = limits == null ? new float[0] : front.filled(limits);
        Bands.ofPieces(hidden.length, band -> {
            hidden[band] = new Pieces();
            int last = Math.min(pixels.inHeight, (band + 1) * LayerCut.BAND);
            for (int y = band * LayerCut.BAND; limits != null && y < last; y++) {
                front.collect(y, limits, values, hidden[band]);
            }
        });
        return hidden;
    }

    private void measure(int cy) {
        Arrays.fill(farthest, cy * width, (cy + 1) * width, -LensRender.MOST_RADIUS);
        int whole = pixels.inWidth >> CELL;
        for (int y = cy << CELL; y < Math.min(pixels.inHeight, cy + 1 << CELL); y++) {
            float[] radius = pixels.radius[y];
            for (int cx = 0, x = 0, cell = cy * width; cx < whole; cx++, x += 1 << CELL, cell++) {
                float a = radius[x];
                float b = radius[x + 1];
                float c = radius[x + 2];
                float d = radius[x + 3];
                farthest[cell] = Math.max(farthest[cell], Math.min(0, Math.max(Math.max(a, b), Math.max(c, d))));
                nearest[cell] = Math.min(nearest[cell], Math.min(Math.min(a, b), Math.min(c, d)));
            }
            for (int x = whole << CELL; x < pixels.inWidth; x++) {
                int cell = cy * width + whole;
                farthest[cell] = Math.max(farthest[cell], Math.min(0, radius[x]));
                nearest[cell] = Math.min(nearest[cell], radius[x]);
            }
        }
    }

    /** Radii below a cell's limit are nearest things; null when there are none. */
    private float @Nullable [] limits() {
        float[] limits = new float[width * height];
        Arrays.fill(limits, -Float.MAX_VALUE);
        AtomicBoolean any = new AtomicBoolean();
        Grid reached = new Grid(farthest, width, height, pixels.originX >> CELL, pixels.originY >> CELL);
        for (int level = 0; reached.width > 1 && reached.height > 1; level++) {
            Grid around = reached;
            int at = level;
            Bands.ofRows(height, (from, to) -> {
                boolean some = false;
                for (int cy = from; cy < to; cy++) {
                    some |= limitRow(cy, around, at, limits);
                }
                if (some) {
                    any.set(true);
                }
            });
            reached = reached.halved();
        }
        return any.get() ? limits : null;
    }

    private boolean limitRow(int cy, Grid around, int level, float[] limits) {
        boolean any = false;
        int size = 1 << CELL + level;
        for (int cx = 0; cx < width; cx++) {
            float most = -nearest[cy * width + cx];
            if (most >= LEAST_RADIUS && most >= size && (most < 2 * size || level == 0)) {
                float limit = TIMES * around.most(cx, cy, level, this) - MORE;
                limits[cy * width + cx] = limit;
                any |= -most < limit;
            }
        }
        return any;
    }

    /**
     * The largest values of cells of some level.
     *
     * @param left of the first cell, in cells of the whole picture
     */
    private record Grid(float[] values, int width, int height, int left, int top) {
        Grid halved() {
            int w = ((left & 1) + width + 1) / 2;
            int h = ((top & 1) + height + 1) / 2;
            Grid out = new Grid(new float[w * h], w, h, left >> 1, top >> 1);
            Arrays.fill(out.values, -LensRender.MOST_RADIUS);
            for (int y = 0; y < height; y++) {
                int row = (y + (top & 1)) / 2 * w;
                for (int x = 0; x < width; x++) {
                    int to = row + (x + (left & 1)) / 2;
                    out.values[to] = Math.max(out.values[to], values[y * width + x]);
                }
            }
            return out;
        }

        /** The largest around a cell of the finest level. */
        float most(int cellX, int cellY, int level, HiddenFront of) {
            int cx = (cellX + (of.pixels.originX >> CELL) >> level) - left;
            int cy = (cellY + (of.pixels.originY >> CELL) >> level) - top;
            float most = -LensRender.MOST_RADIUS;
            for (int y = Math.max(0, cy - 1); y <= Math.min(height - 1, cy + 1); y++) {
                for (int x = Math.max(0, cx - 1); x <= Math.min(width - 1, cx + 1); x++) {
                    most = Math.max(most, values[y * width + x]);
                }
            }
            return most;
        }
    }

    private float[] filled(float[] limits) {
        float[] values = new float[width * height * CHANNELS];
        float[] known = new float[width * height];
        Bands.ofRows(height, (from, to) -> {
            for (int y = from << CELL; y < Math.min(pixels.inHeight, to << CELL); y++) {
                float[] radius = pixels.radius[y];
                for (int x = 0; x < pixels.inWidth; x++) {
                    int cell = (y >> CELL) * width + (x >> CELL);
                    if (radius[x] >= limits[cell]) {
                        known[cell]++;
                        values[cell * CHANNELS] += pixels.red[y][x];
                        values[cell * CHANNELS + 1] += pixels.green[y][x];
                        values[cell * CHANNELS + 2] += pixels.blue[y][x];
                        values[cell * CHANNELS + 3] += Math.min(0, radius[x]);
                    }
                }
            }
            for (int cell = from * width; cell < to * width; cell++) {
                for (int c = 0; known[cell] > 0 && c < CHANNELS; c++) {
                    values[cell * CHANNELS + c] /= known[cell];
                }
                // A cell with some of the nearest in it holds mixed pixels: it counts only where nothing better is.
                known[cell] = known[cell] == 1 << 2 * CELL ? 1 : known[cell] / 256;
            }
        });
        HoleFill.fill(values, known, width, height, pixels.originX >> CELL, pixels.originY >> CELL);
        return values;
    }

    private void collect(int y, float[] limits, float[] values, Pieces out) {
        float[] radius = pixels.radius[y];
        for (int cell = (y >> CELL) * width, x0 = 0; x0 < pixels.inWidth; cell++, x0 += 1 << CELL) {
            int at = cell * CHANNELS;
            // What lies within a pixel of the band is seen to by the filling behind all of the front.
            if (nearest[cell] >= limits[cell] || values[at + 3] >= -1) {
                continue;
            }
            for (int x = x0; x < Math.min(pixels.inWidth, x0 + (1 << CELL)); x++) {
                if (radius[x] < limits[cell]) {
                    out.add(x, y, values[at + 3], 1, values[at], values[at + 1], values[at + 2]);
                }
            }
        }
    }
}
