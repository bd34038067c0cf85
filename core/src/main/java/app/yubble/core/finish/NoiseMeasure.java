package app.yubble.core.finish;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import java.util.Arrays;

/**
 * Measures the noise of a photo in small blocks from which a plane was taken off. Those that vary least hold noise and little else; a block of structure varies
 * more. What is still alike two pixels away, or more alike in one direction than in the other, or stronger than noise ever is, is
 * structure too, of a picture that has no flat places. Counter-examples: rendered scenes and drawings, whose least varied blocks hold nothing but the rounding of an 8-bit file; that
 * is taken off.
 */
final class NoiseMeasure {
    /** Pixels on a side. */
    private static final int BLOCK = 16;
    /** Blocks that are looked at; a photo of 24 megapixels has 94 000. */
    private static final int MOST_BLOCKS = 12_000;
    /** Blocks that a step of brightness needs to be believed. */
    private static final int LEAST_BLOCKS = 12;
    /** Share of the blocks of one brightness that vary least. */
    private static final double FLAT_SHARE = 0.05;
    /** Blocks that vary up to this many times as much as those hold noise as well: the variance of one block is itself uncertain. */
    private static final double SPREAD = 1.6;
    /** Noise that is less than this, in square roots of light, is none: it is less than a step of an 8-bit file, and nobody sees it. */
    private static final double LEAST = 0.0035;
    /** Variance of the rounding to 8 bits: a step's square over 12. A step is about 1 of 255 in square roots of light too. */
    private static final double ROUNDING = 1 / (12 * 255.0 * 255.0);
    /** Square root of light; what is nearly clipped holds less noise than there was. */
    private static final float CLIPPED = 0.95f;
    /** Noise is never stronger than this, not even of a night without a tripod. */
    private static final double MOST = 0.08;
    /** Difference of correlations across and down from which what varies is structure: lines, weaves, interlaced frames. */
    private static final double MOST_SLANTED = 0.3;
    /** Noise that may be anywhere: a compressed file has none in some places. */
    private static final float LITTLE = 0.004f;
    /** By how much noise may grow from one step of brightness to the next darker one: that of the sensor's own circuits does. */
    private static final float DARKER = 1.35f;
    /** The same to the next brighter one: noise of light stays the same. */
    private static final float BRIGHTER = 1.1f;
    /** Noise whose neighbours share other pixels than a Gaussian's may answer a little less. */
    private static final double EDGY_CARE = 1.25;
    /** Numbers that fit a plane. */
    private static final int OF_A_PLANE = 3;
    /** Correlation of pixels two apart from which what varies is structure; that of noise that neighbours share by 0.85. */
    private static final double MOST_ALIKE = 0.52;

    /**
     * One channel of a block without its plane.
     *
     * @param beside covariance of pixels side by side; above, of those one below the other; second, of those two apart
     * @param channels covariance with the next channel
     * @param edgy mean square of what a mask that sees neither planes nor lines answers
     */
    private record Channel(double variance, double beside, double above, double second, double channels, double edgy) {}

    /** Sums over the flat blocks of one brightness. */
    private static final class Flat {
        double variance;
        double beside;
        double second;
        double above;
        double edgy;
        double channels;
        int count;

        void add(Channel block) {
            variance += block.variance;
            beside += block.beside;
            channels += block.channels;
            above += block.above;
            second += block.second;
            edgy += block.edgy;
            count++;
        }
    }

    private NoiseMeasure() {}

    static Noise of(Picture photo) {
        int across = photo.width() / BLOCK;
        int down = photo.height() / BLOCK;
        if ((long) across * down < LEAST_BLOCKS) {
            return Noise.none();
        }
        int step = (int) Math.max(1, (long) across * down / MOST_BLOCKS);
        int count = across * down / step;
        Varying varying = new Varying(count);
        Bands.ofPieces(count, piece -> {
            int block = piece * step;
            varying.look(photo, piece, block % across * BLOCK, block / across * BLOCK);
        });
        varying.findFlat();
        // Three for each block; most blocks vary too much to be looked at closely.
        Channel[] found = new Channel[count * 3];
        Bands.ofPieces(count, piece -> {
            if (varying.isFlat(piece, 0) || varying.isFlat(piece, 1) || varying.isFlat(piece, 2)) {
                int block = piece * step;
                Channel[] own = block(photo, block % across * BLOCK, block / across * BLOCK);
                System.arraycopy(own, 0, found, piece * 3, 3);
            }
        });
        return of(varying.flat(found));
    }

    /** How much each block varies, and which vary so little that they hold noise and little else. */
    private static final class Varying {
        private final int count;
        /** By block and channel; negative where it is of no use. */
        private final double[] means;

