package app.yubble.core.lens;

/**
 * Fills holes in interleaved samples from their surroundings: averages over known pixels on coarser and coarser levels,
 * then back down into the holes only.
 *
 * <p>Gortler et al., "The Lumigraph" (1996), section 3.4 (pull-push), with box weights.
 */
final class HoleFill {
    /** Three colours and coverage. */
    private static final int CHANNELS = 4;

    private HoleFill() {}

    /**
     * @param values four per pixel, row-major; pixels with {@code known} 0 are overwritten where anything is known
     *     nearby
     * @param known weight of each pixel in [0,1]; 1 wherever anything is known at all, when it returns
     * @param left column of the whole picture that the first of these is, so that every part of it has the same levels
     * @param top likewise its row
     */
    static void fill(float[] values, float[] known, int width, int height, int left, int top) {
        if (width == 1 && height == 1 || isComplete(known)) {
            return;
        }
        int oddX = left & 1;
        int oddY = top & 1;
        int w = (oddX + width + 1) / 2;
        int h = (oddY + height + 1) / 2;
        float[] coarse = new float[w * h * CHANNELS];
        float[] coarseKnown = new float[w * h];
        for (int y = 0; y < h; y++) {
            for (int x = 0; x < w; x++) {
                float sum = 0;
                int to = (y * w + x) * CHANNELS;
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
                        coarse[to + c] += weight * values[from * CHANNELS + c];
                    }
                }
                if (sum > 0) {
                    for (int c = 0; c < CHANNELS; c++) {
                        coarse[to + c] /= sum;
                    }
                }
                coarseKnown[y * w + x] = Math.min(1, sum);
            }
        }
        fill(coarse, coarseKnown, w, h, left >> 1, top >> 1);
        for (int y = 0; y < height; y++) {
            int cy = (y + oddY) / 2;
            int ny = Math.max(0, Math.min(h - 1, cy + ((y + oddY & 1) == 0 ? -1 : 1)));
            for (int x = 0; x < width; x++) {
                int i = y * width + x;
                float weight = known[i];
                if (weight < 1) {
                    int cx = (x + oddX) / 2;
                    int nx = Math.max(0, Math.min(w - 1, cx + ((x + oddX & 1) == 0 ? -1 : 1)));
                    float w00 = 0.5625f * coarseKnown[cy * w + cx];
                    float w01 = 0.1875f * coarseKnown[cy * w + nx];
                    float w10 = 0.1875f * coarseKnown[ny * w + cx];
                    float w11 = 0.0625f * coarseKnown[ny * w + nx];
                    float sum = w00 + w01 + w10 + w11;
                    if (sum > 0) {
                        for (int c = 0; c < CHANNELS; c++) {
                            float filled = (w00 * coarse[(cy * w + cx) * CHANNELS + c]
                                            + w01 * coarse[(cy * w + nx) * CHANNELS + c]
                                            + w10 * coarse[(ny * w + cx) * CHANNELS + c]
                                            + w11 * coarse[(ny * w + nx) * CHANNELS + c])
                                    / sum;
                            values[i * CHANNELS + c] = weight * values[i * CHANNELS + c] + (1 - weight) * filled;
                        }
                        known[i] = 1;
                    }
                }
            }
        }
    }

    private static boolean isComplete(float[] known) {
        for (float each : known) {
            if (each < 1) {
                return false;
            }
        }
        return true;
    }
}
