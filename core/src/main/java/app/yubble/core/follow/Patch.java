package app.yubble.core.follow;

import app.yubble.core.raster.Size;
import java.util.Arrays;

/**
 * What is around a point in one frame, to be laid over others.
 *
 * <p>How: the inverse compositional way of S. Baker and I. Matthews, "Lucas-Kanade 20 Years On" (IJCV 56, 2004), for shifts, turns and
 * sizes, with brightness and contrast fitted beside. Pixels count by their distance from the middle, and those that do not fit count less
 * (Tukey's weights), so that what passes in front of a part of the patch, and a background that moves otherwise, do not pull it along.
 */
final class Patch {
    /** Steps of an alignment; most end after six. */
    private static final int MOST_STEPS = 24;
    /** Pixels; a step below it ends the alignment. */
    private static final double STILL = 0.005;
    /** Of the errors' median by which errors count nothing: Tukey's constant times what makes a median a standard deviation. */
    private static final double OUTLIER = 4.685 * 1.4826;
    /** In which sizes of errors are counted: up to 256 steps of brightness. */
    private static final int BINS = 1024;
    /** See {@link #BINS}. */
    private static final int BINS_A_STEP = 4;
    /** Steps of brightness; rounding and coding make as much of it. */
    private static final double LEAST_OUTLIER = 12;
    /** Of the patch's own deviation, by which errors count nothing at the latest. */
    private static final double MOST_OUTLIER = 1;
    /** Weight from which a pixel agrees. */
    private static final double AGREES = 0.25;
    /** Radii of a patch after which its weights are at their deviation. */
    private static final double WINDOW = 0.5;
    /** The same of its middle. */
    private static final double MIDDLE = 0.2;
    /** How quickly trust follows what fits, with each frame. */
    private static final float LEARNS = 0.08f;
    /** So that a part that was hidden for long can come back. */
    private static final float LEAST_TRUST = 0.02f;
    /**
     * How much a change of size or turn must explain, in squared steps of brightness a squared pixel of radius: what does not fit would otherwise make patches
     * grow.
     */
    private static final double STEADY = 12;
    /** Keeps the solution from failing where nothing tells turns from shifts. */
    private static final double DAMPING = 1e-3;
    /** Shift across and down, and the two parts of the complex number. */
    private static final int UNKNOWNS = 4;

    private final int radius;
    private final float[] samples;
    private final float[] slopeAcross;
    private final float[] slopeDown;
    /** By distance from the middle, all together 1. */
    private final float[] window;

    private final float[] middle;
    /** How well each pixel has fitted so far, in [0,1]. */
    private final float[] trust;
    /** The window by trust, all together 1. */
    private final float[] counts;

    private final double structure;

    private int learned;

    /**
     * Where a patch was found.
     *
     * @param likeness correlation with what is there, in [-1,1]
     * @param agreeing share of the patch that fits, in [0,1]
     * @param middle the same of its middle
     */
    record Found(Pose pose, double likeness, double agreeing, double middle, Weights weights) {}

    /** How well each pixel fitted. */
    @SuppressWarnings("ArrayRecordComponent")
    record Weights(float[] ofPixels) {}

    private Patch(int radius, float[] samples) {
        this.radius = radius;
        this.samples = samples;
        int side = 2 * radius + 1;
        slopeAcross = new float[samples.length];
        slopeDown = new float[samples.length];
        for (int y = 0, i = 0; y < side; y++) {
            for (int x = 0; x < side; x++, i++) {
                int left = Math.max(0, x - 1);
                int right = Math.min(side - 1, x + 1);
                int above = Math.max(0, y - 1);
                int below = Math.min(side - 1, y + 1);
                slopeAcross[i] = (samples[y * side + right] - samples[y * side + left]) / (right - left);
                slopeDown[i] = (samples[below * side + x] - samples[above * side + x]) / (below - above);
            }
        }
        window = window(radius, WINDOW);
        middle = window(radius, MIDDLE);
        trust = new float[samples.length];
        Arrays.fill(trust, 1);
        counts = window.clone();
        structure = structureOf();
    }

    /** Counts what did not fit less from now on: around a thing there is also what lies behind it, which moves otherwise. */
    void learn(Found found) {
        learned++;
        float rate = Math.max(LEARNS, 1f / (learned + 1));
        double sum = 0;
        for (int i = 0; i < trust.length; i++) {
            trust[i] += rate * (found.weights().ofPixels()[i] - trust[i]);
            counts[i] = window[i] * Math.max(LEAST_TRUST, trust[i]);
            sum += counts[i];
        }
        for (int i = 0; i < counts.length; i++) {
            counts[i] /= (float) sum;
        }
    }

    /** Of a patch of the same radius at the same place. */
    void trustAs(Patch other) {
        System.arraycopy(other.trust, 0, trust, 0, trust.length);
        System.arraycopy(other.counts, 0, counts, 0, counts.length);
        learned = other.learned;
    }

