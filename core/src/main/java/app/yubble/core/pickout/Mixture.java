package app.yubble.core.pickout;

import java.util.Arrays;

/**
 * What one side looks like: a mixture of Gaussians over a few channels, each of its own spread in every channel.
 *
 * <p>Fitted as in Rother, Kolmogorov and Blake, "GrabCut" (SIGGRAPH 2004): every sample belongs to the component under which
 * it is most probable. Departures: no covariances between channels, and a start that takes, one after the other, the sample
 * that is worst explained.
 */
final class Mixture {
    /** Colours of one side; GrabCut takes five (Rother, Kolmogorov and Blake 2004), clothes and grass have more. */
    private static final int COMPONENTS = 8;
    /** After which the colours hardly move. */
    private static final int ROUNDS = 6;
    /** Pixels that are learned from; more change nothing and take longer. */
    private static final int MOST_SAMPLES = 6000;
    // Grain and rounding: no component is narrower.
    private static final float LEAST_VARIANCE = 0.0006f;

    private final float[][] means;
    private final float[][] precisions;
    private final float[] offsets;

    private Mixture(float[][] means, float[][] precisions, float[] offsets) {
        this.means = means;
        this.precisions = precisions;
        this.offsets = offsets;
    }

    /**
     * @param channels of all places
     * @param places the samples; at least one
     */
    static Mixture of(float[][] channels, int[] places) {
        int[] samples = places.length <= MOST_SAMPLES ? places : thinned(places);
        int[] owners = new int[samples.length];
        int count = spread(channels, samples, owners);
        Mixture out = fitted(channels, samples, owners, count);
        for (int round = 1; round < ROUNDS; round++) {
            for (int i = 0; i < samples.length; i++) {
                owners[i] = out.owner(channels, samples[i]);
            }
            out = fitted(channels, samples, owners, count);
        }
        return out;
    }

    private static int[] thinned(int[] places) {
        int[] out = new int[MOST_SAMPLES];
        for (int i = 0; i < out.length; i++) {
            out[i] = places[(int) ((long) i * places.length / out.length)];
        }
        return out;
    }

    /** Gives every sample to the nearest of some that lie far apart; returns how many there are. */
    private static int spread(float[][] channels, int[] samples, int[] owners) {
        float[] nearest = new float[samples.length];
        Arrays.fill(nearest, Float.MAX_VALUE);
        int centre = 0;
        int count = 0;
        while (count < COMPONENTS) {
            double sum = 0;
            for (int i = 0; i < samples.length; i++) {
                float d = distance(channels, samples[i], samples[centre]);
                if (d < nearest[i]) {
                    nearest[i] = d;
                    owners[i] = count;
                }
                sum += nearest[i];
            }
            count++;
            // The one in the middle of the summed distances: far from all, and no single odd pixel.
            double half = sum / 2;
            int next = -1;
            for (int i = 0; i < samples.length && half >= 0; i++) {
                half -= nearest[i];
                next = i;
            }
            if (sum < LEAST_VARIANCE * samples.length || next < 0) {
                break;
            }
            centre = next;
        }
        return count;
    }

    private static float distance(float[][] channels, int a, int b) {
        float sum = 0;
        for (float[] channel : channels) {
            float d = channel[a] - channel[b];
            sum += d * d;
        }
        return sum;
    }

    private static Mixture fitted(float[][] channels, int[] samples, int[] owners, int count) {
        int dimensions = channels.length;
        double[][] sums = new double[count][dimensions];
        double[][] squares = new double[count][dimensions];
        int[] sizes = new int[count];
        for (int i = 0; i < samples.length; i++) {
            int owner = owners[i];
            sizes[owner]++;
            for (int c = 0; c < dimensions; c++) {
                double value = channels[c][samples[i]];
                sums[owner][c] += value;
                squares[owner][c] += value * value;
            }
        }
        float[][] means = new float[count][dimensions];
        float[][] precisions = new float[count][dimensions];
        float[] offsets = new float[count];
        for (int k = 0; k < count; k++) {
            if (sizes[k] == 0) {
                offsets[k] = Float.MAX_VALUE / 4;
                continue;
            }
            double offset = -Math.log((double) sizes[k] / samples.length);
            for (int c = 0; c < dimensions; c++) {
                double mean = sums[k][c] / sizes[k];
                double variance = Math.max(0, squares[k][c] / sizes[k] - mean * mean) + LEAST_VARIANCE;
                means[k][c] = (float) mean;
                precisions[k][c] = (float) (0.5 / variance);
                offset += 0.5 * Math.log(variance);
            }
            offsets[k] = (float) offset;
        }
        return new Mixture(means, precisions, offsets);
    }

    private int owner(float[][] channels, int place) {
        int out = 0;
        float least = Float.MAX_VALUE;
        for (int k = 0; k < means.length; k++) {
            float cost = cost(k, channels, place);
            if (cost < least) {
                least = cost;
                out = k;
            }
        }
        return out;
    }

    private float cost(int k, float[][] channels, int place) {
        float sum = offsets[k];
        for (int c = 0; c < channels.length; c++) {
            float d = channels[c][place] - means[k][c];
            sum += d * d * precisions[k][c];
        }
        return sum;
    }

    /** How improbable a place is here: minus the logarithm of the density under its component. */
    float cost(float[][] channels, int place) {
        return cost(owner(channels, place), channels, place);
    }
}
