package app.yubble.core.finish;

import app.yubble.core.raster.Bands;
import java.util.Random;

/** Noise of variance 1 whose neighbours are alike by as much as was measured; it goes on without a seam on all sides. */
final class GrainTile {
    /** A power of two. So wide that its repetition is not seen in noise, and small enough to stay near the processor. */
    static final int SIDE = 512;
    /** For wrapping around. */
    static final int MASK = SIDE - 1;
    /** Pixels; wider noise is no noise any more. */
    private static final int MOST_REACH = 8;
    /** Halvings of the range in which the width is looked for. */
    private static final int SEARCH = 24;
    /** Width of a Gaussian, in pixels, whose neighbours are more alike than noise ever is. */
    private static final double WIDEST = 2.7;

    private final float[] samples;

    /** @param beside correlation of neighbours; a little below 0 for what is finer than single pixels */
    GrainTile(double beside, long seed) {
        Random random = new Random(seed);
        samples = new float[SIDE * SIDE];
        for (int i = 0; i < samples.length; i++) {
            samples[i] = (float) random.nextGaussian();
        }
        float[] kernel = kernel(beside);
        if (kernel.length > 1) {
            spread(samples.clone(), samples, kernel, 1);
            spread(samples.clone(), samples, kernel, SIDE);
        }
    }

    /** A row of any length from a place on; it wraps around. */
    void read(int x, int y, float[] row) {
        int from = (y & MASK) * SIDE;
        int first = x & MASK;
        for (int i = 0; i < row.length; ) {
            int count = Math.min(SIDE - first, row.length - i);
            System.arraycopy(samples, from + first, row, i, count);
            i += count;
            first = 0;
        }
    }

    /** Half a Gaussian with squares that sum up to 1, whose neighbours are as alike as wanted. */
    private static float[] kernel(double beside) {
        if (beside < 0) {
            // Of -a, 1, -a: -2a / (1 + 2a^2).
            double a = -beside / (1 + Math.sqrt(1 - 2 * beside * beside));
            double norm = Math.sqrt(1 + 2 * a * a);
            return new float[] {(float) (1 / norm), (float) (-a / norm)};
        }
        double low = 0;
        double high = WIDEST;
        for (int i = 0; i < SEARCH; i++) {
            double middle = (low + high) / 2;
            if (alike(gaussian(middle)) < beside) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return gaussian(low);
    }

    private static float[] gaussian(double width) {
        int reach = (int) Math.min(MOST_REACH, Math.ceil(3 * width));
        float[] out = new float[reach + 1];
        double squares = 0;
        for (int i = 0; i <= reach; i++) {
            out[i] = i == 0 ? 1 : (float) Math.exp(-i * i / (2 * width * width));
            squares += (i == 0 ? 1 : 2) * out[i] * out[i];
        }
        for (int i = 0; i <= reach; i++) {
            out[i] /= (float) Math.sqrt(squares);
        }
        return out;
    }

    /** Correlation of neighbours of white noise behind this kernel. */
    private static double alike(float[] half) {
        double sum = 0;
        for (int i = -half.length; i < half.length; i++) {
            int a = Math.abs(i);
            int b = Math.abs(i + 1);
            sum += a < half.length && b < half.length ? half[a] * half[b] : 0;
        }
        return sum;
    }

    /** @param step 1 along rows, the side along columns */
    private static void spread(float[] from, float[] to, float[] kernel, int step) {
        Bands.ofRows(SIDE, (first, last) -> {
            for (int i = first * SIDE; i < last * SIDE; i++) {
                float sum = kernel[0] * from[i];
                for (int k = 1; k < kernel.length; k++) {
                    sum += kernel[k] * (from[moved(i, k, step)] + from[moved(i, -k, step)]);
                }
                to[i] = sum;
            }
        });
    }

    private static int moved(int i, int by, int step) {
        return step == 1 ? i & ~MASK | i + by & MASK : i + by * SIDE & SIDE * SIDE - 1;
    }
}
