package app.yubble.bench;

import app.yubble.core.raster.Plane;
import java.util.Arrays;

/**
 * How well a depth map fits exact depth, after the best scale and shift in nearness.
 *
 * @param absRel mean of |depth - exact| / exact over what is nearer than fifty times the nearest
 * @param within share of those pixels whose depth is within a factor of 1.25
 * @param order rank correlation (Spearman) of nearness
 * @param edges F1 of depth edges: an edge counts as found when there is one within two pixels
 */
record DepthScore(double absRel, double within, double order, double edges) {
    private static final double FARTHEST = 1.0 / 50;
    private static final double LEAST_NEARNESS = 0.01;
    /** A jump between neighbours, two pixels apart, that is an edge: a tenth of the map's own range from 2 % to 98 %, about what shows as a change of blur. */
    private static final double JUMP = 0.1;

    private static final int TOLERANCE = 2;

    static DepthScore of(Plane found, Plane exact) {
        double[] line = fit(found, exact);
        double nearest = percentile(exact, 0.995);
        double relative = 0;
        long good = 0;
        long count = 0;
        for (int i = 0; i < exact.samples().length; i++) {
            double truth = exact.samples()[i];
            if (truth > FARTHEST * nearest) {
                double nearness = Math.max(LEAST_NEARNESS * nearest, line[0] * found.samples()[i] + line[1]);
                double ratio = truth / nearness;
                relative += Math.abs(ratio - 1);
                good += ratio < 1.25 && ratio > 0.8 ? 1 : 0;
                count++;
            }
        }
        return new DepthScore(relative / count, (double) good / count, order(found, exact), edges(found, exact));
    }

    static double[] fit(Plane found, Plane exact) {
        double x = 0;
        double y = 0;
        double xx = 0;
        double xy = 0;
        int n = exact.samples().length;
        for (int i = 0; i < n; i++) {
            double a = found.samples()[i];
            double b = exact.samples()[i];
            x += a;
            y += b;
            xx += a * a;
            xy += a * b;
        }
        double spread = xx / n - x / n * (x / n);
        double scale = spread < 1e-9 ? 0 : Math.max(0, (xy / n - x / n * (y / n)) / spread);
        return new double[] {scale, y / n - scale * x / n};
    }

    static double percentile(Plane plane, double share) {
        float[] sorted = plane.samples().clone();
        Arrays.sort(sorted);
        return sorted[(int) (share * (sorted.length - 1))];
    }

    private static double order(Plane found, Plane exact) {
        double[] a = ranks(found.samples());
        double[] b = ranks(exact.samples());
        double middle = (a.length - 1) / 2.0;
        double both = 0;
        double first = 0;
        double second = 0;
        for (int i = 0; i < a.length; i++) {
            both += (a[i] - middle) * (b[i] - middle);
            first += (a[i] - middle) * (a[i] - middle);
            second += (b[i] - middle) * (b[i] - middle);
        }
        return first == 0 || second == 0 ? 0 : both / Math.sqrt(first * second);
    }

    /** Equal values share the mean of their ranks. */
    private static double[] ranks(float[] values) {
        long[] keyed = new long[values.length];
        for (int i = 0; i < values.length; i++) {
            keyed[i] = (long) Float.floatToIntBits(Math.max(0, values[i])) << 32 | i;
        }
        Arrays.sort(keyed);
        double[] ranks = new double[values.length];
        for (int from = 0; from < keyed.length; ) {
            int to = from;
            while (to < keyed.length && keyed[to] >> 32 == keyed[from] >> 32) {
                to++;
            }
            for (int k = from; k < to; k++) {
                ranks[(int) keyed[k]] = (from + to - 1) / 2.0;
            }
            from = to;
        }
        return ranks;
    }

    private static double edges(Plane found, Plane exact) {
        boolean[] have = edges(found);
        boolean[] wanted = edges(exact);
        double precision = covered(have, wanted, exact.width());
        double recall = covered(wanted, have, exact.width());
        return precision + recall == 0 ? 0 : 2 * precision * recall / (precision + recall);
    }

    /** The strongest pixel of every jump, across and down. */
    private static boolean[] edges(Plane plane) {
        int width = plane.width();
        float[] z = plane.samples();
        double jump = JUMP * (percentile(plane, 0.98) - percentile(plane, 0.02));
        boolean[] edges = new boolean[z.length];
        for (int y = 2; y < plane.height() - 2; y++) {
            for (int x = 2; x < width - 2; x++) {
                int i = y * width + x;
                for (int step : new int[] {1, width}) {
                    double here = Math.abs(z[i + step] - z[i - step]);
                    boolean peak = here >= Math.abs(z[i] - z[i - 2 * step]) && here >= Math.abs(z[i + 2 * step] - z[i]);
                    edges[i] |= here > jump && jump > 0 && peak;
                }
            }
        }
        return edges;
    }

    /** Share of {@code these} with one of {@code those} within the tolerance; 0 when there are none. */
    private static double covered(boolean[] these, boolean[] those, int width) {
        long all = 0;
        long hits = 0;
        int height = these.length / width;
        for (int i = 0; i < these.length; i++) {
            if (these[i]) {
                all++;
                hits += near(those, i % width, i / width, width, height) ? 1 : 0;
            }
        }
        return all == 0 ? 0 : (double) hits / all;
    }

    private static boolean near(boolean[] those, int x, int y, int width, int height) {
        for (int py = Math.max(0, y - TOLERANCE); py <= Math.min(height - 1, y + TOLERANCE); py++) {
            for (int px = Math.max(0, x - TOLERANCE); px <= Math.min(width - 1, x + TOLERANCE); px++) {
                if (those[py * width + px]) {
                    return true;
                }
            }
        }
        return false;
    }
}
