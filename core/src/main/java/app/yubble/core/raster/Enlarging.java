package app.yubble.core.raster;

/**
 * Bilinear enlarging between pixel centres, clamped at the border: of a whole plane, of rows of a part of it, or at single places where the
 * small planes enlarged as a whole would take too much memory.
 */
public final class Enlarging {
    private final Size small;
    private final Size large;
    private final int top;
    private final int[] left;
    private final int[] right;
    private final float[] share;

    /** The two rows of a small plane around one of the large one, as offsets, and the lower one's share. */
    public record Row(int upper, int lower, float down) {}

    public Enlarging(Size small, Size large) {
        this(small, large, Region.all(large));
    }

    /** For a part of the large plane: rows and columns count from the part's corner. */
    public Enlarging(Size small, Size large, Region part) {
        this.small = small;
        this.large = large;
        top = part.y();
        left = new int[part.width()];
        right = new int[part.width()];
        share = new float[part.width()];
        for (int x = 0; x < left.length; x++) {
            double at = place(part.x() + x, small.width(), large.width());
            left[x] = before(at, small.width());
            right[x] = Math.min(small.width() - 1, left[x] + 1);
            share[x] = (float) Math.max(0, Math.min(1, at - left[x]));
        }
    }

    private static double place(int at, int small, int large) {
        return (at + 0.5) * small / large - 0.5;
    }

    private static int before(double place, int count) {
        return Math.max(0, Math.min(count - 1, (int) Math.floor(place)));
    }

    public Row row(int y) {
        double at = place(top + y, small.height(), large.height());
        int upper = before(at, small.height());
        int lower = Math.min(small.height() - 1, upper + 1);
        return new Row(upper * small.width(), lower * small.width(), (float) Math.max(0, Math.min(1, at - upper)));
    }

    public float at(Plane plane, Row row, int x) {
        float[] in = plane.samples();
        float above = in[row.upper() + left[x]];
        above += share[x] * (in[row.upper() + right[x]] - above);
        float below = in[row.lower() + left[x]];
        below += share[x] * (in[row.lower() + right[x]] - below);
        return above + row.down() * (below - above);
    }

    /** Writes all columns of a row to {@code out} from {@code from} on. */
    public void fill(Plane plane, Row row, float[] out, int from) {
        float[] in = plane.samples();
        float[] mixed = new float[small.width()];
        for (int x = 0; x < mixed.length; x++) {
            float upper = in[row.upper() + x];
            mixed[x] = upper + row.down() * (in[row.lower() + x] - upper);
        }
        for (int x = 0; x < left.length; x++) {
            float own = mixed[left[x]];
            out[from + x] = own + share[x] * (mixed[right[x]] - own);
        }
    }
}
