package app.yubble.core.lens;

import app.yubble.core.raster.Bands;
import java.util.Arrays;
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
        for (int cell = cy * width; cell < (cy + 1) * width; cell++) {
            farthest[cell] = -LensRender.MOST_RADIUS;
        }
        for (int y = cy << CELL; y < Math.min(pixels.inHeight, cy + 1 << CELL); y++) {
            float[] radius = pixels.radius[y];
            for (int x = 0; x < pixels.inWidth; x++) {
                int cell = cy * width + (x >> CELL);
                farthest[cell] = Math.max(farthest[cell], Math.min(0, radius[x]));
                nearest[cell] = Math.min(nearest[cell], radius[x]);
            }
        }
    }

    /** Radii below a cell's limit are nearest things; null when there are none. */
    private float @Nullable [] limits() {
        float[] limits = new float[width * height];
        boolean any = false;
        float[] reached = farthest;
        int w = width;
        int h = height;
        int level = 0;
        Arrays.fill(limits, -Float.MAX_VALUE);
        for (; w > 1 && h > 1; level++) {
            for (int cy = 0; cy < height; cy++) {
                for (int cx = 0; cx < width; cx++) {
                    float most = -nearest[cy * width + cx];
                    int size = 1 << CELL + level;
                    if (most >= LEAST_RADIUS && most >= size && (most < 2 * size || level == 0)) {
                        float limit = TIMES * around(reached, cx >> level, cy >> level, w, h) - MORE;
                        limits[cy * width + cx] = limit;
                        any |= -most < limit;
                    }
                }
            }
            reached = halved(reached, w, h);
            w = (w + 1) / 2;
            h = (h + 1) / 2;
        }
        return any ? limits : null;
    }

    private static float around(float[] values, int cx, int cy, int w, int h) {
        float most = -LensRender.MOST_RADIUS;
        for (int y = Math.max(0, cy - 1); y <= Math.min(h - 1, cy + 1); y++) {
            for (int x = Math.max(0, cx - 1); x <= Math.min(w - 1, cx + 1); x++) {
                most = Math.max(most, values[y * w + x]);
            }
        }
        return most;
    }

    private static float[] halved(float[] values, int w, int h) {
        int halfWidth = (w + 1) / 2;
        float[] out = new float[halfWidth * ((h + 1) / 2)];
        Arrays.fill(out, -LensRender.MOST_RADIUS);
        for (int y = 0; y < h; y++) {
            for (int x = 0; x < w; x++) {
                int to = y / 2 * halfWidth + x / 2;
                out[to] = Math.max(out[to], values[y * w + x]);
            }
        }
        return out;
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
        for (int x = 0; x < pixels.inWidth; x++) {
            int cell = (y >> CELL) * width + (x >> CELL);
            if (radius[x] < limits[cell]) {
                int at = cell * CHANNELS;
                // What lies within a pixel of the band is seen to by the filling behind all of the front.
                if (values[at + 3] < -1) {
                    out.add(x, y, values[at + 3], 1, values[at], values[at + 1], values[at + 2]);
                }
            }
        }
    }
}
