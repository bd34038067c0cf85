package app.yubble.core.follow;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/** Points of a patch that go along together: their median says where it is in the next frame. */
final class Constellation {
    /** Points along each side. */
    private static final int SIDE = 7;
    /** Radii of the patch that they cover to each side. */
    private static final double COVERED = 0.75;
    /** Share of all points by weight that must come back. */
    private static final double LEAST = 0.25;

    private final float[] points = new float[2 * SIDE * SIDE];
    private final float[] expected = new float[points.length];
    private final double[] weights = new double[SIDE * SIDE];
    private final Pose start;
    private final Pose next;

    /** @param next where the patch may be */
    Constellation(Patch patch, Pose start, Pose next) {
        this.start = start;
        this.next = next;
        double spacing = 2 * COVERED * patch.radius() / (SIDE - 1);
        double all = 0;
        for (int j = 0, i = 0; j < SIDE; j++) {
            for (int k = 0; k < SIDE; k++, i++) {
                double u = (k - (SIDE - 1) / 2.0) * spacing;
                double v = (j - (SIDE - 1) / 2.0) * spacing;
                points[2 * i] = (float) start.xOf(u, v);
                points[2 * i + 1] = (float) start.yOf(u, v);
                expected[2 * i] = (float) next.xOf(u, v);
                expected[2 * i + 1] = (float) next.yOf(u, v);
                weights[i] = patch.countAt(u, v);
                all += weights[i];
            }
        }
        for (int i = 0; i < weights.length; i++) {
            weights[i] /= all;
        }
    }

    /**
     * The patch in the next frame; null when too few points come back.
     *
     * @param misses pixels by which the way there and back may miss
     */
    @Nullable
    Pose in(PointMotion motion, GreyFrame from, GreyFrame to, double misses) {
        float[] there = motion.moved(from, to, points, expected);
        float[] back = motion.moved(to, from, there, points);
        Weighted across = new Weighted(weights.length);
        Weighted down = new Weighted(weights.length);
        for (int i = 0; i < weights.length; i++) {
            double miss = Math.hypot(back[2 * i] - points[2 * i], back[2 * i + 1] - points[2 * i + 1]);
            if (miss <= misses) {
                across.add(there[2 * i] - points[2 * i], weights[i]);
                down.add(there[2 * i + 1] - points[2 * i + 1], weights[i]);
            }
        }
        if (across.weight() < LEAST) {
            return null;
        }
        return next.movedTo(start.x() + across.median(), start.y() + down.median());
    }

    /** Values with weights. */
    private static final class Weighted {
        private final double[][] all;
        private int count;
        private double weight;

        Weighted(int most) {
            all = new double[most][];
        }

        void add(double value, double with) {
            all[count++] = new double[] {value, with};
            weight += with;
        }

        double weight() {
            return weight;
        }

        double median() {
            double[][] sorted = Arrays.copyOf(all, count);
            Arrays.sort(sorted, (a, b) -> Double.compare(a[0], b[0]));
            double sum = 0;
            int i = 0;
            while (i < count - 1 && sum + sorted[i][1] < weight / 2) {
                sum += sorted[i++][1];
            }
            return sorted[i][0];
        }
    }
}