        private final double[] variances;
        /** By channel and brightness: up to which variance a block is flat; below 0 where there are too few. */
        private final double[][] most = new double[3][Noise.BINS];

        Varying(int count) {
            this.count = count;
            means = new double[3 * count];
            variances = new double[3 * count];
        }

        void look(Picture photo, int block, int x, int y) {
            float[] values = new float[BLOCK * BLOCK];
            for (int c = 0; c < 3; c++) {
                means[3 * block + c] = flattened(photo.planes().get(c).samples(), photo.width(), x, y, values);
                variances[3 * block + c] = product(values, values);
            }
        }

        void findFlat() {
            for (int c = 0; c < 3; c++) {
                for (int bin = 0; bin < Noise.BINS; bin++) {
                    double[] sorted = new double[count];
                    int own = 0;
                    for (int i = c; i < means.length; i += 3) {
                        if (binOf(means[i]) == bin) {
                            sorted[own++] = variances[i];
                        }
                    }
                    Arrays.sort(sorted, 0, own);
                    most[c][bin] = own < LEAST_BLOCKS ? -1 : SPREAD * sorted[(int) (FLAT_SHARE * own)];
                }
            }
        }

        boolean isFlat(int block, int channel) {
            int i = 3 * block + channel;
            return means[i] >= 0 && variances[i] <= most[channel][binOf(means[i])];
        }

        Flat[][] flat(Channel[] found) {
            Flat[][] out = new Flat[3][Noise.BINS];
            for (Flat[] each : out) {
                Arrays.setAll(each, bin -> new Flat());
            }
            for (int block = 0; block < count; block++) {
                for (int c = 0; c < 3; c++) {
                    if (isFlat(block, c)) {
                        out[c][binOf(means[3 * block + c])].add(found[3 * block + c]);
                    }
                }
            }
            return out;
        }
    }

    private static Noise of(Flat[][] flat) {
        double variances = 0;
        double besides = 0;
        double between = 0;
        float[][] levels = new float[3][Noise.BINS];
        int noisy = 0;
        int clean = 0;
        for (int c = 0; c < 3; c++) {
            for (int bin = 0; bin < Noise.BINS; bin++) {
                Flat each = flat[c][bin];
                double variance = each.count == 0 ? 0 : each.variance / each.count;
                double level = Math.sqrt(Math.max(0, Math.min(variance, ofEdgy(each)) - ROUNDING));
                boolean structure = each.second > MOST_ALIKE * each.variance
                        || Math.abs(each.above - each.beside) > MOST_SLANTED * each.variance
                        || level > MOST;
                levels[c][bin] = each.count == 0 || structure ? Float.NaN : level < LEAST ? 0 : (float) level;
                clean += levels[c][bin] == 0 ? 1 : 0;
                if (levels[c][bin] > 0) {
                    noisy++;
                    variances += each.variance;
                    besides += (each.beside + each.above) / 2;
                    between += each.channels;
                }
            }
            fillGaps(levels[c]);
            smooth(levels[c]);
        }
        // Noise is everywhere; what varies here and there is texture.
        return variances == 0 || noisy <= clean
                ? Noise.none()
                : new Noise(levels, share(between / variances), share(besides / variances));
    }

    /** Brightnesses that do not occur are as noisy as the next that does, on the side that is less noisy. */
    private static void fillGaps(float[] levels) {
        float[] out = levels.clone();
        for (int i = 0; i < out.length; i++) {
            if (Float.isNaN(out[i])) {
                float before = next(levels, i, -1);
                float after = next(levels, i, 1);
                out[i] = Float.isNaN(before)
                        ? Float.isNaN(after) ? 0 : after
                        : Float.isNaN(after) ? before : Math.min(before, after);
            }
        }
        System.arraycopy(out, 0, levels, 0, out.length);
    }

    /** Where one brightness is much noisier than the next, all that has it is textured: noise changes slowly with brightness. */
    private static void smooth(float[] levels) {
        for (int i = 1; i < levels.length; i++) {
            levels[i] = Math.min(levels[i], Math.max(LITTLE, BRIGHTER * levels[i - 1]));
        }
        for (int i = levels.length - 2; i >= 0; i--) {
            levels[i] = Math.min(levels[i], Math.max(LITTLE, DARKER * levels[i + 1]));
        }
    }

    private static float next(float[] levels, int from, int step) {
        for (int i = from; i >= 0 && i < levels.length; i += step) {
            if (!Float.isNaN(levels[i])) {
                return levels[i];
            }
        }
        return Float.NaN;
    }

    private static int binOf(double mean) {
        return mean < 0 ? -1 : Math.min(Noise.BINS - 1, (int) (mean * Noise.BINS));
    }

