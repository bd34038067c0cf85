package app.yubble.core.clip;

import app.yubble.core.raster.Plane;
import org.jspecify.annotations.Nullable;

/**
 * How a camera that moves nearer changes the nearness of what stands still: a thing of nearness n has n (1 + rate n) afterwards.
 *
 * <p>It is read from flow, which a camera's way makes in a known manner: what is near moves away from the middle more than what is
 * far. All that a camera can do at once is fitted by least squares: it goes ahead, aside and up (as far as things are near), turns
 * about its three axes, and zooms. What moves by itself does not fit and counts less each time the fit is made again.
 * Only when going ahead explains what nothing else does, it is believed.
 *
 * @param rate what a thing of nearness 1 gains; below 0 when the camera goes back
 */
record Approach(double rate) {
    static final Approach NONE = new Approach(0);

    /** What of the camera's way is fitted: aside and up for all, turning, zoom, aside and up by nearness, and last the rate. */
    private static final int UNKNOWNS = 7;
    /** Pixels between those that are looked at: the fit does not need more. */
    private static final int STRIDE = 3;
    /** Fits; what moves by itself is out after three. */
    private static final int FITS = 4;
    /** Pixels; what moves by this much else than the camera makes it counts half. */
    private static final double MISFIT = 0.5;
    /** More between two pictures is no walk, it is a mistake. */
    private static final double MOST = 0.3;
    /**
     * What going ahead must take from the squares of the misfits to be believed at all, and ({@link #SURE}) wholly. Where estimates are
     * wrong in large parts another way can look like going ahead: it takes 0.3 to 0.6 in {@code bench/clips/sitting}, whose camera goes
     * aside, 0.64 to 0.8 in {@code stroll}, where it walks.
     */
    private static final double UNSURE = 0.58;
    /** See {@link #UNSURE}. */
    private static final double SURE = 0.66;
    /** Keeps the fit from failing where nothing tells two unknowns apart, as a share of the pixels. */
    private static final double DRAWN = 1e-5;

    /**
     * Between two frames.
     *
     * @param flow from the one to the other
     * @param nearness of the one
     * @param agreement of the flow
     */
    static Approach of(Flow flow, Plane nearness, Plane agreement) {
        Fit fit = new Fit(flow, nearness, agreement, null);
        for (int i = 1; i < FITS; i++) {
            fit = new Fit(flow, nearness, agreement, fit.all);
        }
        return fit.approach();
    }

    /** Over a share of the time; below 0 backwards. For one step of a film the square of the rate does not matter. */
    Approach over(double share) {
        return new Approach(rate * share);
    }

    /** Nearness in the other frame, of what has this nearness now. Modifies the plane. */
    Plane appliedTo(Plane nearness) {
        float[] samples = nearness.samples();
        for (int i = 0; i < samples.length; i++) {
            samples[i] *= (float) (1 + rate * samples[i]);
        }
        return nearness;
    }

    /** One fit, with and without going ahead. */
    private static final class Fit {
        final double[] all;
        final double missOfAll;
        final double missWithout;

        Approach approach() {
            double gain = 1 - missOfAll / Math.max(Double.MIN_NORMAL, missWithout);
            double sure = Math.max(0, Math.min(1, (gain - UNSURE) / (SURE - UNSURE)));
            return new Approach(sure * Math.max(-MOST, Math.min(MOST, all[UNKNOWNS - 1])));
        }

        Fit(Flow flow, Plane nearness, Plane agreement, double @Nullable [] last) {
            double halfWidth = nearness.width() / 2.0;
            double halfHeight = nearness.height() / 2.0;
            double[][] matrix = new double[UNKNOWNS][UNKNOWNS + 1];
            double[] across = new double[UNKNOWNS];
            double[] down = new double[UNKNOWNS];
            double count = 0;
            double squares = 0;
            for (int y = STRIDE / 2; y < nearness.height(); y += STRIDE) {
                for (int x = STRIDE / 2; x < nearness.width(); x += STRIDE) {
                    int i = y * nearness.width() + x;
                    double n = nearness.samples()[i];
                    double right = (x + 0.5 - halfWidth) / halfWidth;
                    double below = (y + 0.5 - halfHeight) / halfWidth;
                    set(across, 1, 0, -below, right, n, 0, n * right);
                    set(down, 0, 1, right, below, 0, n, n * below);
                    double u = flow.across().samples()[i] / halfWidth;
                    double v = flow.down().samples()[i] / halfWidth;
                    double weight = agreement.samples()[i];
                    if (last != null) {
                        double miss =
                                Math.hypot(u - product(across, last), v - product(down, last)) * halfWidth / MISFIT;
                        weight /= 1 + miss * miss;
                    }
                    add(matrix, across, u, weight);
                    add(matrix, down, v, weight);
                    squares += weight * (u * u + v * v);
                    count++;
                }
            }
            for (int k = 0; k < UNKNOWNS; k++) {
                matrix[k][k] += DRAWN * Math.max(1, count);
            }
            double[] right = column(matrix);
            all = solved(matrix, UNKNOWNS);
            missOfAll = squares - product(all, right);
            double[] rest = solved(matrix, UNKNOWNS - 1);
            missWithout = squares - product(rest, right);
        }
    }

    private static void set(double[] row, double... values) {
        System.arraycopy(values, 0, row, 0, values.length);
    }

    private static double product(double[] a, double[] b) {
        double out = 0;
        for (int k = 0; k < a.length; k++) {
            out += a[k] * b[k];
        }
        return out;
    }

    private static void add(double[][] matrix, double[] row, double value, double weight) {
        for (int k = 0; k < UNKNOWNS; k++) {
            for (int j = 0; j < UNKNOWNS; j++) {
                matrix[k][j] += weight * row[k] * row[j];
            }
            matrix[k][UNKNOWNS] += weight * row[k] * value;
        }
    }

    private static double[] column(double[][] matrix) {
        double[] out = new double[matrix.length];
        for (int k = 0; k < out.length; k++) {
            out[k] = matrix[k][UNKNOWNS];
        }
        return out;
    }

    /** The first unknowns, with 0 for the others; by elimination: the matrix is positive. */
    private static double[] solved(double[][] matrix, int count) {
        double[][] m = new double[count][];
        for (int k = 0; k < count; k++) {
            m[k] = matrix[k].clone();
        }
        for (int k = 0; k < count; k++) {
            for (int i = k + 1; i < count; i++) {
                double share = m[i][k] / m[k][k];
                for (int j = k; j <= UNKNOWNS; j++) {
                    m[i][j] -= share * m[k][j];
                }
            }
        }
        double[] out = new double[UNKNOWNS];
        for (int k = count - 1; k >= 0; k--) {
            double rest = m[k][UNKNOWNS];
            for (int j = k + 1; j < count; j++) {
                rest -= m[k][j] * out[j];
            }
            out[k] = rest / m[k][k];
        }
        return out;
    }
}
