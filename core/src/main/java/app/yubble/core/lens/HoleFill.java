package app.yubble.core.lens;

/**
 * Fills holes in interleaved samples from their surroundings: averages over known pixels on coarser and coarser levels,
 * then back down into the holes only.
 *
 * <p>Gortler et al., "The Lumigraph" (1996), section 3.4 (pull-push), with box weights.
 */
final class HoleFill {
    private static final int CHANNELS = 4;

    private HoleFill() {}

    /**
     * @param values four per pixel, row-major; pixels with {@code known} 0 are overwritten where anything is known
     *     nearby
     * @param known weight of each pixel in [0,1]; 1 wherever anything is known at all, when it returns
     */
    static void fill(float[] values, float[] known, int width, int height) {
        if (width == 1 && height == 1 || isComplete(known)) {
            return;
        }
        int w = (width + 1) / 2;
        int h = (height + 1) / 2;
        float[] coarse = new float[w * h * CHANNELS];
        float[] coarseKnown = new float[w * h];
        for (int y = 0; y < h; y++) {
            for (int x = 0; x < w; x++) {
                float sum = 0;
                int to = (y * w + x) * CHANNELS;
                for (int q = 0; q < 4; q++) {
                    if (2 * y + q / 2 >= height || 2 * x + (q & 1) >= width) {
                        continue;
                    }
                    int from = (2 * y + q / 2) * width + 2 * x + (q & 1);
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
        fill(coarse, coarseKnown, w, h);
        for (int y = 0; y < height; y++) {
            int cy = y / 2;
            int ny = Math.max(0, Math.min(h - 1, cy + ((y & 1) == 0 ? -1 : 1)));
            for (int x = 0; x < width; x++) {
                int i = y * width + x;
                float weight = known[i];
                if (weight < 1) {
                    int cx = x / 2;
                    int nx = Math.max(0, Math.min(w - 1, cx + ((x & 1) == 0 ? -1 : 1)));
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
