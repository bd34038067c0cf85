package app.yubble.core.depth;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.GuidedFilter;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.RunningExtreme;
import app.yubble.core.raster.Size;

/** Applies a {@link DepthTrim}; lengths are shares of the map, so a preview and a delivery look alike. */
public final class Trimming {
    /** Steps of the bend: finer than what a 16-bit map shows once bent. */
    private static final int TABLE = 4096;
    /** Of the longer side, as docs/formats.md says. */
    private static final double MOST_EDGES = 0.01;
    /** Radius of full settling over the longer side; by eye on the dog's flank. */
    private static final double MOST_SETTLING = 0.02;
    /** Variance of nearness that is smoothed away at the least and at full settling. By eye on the dog's flank. */
    private static final float LEAST_EPSILON = 1e-5f;
    /** See {@link #LEAST_EPSILON}. */
    private static final float MOST_EPSILON = 4e-3f;
    /** Longer side at which it is settled: small differences are wide. */
    private static final int SETTLING_SIDE = 1600;

    private Trimming() {}

    /** A new plane, or {@code nearness} itself when there is nothing to do. */
    public static Plane apply(Plane nearness, DepthTrim trim) {
        Plane out = valued(nearness, trim);
        int radius = (int)
                Math.round(Math.abs(trim.edges()) * MOST_EDGES * nearness.size().longSide());
        if (radius > 0) {
            out = RunningExtreme.octagon(out, radius, trim.edges() > 0);
        }
        return trim.settle() > 0 ? settled(out, trim.settle()) : out;
    }

    private static Plane valued(Plane nearness, DepthTrim trim) {
        if (!trim.flip() && trim.farEnd() == 0 && trim.nearEnd() == 1 && trim.bend() == 0) {
            return nearness;
        }
        // A table with interpolation: a power per pixel took 1.1 s at 24 megapixels, this 0.1 s.
        float[] table = new float[TABLE + 2];
        for (int i = 0; i < table.length; i++) {
            table[i] = (float) trim.valueOf(Math.min(1, (double) i / TABLE));
        }
        Plane out = new Plane(nearness.size());
        float[] in = nearness.samples();
        float[] to = out.samples();
        int width = nearness.width();
        Bands.ofRows(nearness.height(), (from, until) -> {
            for (int i = from * width; i < until * width; i++) {
                float at = Math.max(0, Math.min(1, in[i])) * TABLE;
                int lower = (int) at;
                to[i] = table[lower] + (at - lower) * (table[lower + 1] - table[lower]);
            }
        });
        return out;
    }

    // A guided filter with the map as its own guide: it evens out differences under the root of epsilon.
    private static Plane settled(Plane nearness, double settle) {
        Size size = nearness.size().fitting(SETTLING_SIDE);
        Plane small = Resample.toSize(nearness, size);
        int radius = Math.max(1, (int) Math.round(MOST_SETTLING * settle * size.longSide()));
        float epsilon = (float) (LEAST_EPSILON * Math.pow(MOST_EPSILON / LEAST_EPSILON, settle));
        return GuidedFilter.fit(small, small, radius, epsilon).apply(nearness);
    }
}
