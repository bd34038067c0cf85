package app.yubble.core.clip;

import app.yubble.core.raster.Plane;
import java.util.ArrayList;
import java.util.List;

/**
 * Brings maps that were each estimated alone to one scale: a factor and an offset for each, so that things keep their nearness from
 * one map to the next.
 *
 * <p>How: least squares over all pairs of neighbouring maps, weighted by how far their flows agree. Of each pair only six sums are
 * kept, so that a clip of any length is solved at once. All factors being 0 would be the smallest error there is, so each is
 * drawn to 1 a little; afterwards their mean is made 1. A pair's sums are made twice: what does not fit the first time (things
 * whose depth changes, wrong flow) counts less the second time.
 */
public final class OneScale {
    /** How strongly factors are drawn to 1, against a pair's agreement. With ten times as much the error on the demo clip is the same, but of a scale that really jumps
     * a third is left.
     */
    private static final double DRAWN = 0.002;
    /** Nearness; what differs by more after the first fit counts less than half. By eye on the demo clip. */
    private static final double MISFIT = 0.04;
    /** Share of the pixels that must agree for a pair to count at all. */
    private static final double LEAST_AGREEING = 0.02;
    /** Unknowns of a map, and how many others one can meet on either side. */
    private static final int PER_MAP = 2;
    /** See {@link #PER_MAP}. */
    private static final int REACH = 2 * PER_MAP - 1;

    /** What is done to a map: nearness becomes {@code factor * nearness + offset}. */
    public record Scale(double factor, double offset) {
        public static final Scale SAME = new Scale(1, 0);

        /** The map on this scale. */
        public Plane of(Plane map) {
            Plane out = new Plane(map.size());
            for (int i = 0; i < out.samples().length; i++) {
                out.samples()[i] = (float) (factor * map.samples()[i] + offset);
            }
            return out;
        }
    }

    /** Sums over the pixels of a pair, each divided by the sum of weights. */
    public record Pair(double weight, double a, double b, double aa, double bb, double ab) {
        /**
         * @param first a map
         * @param fetched the next map, fetched to the first one's pixels
         * @param agreement of the flow, in [0,1]
         */
        public static Pair of(Plane first, Plane fetched, Plane agreement) {
            Pair plain = sums(first, fetched, agreement, Scale.SAME, Double.POSITIVE_INFINITY);
            double spread = plain.aa - plain.a * plain.a;
            if (plain.weight < LEAST_AGREEING || spread < 1e-6) {
                return plain;
            }
            double factor = (plain.ab - plain.a * plain.b) / spread;
            return sums(first, fetched, agreement, new Scale(factor, plain.b - factor * plain.a), MISFIT);
        }

        private static Pair sums(Plane first, Plane fetched, Plane agreement, Scale fit, double misfit) {
            double weight = 0;
            double a = 0;
            double b = 0;
            double aa = 0;
            double bb = 0;
            double ab = 0;
            for (int i = 0; i < first.samples().length; i++) {
                double one = first.samples()[i];
                double other = fetched.samples()[i];
                double miss = (fit.factor() * one + fit.offset() - other) / misfit;
                double w = agreement.samples()[i] / (1 + miss * miss);
                weight += w;
                a += w * one;
                b += w * other;
                aa += w * one * one;
                bb += w * other * other;
                ab += w * one * other;
            }
            double n = Math.max(weight, 1e-9);
            return new Pair(weight / first.samples().length, a / n, b / n, aa / n, bb / n, ab / n);
        }
    }

    private final List<Pair> pairs = new ArrayList<>();

    /** How the next map goes with the one before it. */
    public void add(Pair pair) {
        pairs.add(pair);
    }

    /** A scale for every map: one more than there are pairs. */
    public List<Scale> solved() {
        int count = pairs.size() + 1;
        double[][] matrix = new double[PER_MAP * count][REACH + 1];
        double[] right = new double[PER_MAP * count];
        for (int i = 0; i < count; i++) {
            add(matrix, PER_MAP * i, PER_MAP * i, DRAWN);
            add(matrix, PER_MAP * i + 1, PER_MAP * i + 1, DRAWN);
            right[PER_MAP * i] += DRAWN;
        }
        for (int i = 0; i < pairs.size(); i++) {
            Pair p = pairs.get(i);
            double w = p.weight() < LEAST_AGREEING ? 0 : Math.sqrt(p.weight());
            int u = PER_MAP * i;
            int v = u + PER_MAP;
            add(matrix, u, u, w * p.aa());
            add(matrix, u + 1, u, w * p.a());
            add(matrix, u + 1, u + 1, w);
            add(matrix, v, v, w * p.bb());
            add(matrix, v + 1, v, w * p.b());
            add(matrix, v + 1, v + 1, w);
            add(matrix, v, u, -w * p.ab());
            add(matrix, v, u + 1, -w * p.b());
            add(matrix, v + 1, u, -w * p.a());
            add(matrix, v + 1, u + 1, -w);
        }
        double[] solved = solve(matrix, right);
        double mean = 0;
        for (int i = 0; i < count; i++) {
            mean += solved[PER_MAP * i] / count;
        }
        List<Scale> out = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            out.add(new Scale(solved[PER_MAP * i] / mean, solved[PER_MAP * i + 1] / mean));
        }
        return out;
    }

    /** Row {@code i} holds what it has in common with itself and the {@link #REACH} rows before it. */
    private static void add(double[][] matrix, int row, int column, double value) {
        matrix[row][row - column] += value;
    }

    /** Cholesky's method for a matrix that has numbers only near its diagonal. Both arguments are modified. */
    private static double[] solve(double[][] m, double[] x) {
        int n = x.length;
        for (int i = 0; i < n; i++) {
            for (int j = Math.max(0, i - REACH); j <= i; j++) {
                double sum = m[i][i - j];
                for (int k = Math.max(0, i - REACH); k < j; k++) {
                    sum -= j - k <= REACH ? m[i][i - k] * m[j][j - k] : 0;
                }
                m[i][i - j] = i == j ? Math.sqrt(Math.max(sum, 1e-12)) : sum / m[j][0];
            }
        }
        for (int i = 0; i < n; i++) {
            for (int k = Math.max(0, i - REACH); k < i; k++) {
                x[i] -= m[i][i - k] * x[k];
            }
            x[i] /= m[i][0];
        }
        for (int i = n - 1; i >= 0; i--) {
            for (int k = i + 1; k <= Math.min(n - 1, i + REACH); k++) {
                x[i] -= m[k][k - i] * x[k];
            }
            x[i] /= m[i][0];
        }
        return x;
    }
}