    static Patch of(GreyFrame frame, double x, double y, int radius) {
        int side = 2 * radius + 1;
        float[] out = new float[side * side];
        for (int v = -radius, i = 0; v <= radius; v++) {
            for (int u = -radius; u <= radius; u++, i++) {
                out[i] = frame.at(x + u, y + v);
            }
        }
        return new Patch(radius, out);
    }

    private static float[] window(int radius, double share) {
        double deviation = Math.max(1, share * radius);
        int side = 2 * radius + 1;
        float[] out = new float[side * side];
        double sum = 0;
        for (int v = -radius, i = 0; v <= radius; v++) {
            for (int u = -radius; u <= radius; u++, i++) {
                out[i] = (float) Math.exp(-(u * u + v * v) / (2 * deviation * deviation));
                sum += out[i];
            }
        }
        for (int i = 0; i < out.length; i++) {
            out[i] /= (float) sum;
        }
        return out;
    }

    int radius() {
        return radius;
    }

    /** How much a place of the patch counts; only to be compared with others of it. */
    double countAt(double u, double v) {
        int side = 2 * radius + 1;
        int x = (int) Math.max(0, Math.min(side - 1, Math.round(u + radius)));
        int y = (int) Math.max(0, Math.min(side - 1, Math.round(v + radius)));
        return counts[y * side + x];
    }

    /** How well its place can be told: the mean squared slope along the direction in which there is least. */
    double structure() {
        return structure;
    }

    private double structureOf() {
        double xx = 0;
        double xy = 0;
        double yy = 0;
        for (int i = 0; i < samples.length; i++) {
            xx += window[i] * slopeAcross[i] * slopeAcross[i];
            xy += window[i] * slopeAcross[i] * slopeDown[i];
            yy += window[i] * slopeDown[i] * slopeDown[i];
        }
        return (xx + yy) / 2 - Math.sqrt((xx - yy) * (xx - yy) / 4 + xy * xy);
    }

    /** The patch as a picture of another size, for looking for it. */
    GreyFrame drawn(double scale) {
        int half = (int) Math.max(2, Math.round(radius * scale));
        int side = 2 * half + 1;
        byte[] out = new byte[side * side];
        double step = 1 / scale;
        // Means of so many samples, when it gets smaller.
        int taps = (int) Math.max(1, Math.ceil(step));
        for (int v = -half, i = 0; v <= half; v++) {
            for (int u = -half; u <= half; u++, i++) {
                double sum = 0;
                for (int k = 0; k < taps * taps; k++) {
                    double du = ((k % taps + 0.5) / taps - 0.5) * step;
                    double dv = ((k / taps + 0.5) / taps - 0.5) * step;
                    sum += at(u * step + du, v * step + dv);
                }
                out[i] = (byte) Math.round(sum / (taps * taps));
            }
        }
        return new GreyFrame(new Size(side, side), out);
    }

    private double at(double u, double v) {
        int side = 2 * radius + 1;
        int x = (int) Math.max(0, Math.min(side - 1, Math.round(u + radius)));
        int y = (int) Math.max(0, Math.min(side - 1, Math.round(v + radius)));
        return samples[y * side + x];
    }

    /** Lays the patch over a frame, from a pose that is nearly right. */
    Found align(GreyFrame frame, Pose from) {
        Fit fit = new Fit(frame);
        Pose pose = from;
        for (int step = 0; step < MOST_STEPS; step++) {
            fit.look(pose);
            Pose next = fit.better(pose, from);
            double moved =
                    next.distance(pose) + radius * Math.hypot(next.across() - pose.across(), next.down() - pose.down());
            pose = next;
            if (!(moved >= STILL)) {
                break;
            }
        }
        fit.look(pose);
        return new Found(pose, fit.likeness(), fit.agreeing(counts), fit.agreeing(middle), new Weights(fit.weight));
    }

    /** One alignment's workspace. */
    private final class Fit {
        private final GreyFrame frame;
        private final float[] seen = new float[samples.length];
        private final float[] error = new float[samples.length];
        private final float[] weight = new float[samples.length];
        private final int[] counted = new int[BINS];
        private double correlation;

        Fit(GreyFrame frame) {
            this.frame = frame;
        }

        /** What lies under the patch, less what the patch is, and how much each pixel counts. */
        void look(Pose pose) {
            double w = 0;
            double s = 0;
            double t = 0;
            double ss = 0;
            double tt = 0;
            double st = 0;
            for (int v = -radius, i = 0; v <= radius; v++) {
                for (int u = -radius; u <= radius; u++, i++) {
                    double x = pose.xOf(u, v);
                    double y = pose.yOf(u, v);
                    if (!frame.holds(x, y)) {
                        seen[i] = Float.NaN;
                        continue;
                    }
                    float value = frame.at(x, y);
                    seen[i] = value;
                    double g = counts[i];
                    w += g;
                    s += g * value;
                    t += g * samples[i];
                    ss += g * value * value;
                    tt += g * samples[i] * samples[i];
                    st += g * value * samples[i];
                }
            }
            double meanSeen = w > 0 ? s / w : 0;
            double meanOwn = w > 0 ? t / w : 0;
            double varianceSeen = w > 0 ? Math.max(0, ss / w - meanSeen * meanSeen) : 0;
            double varianceOwn = w > 0 ? Math.max(0, tt / w - meanOwn * meanOwn) : 0;
            double covariance = w > 0 ? st / w - meanSeen * meanOwn : 0;
            // What lies outside the frame does not count as found.
            correlation = w * covariance / Math.sqrt(varianceSeen * varianceOwn + 1);
            double contrast = Math.sqrt((varianceOwn + 1) / (varianceSeen + 1));
            weigh(meanSeen, meanOwn, Math.max(0.5, Math.min(2, contrast)), Math.sqrt(varianceOwn));
        }

