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
            float[] line = new float[width * CHANNELS];
            for (int y = from; y < to; y++) {
                fillRow(pixels, y, values, width, height, line);
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

    /** @param line room for a row of cells */
    private static void fillRow(TilePixels pixels, int y, float[] values, int width, int height, float[] line) {
        float[] radius = pixels.radius[y];
        float[] red = pixels.red[y];
        float[] green = pixels.green[y];
        float[] blue = pixels.blue[y];
        boolean mixed = false;
        for (int x = 0; x < pixels.inWidth; x++) {
            if (radius[x] >= 0) {
                continue;
            }
            if (radius[x] >= -1) {
                radius[x] = 0;
                continue;
            }
            if (!mixed) {
                mixRows(values, y, width, height, line);
                mixed = true;
            }
            float cx = (x + 0.5f) / (1 << CELL) - 0.5f;
            int x0 = Math.max(0, (int) Math.floor(cx));
            int a = x0 * CHANNELS;
            int b = Math.min(width - 1, x0 + 1) * CHANNELS;
            float right = Math.max(0, cx - x0);
            float left = 1 - right;
            red[x] = left * line[a] + right * line[b];
            green[x] = left * line[a + 1] + right * line[b + 1];
            blue[x] = left * line[a + 2] + right * line[b + 2];
            radius[x] = left * line[a + 3] + right * line[b + 3];
        }
    }

    /** The row of cells at a row of pixels: a mixture of the two it lies between. */
    private static void mixRows(float[] values, int y, int width, int height, float[] line) {
        float cy = (y + 0.5f) / (1 << CELL) - 0.5f;
        int y0 = Math.max(0, (int) Math.floor(cy));
        float lower = Math.max(0, cy - y0);
        float upper = 1 - lower;
        int above = y0 * width * CHANNELS;
        int below = Math.min(height - 1, y0 + 1) * width * CHANNELS;
        for (int i = 0; i < line.length; i++) {
            line[i] = upper * values[above + i] + lower * values[below + i];
        }
    }
}
