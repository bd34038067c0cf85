package app.yubble.core.lens;

import app.yubble.core.raster.Bands;

/**
 * Takes what stands in front of the sharp band out of a tile: its pixels get the colour and radius of what lies around
 * them. The filling is smooth and done on cells of 4 x 4 pixels, because it is only seen through a blurred border.
 */
final class HiddenFill {
    /** As a power of two: four pixels on a side. What is hidden is never seen sharp. */
    private static final int CELL = 2;
    // So close to what stands in front a pixel may still hold some of it.
    private static final int CLEAR = 3;
    /** Three colours and coverage. */
    private static final int CHANNELS = 4;

    private HiddenFill() {}

    static void behindTheFront(TilePixels pixels) {
        int width = pixels.width >> CELL;
        int height = pixels.height >> CELL;
        float[] values = new float[width * height * CHANNELS];
        float[] known = new float[width * height];
        Bands.ofRows(height, (from, to) -> {
            for (int cy = from; cy < to; cy++) {
                gather(pixels, cy, values, known, width);
            }
        });
        HoleFill.fill(values, known, width, height, pixels.originX >> CELL, pixels.originY >> CELL);
        Bands.ofRows(pixels.inHeight, (from, to) -> {
            for (int y = from; y < to; y++) {
                fillRow(pixels, y, values, width, height);
            }
        });
    }

    // Every second pixel, across and down, is enough for a smooth filling.
    private static void gather(TilePixels pixels, int cy, float[] values, float[] known, int width) {
        for (int y = (cy << CELL) + 1; y < Math.min(pixels.inHeight, cy + 1 << CELL); y += 2) {
            float[] radius = pixels.radius[y];
            float[] above = pixels.radius[Math.max(0, y - CLEAR)];
            float[] below = pixels.radius[Math.min(pixels.inHeight - 1, y + CLEAR)];
            float[] red = pixels.red[y];
            float[] green = pixels.green[y];
            float[] blue = pixels.blue[y];
            for (int x = 0; x < pixels.inWidth; x += 2) {
                float before = radius[Math.max(0, x - CLEAR)];
                float after = radius[Math.min(pixels.inWidth - 1, x + CLEAR)];
                if (radius[x] >= -1 && above[x] >= -1 && below[x] >= -1 && before >= -1 && after >= -1) {
                    int cell = cy * width + (x >> CELL);
                    known[cell]++;
                    values[cell * CHANNELS] += red[x];
                    values[cell * CHANNELS + 1] += green[x];
                    values[cell * CHANNELS + 2] += blue[x];
                    values[cell * CHANNELS + 3] += Math.max(0, radius[x]);
                }
            }
        }
        for (int cell = cy * width; cell < (cy + 1) * width; cell++) {
            if (known[cell] > 0) {
                for (int c = 0; c < CHANNELS; c++) {
                    values[cell * CHANNELS + c] /= known[cell];
                }
                known[cell] = Math.min(1, known[cell] / 2);
            }
        }
    }

    private static void fillRow(TilePixels pixels, int y, float[] values, int width, int height) {
        float[] radius = pixels.radius[y];
        float cy = (y + 0.5f) / (1 << CELL) - 0.5f;
        int y0 = Math.max(0, (int) Math.floor(cy));
        int y1 = Math.min(height - 1, y0 + 1);
        float fy = Math.max(0, cy - y0);
        for (int x = 0; x < pixels.inWidth; x++) {
            if (radius[x] < -1) {
                float cx = (x + 0.5f) / (1 << CELL) - 0.5f;
                int x0 = Math.max(0, (int) Math.floor(cx));
                int x1 = Math.min(width - 1, x0 + 1);
                float fx = Math.max(0, cx - x0);
                int a = (y0 * width + x0) * CHANNELS;
                int b = (y0 * width + x1) * CHANNELS;
                int c = (y1 * width + x0) * CHANNELS;
                int d = (y1 * width + x1) * CHANNELS;
                float wa = (1 - fx) * (1 - fy);
                float wb = fx * (1 - fy);
                float wc = (1 - fx) * fy;
                float wd = fx * fy;
                pixels.red[y][x] = wa * values[a] + wb * values[b] + wc * values[c] + wd * values[d];
                pixels.green[y][x] = wa * values[a + 1] + wb * values[b + 1] + wc * values[c + 1] + wd * values[d + 1];
                pixels.blue[y][x] = wa * values[a + 2] + wb * values[b + 2] + wc * values[c + 2] + wd * values[d + 2];
                radius[x] = wa * values[a + 3] + wb * values[b + 3] + wc * values[c + 3] + wd * values[d + 3];
            } else if (radius[x] < 0) {
                radius[x] = 0;
            }
        }
    }
}