        private void weigh(double meanSeen, double meanOwn, double contrast, double deviation) {
            Arrays.fill(counted, 0);
            int count = 0;
            for (int i = 0; i < seen.length; i++) {
                if (Float.isNaN(seen[i])) {
                    weight[i] = 0;
                    continue;
                }
                error[i] = (float) ((seen[i] - meanSeen) * contrast - (samples[i] - meanOwn));
                counted[Math.min(BINS - 1, (int) (Math.abs(error[i]) * BINS_A_STEP))]++;
                count++;
            }
            double spread = OUTLIER * median(count);
            double most = Math.max(LEAST_OUTLIER, Math.min(spread, MOST_OUTLIER * deviation));
            for (int i = 0; i < seen.length; i++) {
                if (!Float.isNaN(seen[i])) {
                    double share = error[i] / most;
                    double inside = Math.max(0, 1 - share * share);
                    weight[i] = (float) (inside * inside);
                }
            }
        }

        /** Of the errors' sizes, to a fourth of a step: sorting them took half of the time. */
        private double median(int count) {
            int bin = 0;
            for (int below = counted[0]; bin < BINS - 1 && 2 * below < count; ) {
                below += counted[++bin];
            }
            return (bin + 0.5) / BINS_A_STEP;
        }

        double likeness() {
            return correlation;
        }

        double agreeing(float[] by) {
            double out = 0;
            for (int i = 0; i < weight.length; i++) {
                out += weight[i] >= AGREES ? by[i] : 0;
            }
            return out;
        }

        Pose better(Pose pose, Pose from) {
            double[][] a = new double[UNKNOWNS][UNKNOWNS + 1];
            double[] row = new double[UNKNOWNS];
            for (int v = -radius, i = 0; v <= radius; v++) {
                for (int u = -radius; u <= radius; u++, i++) {
                    double w = weight[i] * counts[i];
                    if (w == 0) {
                        continue;
                    }
                    double sx = slopeAcross[i];
                    double sy = slopeDown[i];
                    row[0] = sx;
                    row[1] = sy;
                    row[2] = sx * u + sy * v;
                    row[3] = sy * u - sx * v;
                    for (int j = 0; j < UNKNOWNS; j++) {
                        for (int k = j; k < UNKNOWNS; k++) {
                            a[j][k] += w * row[j] * row[k];
                        }
                        a[j][UNKNOWNS] += w * row[j] * error[i];
                    }
                }
            }
            Pose since = pose.against(from);
            double steady = STEADY * radius * radius;
            a[2][2] += steady;
            a[2][UNKNOWNS] += steady * (since.across() - 1);
            a[3][3] += steady;
            a[3][UNKNOWNS] += steady * since.down();
            double[] d = solved(a);
            // The patch's own place of what is seen, turned round: z = c + m (w - dc) / (1 + dm).
            double across = 1 + d[2];
            double squared = across * across + d[3] * d[3];
            if (!(squared > 0.25 && squared < 4)) {
                return pose;
            }
            double ma = (pose.across() * across + pose.down() * d[3]) / squared;
            double md = (pose.down() * across - pose.across() * d[3]) / squared;
            return new Pose(pose.x() - ma * d[0] + md * d[1], pose.y() - md * d[0] - ma * d[1], ma, md);
        }

        /** By elimination, with a little damping of each unknown. */
        private double[] solved(double[][] a) {
            for (int j = 0; j < UNKNOWNS; j++) {
                for (int k = 0; k < j; k++) {
                    a[j][k] = a[k][j];
                }
            }
            for (int j = 0; j < UNKNOWNS; j++) {
                a[j][j] += DAMPING * a[j][j] + 1e-6;
            }
            for (int j = 0; j < UNKNOWNS; j++) {
                for (int k = j + 1; k < UNKNOWNS; k++) {
                    double factor = a[k][j] / a[j][j];
                    for (int l = j; l <= UNKNOWNS; l++) {
                        a[k][l] -= factor * a[j][l];
                    }
                }
            }
            double[] out = new double[UNKNOWNS];
            for (int j = UNKNOWNS - 1; j >= 0; j--) {
                double rest = a[j][UNKNOWNS];
                for (int k = j + 1; k < UNKNOWNS; k++) {
                    rest -= a[j][k] * out[k];
                }
                out[j] = rest / a[j][j];
            }
            return out;
        }
    }
}
