package app.yubble.core.lens;

import app.yubble.core.raster.Plane;
import java.util.Arrays;

/** Pixels over 0 that touch each other, as runs of rows joined to patches. */
final class Patches {
    private final Plane of;
    private int[] from = new int[256];
    private int[] to = new int[256];
    /** Of each run; a patch's first run is its own. */
    private int[] parent = new int[256];

    private int count;

    Patches(Plane of) {
        this.of = of;
        int above = 0;
        for (int y = 0; y < of.height(); y++) {
            int first = count;
            addRuns(y);
            join(above, first);
            above = first;
        }
    }

    /** Runs, in the order of their places. */
    int count() {
        return count;
    }

    /** Index of a run's first pixel. */
    int from(int run) {
        return from[run];
    }

    /** Index after its last one. */
    int to(int run) {
        return to[run];
    }

    /** The run that stands for the patch of {@code run}. */
    int patch(int run) {
        return root(run);
    }

    private void addRuns(int y) {
        float[] c = of.samples();
        int end = (y + 1) * of.width();
        for (int i = end - of.width(); i < end; i++) {
            if (c[i] > 0) {
                if (count == from.length) {
                    from = Arrays.copyOf(from, 2 * count);
                    to = Arrays.copyOf(to, 2 * count);
                    parent = Arrays.copyOf(parent, 2 * count);
                }
                from[count] = i;
                while (i < end && c[i] > 0) {
                    i++;
                }
                to[count] = i;
                parent[count] = count;
                count++;
            }
        }
    }

    /** Joins runs of the newest row with those of the row before that touch them, also at a corner. */
    private void join(int above, int first) {
        int a = above;
        for (int run = first; run < count; run++) {
            while (a < first && to[a] + of.width() < from[run]) {
                a++;
            }
            for (int b = a; b < first && from[b] + of.width() <= to[run]; b++) {
                int one = root(b);
                int other = root(run);
                parent[Math.max(one, other)] = Math.min(one, other);
            }
        }
    }

    private int root(int run) {
        int at = run;
        while (parent[at] != at) {
            parent[at] = parent[parent[at]];
            at = parent[at];
        }
        return at;
    }
}
