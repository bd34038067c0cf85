package app.yubble.core.lens;

import app.yubble.core.raster.Bands;

/**
 * Fills holes in interleaved samples from their surroundings: averages over known pixels on coarser and coarser levels,
 * then back down into the holes only.
 *
 * <p>Gortler et al., "The Lumigraph" (1996), section 3.4 (pull-push), with box weights.
 */
final class HoleFill {
    /** Three colours and coverage. */
    private static final int CHANNELS = 4;

    private final float[] values;
    private final float[] known;
    private final int width;
    private final int height;
    /** Of the whole picture: so every part of it has the same levels. */
    private final int left;

    private final int top;
    /** 1 where the first cell is the second one of a cell on the coarser level. */
    private final int oddX;

    private final int oddY;

    private HoleFill(float[] values, float[] known, int width, int height, int left, int top) {
        this.values = values;
        this.known = known;
        this.width = width;
        this.height = height;
        this.left = left;
        this.top = top;
        oddX = left & 1;
        oddY = top & 1;
    }

    /**
     * @param values four per pixel, row-major; pixels with {@code known} 0 are overwritten where anything is known
     *     nearby
     * @param known weight of each pixel in [0,1]; 1 wherever anything is known at all, when it returns
     * @param left column of the whole picture that the first of these is, so that every part of it has the same levels
     * @param top likewise its row
     */
    static void fill(float[] values, float[] known, int width, int height, int left, int top) {
        new HoleFill(values, known, width, height, left, top).fill();
    }

    private void fill() {
        if (width == 1 && height == 1 || isComplete()) {
            return;
        }
        int w = (oddX + width + 1) / 2;
        int h = (oddY + height + 1) / 2;
        HoleFill coarse = new HoleFill(new float[w * h * CHANNELS], new float[w * h], w, h, left >> 1, top >> 1);
        Bands.ofRows(h, (from, to) -> {
            for (int y = from; y < to; y++) {
                pullRow(y, coarse);
            }
        });
        coarse.fill();
        Bands.ofRows(height, (from, to) -> {
            for (int y = from; y < to; y++) {
                pushRow(y, coarse);
            }
        });
    }

    private void pullRow(int y, HoleFill coarse) {
        for (int x = 0; x < coarse.width; x++) {
            float sum = 0;
            int to = (y * coarse.width + x) * CHANNELS;
            for (int q = 0; q < 4; q++) {
                int fx = 2 * x + (q & 1) - oddX;
                int fy = 2 * y + q / 2 - oddY;
                if (fx < 0 || fy < 0 || fx >= width || fy >= height) {
                    continue;
                }
                int from = fy * width + fx;
                float weight = known[from];
                sum += weight;
                for (int c = 0; c < CHANNELS; c++) {
                    coarse.values[to + c] += weight * values[from * CHANNELS + c];
                }
            }
            if (sum > 0) {
                for (int c = 0; c < CHANNELS; c++) {
                    coarse.values[to + c] /= sum;
                }
            }
            coarse.known[y * coarse.width + x] = Math.min(1, sum);
        }
    }

    private void pushRow(int y, HoleFill coarse) {
        int cy = (y + oddY) / 2;
        int ny = Math.max(0, Math.min(coarse.height - 1, cy + ((y + oddY & 1) == 0 ? -1 : 1)));
        for (int x = 0; x < width; x++) {
            int i = y * width + x;
            float weight = known[i];
            if (weight == 1) {
                continue;
            }
            int cx = (x + oddX) / 2;
            int nx = Math.max(0, Math.min(coarse.width - 1, cx + ((x + oddX & 1) == 0 ? -1 : 1)));
            int a = cy * coarse.width + cx;
            int b = cy * coarse.width + nx;
            int c = ny * coarse.width + cx;
            int d = ny * coarse.width + nx;
            float wa = 0.5625f * coarse.known[a];
            float wb = 0.1875f * coarse.known[b];
            float wc = 0.1875f * coarse.known[c];
            float wd = 0.0625f * coarse.known[d];
            float sum = wa + wb + wc + wd;
            if (sum > 0) {
                for (int channel = 0; channel < CHANNELS; channel++) {
                    float filled = (wa * coarse.values[a * CHANNELS + channel]
                                    + wb * coarse.values[b * CHANNELS + channel]
                                    + wc * coarse.values[c * CHANNELS + channel]
                                    + wd * coarse.values[d * CHANNELS + channel])
                            / sum;
                    int at = i * CHANNELS + channel;
                    values[at] = weight * values[at] + (1 - weight) * filled;
                }
                known[i] = 1;
            }
        }
    }

    private boolean isComplete() {
        for (float each : known) {
            if (each < 1) {
                return false;
            }
        }
        return true;
    }
}