    private static Channel[] block(Picture photo, int x0, int y0) {
        float[][] values = new float[3][];
        double[] variances = new double[3];
        for (int c = 0; c < 3; c++) {
            values[c] = new float[BLOCK * BLOCK];
            flattened(photo.planes().get(c).samples(), photo.width(), x0, y0, values[c]);
            variances[c] = product(values[c], values[c]);
        }
        Channel[] out = new Channel[3];
        for (int c = 0; c < 3; c++) {
            // So that it can be divided by the sum of variances: of what is like its neighbour channel it is the
            // variance.
            int next = (c + 1) % 3;
            double both = Math.sqrt(variances[c] * variances[next]);
            double channels = both == 0 ? 0 : product(values[c], values[next]) / both * variances[c];
            double second = (beside(values[c], 2) + above(values[c], 2)) / 2;
            out[c] = new Channel(
                    variances[c], beside(values[c], 1), above(values[c], 1), second, channels, edgy(values[c]));
        }
        return out;
    }

    /** Square roots without their plane, in {@code to}; the mean, or -1 where it is clipped. */
    private static double flattened(float[] samples, int width, int x0, int y0, float[] to) {
        double sum = 0;
        double sumX = 0;
        double sumY = 0;
        double middle = (BLOCK - 1) / 2.0;
        int dark = 0;
        float most = 0;
        for (int y = 0, i = 0; y < BLOCK; y++) {
            for (int x = 0, at = (y0 + y) * width + x0; x < BLOCK; x++, at++, i++) {
                float root = (float) Math.sqrt(Math.max(0, samples[at]));
                dark += samples[at] <= 0 ? 1 : 0;
                most = Math.max(most, root);
                to[i] = root;
                sum += root;
                sumX += root * (x - middle);
                sumY += root * (y - middle);
            }
        }
        double mean = sum / to.length;
        // Of x - middle over a row: (n^3 - n) / 12.
        double squares = BLOCK * (BLOCK * (double) BLOCK * BLOCK - BLOCK) / 12;
        for (int y = 0, i = 0; y < BLOCK; y++) {
            for (int x = 0; x < BLOCK; x++, i++) {
                to[i] -= (float) (mean + sumX / squares * (x - middle) + sumY / squares * (y - middle));
            }
        }
        return most > CLIPPED || dark > to.length / 10 ? -1 : mean;
    }

    private static double product(float[] a, float[] b) {
        double sum = 0;
        for (int i = 0; i < a.length; i++) {
            sum += a[i] * b[i];
        }
        return sum / (a.length - OF_A_PLANE);
    }

    /** Covariance of pixels side by side, so many pixels apart. */
    private static double beside(float[] values, int apart) {
        double sum = 0;
        for (int i = 0; i < values.length; i++) {
            sum += i % BLOCK + apart >= BLOCK ? 0 : values[i] * values[i + apart];
        }
        return sum / ((BLOCK - apart) * (double) BLOCK);
    }

    /** The mask is that of Immerkaer, "Fast Noise Variance Estimation" (1996). */
    private static double edgy(float[] values) {
        double sum = 0;
        for (int y = 1; y < BLOCK - 1; y++) {
            for (int x = 1, i = y * BLOCK + 1; x < BLOCK - 1; x++, i++) {
                float above = values[i - BLOCK - 1] - 2 * values[i - BLOCK] + values[i - BLOCK + 1];
                float own = values[i - 1] - 2 * values[i] + values[i + 1];
                float below = values[i + BLOCK - 1] - 2 * values[i + BLOCK] + values[i + BLOCK + 1];
                float answer = above - 2 * own + below;
                sum += answer * answer;
            }
        }
        return sum / ((BLOCK - 2) * (BLOCK - 2));
    }

    /**
     * Variance of noise that the mask would answer to so: of single pixels by 36 times their variance, of wider noise by less. Structure that
     * is smooth over some pixels varies much and has hardly an answer.
     */
    private static double ofEdgy(Flat flat) {
        if (flat.count == 0 || flat.variance == 0) {
            return 0;
        }
        double alike = Math.max(0, (flat.beside + flat.above) / 2 / flat.variance);
        double gain = 6 - 8 * alike + 2 * Math.pow(alike, 4);
        return EDGY_CARE * flat.edgy / flat.count / (gain * gain);
    }

    private static double above(float[] values, int apart) {
        double sum = 0;
        for (int i = apart * BLOCK; i < values.length; i++) {
            sum += values[i] * values[i - apart * BLOCK];
        }
        return sum / ((BLOCK - apart) * (double) BLOCK);
    }

    private static double share(double value) {
        return Math.max(0, Math.min(1, value));
    }
}
