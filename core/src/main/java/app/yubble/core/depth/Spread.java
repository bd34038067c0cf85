package app.yubble.core.depth;

import app.yubble.core.raster.BoxMean;
import app.yubble.core.raster.Plane;

/**
 * Fills a plane from where it is known, nearest first: normalised convolution (Knutsson and Westin, CVPR 1993) with
 * boxes of growing size, so that a pixel takes the mean of the smallest window that holds anything known.
 */
final class Spread {
    /** Weight from which a pixel counts as reached; less is rounding. */
    private static final float ENOUGH = 1e-4f;

    private Spread() {}

    /** @param known weight of each sample, 0 for unknown; where nothing at all is known the values stay */
    static Plane fill(Plane values, Plane known) {
        Plane out = new Plane(values.size());
        float[] to = out.samples();
        boolean[] done = new boolean[to.length];
        int left = 0;
        for (int i = 0; i < to.length; i++) {
            to[i] = values.samples()[i];
            done[i] = known.samples()[i] >= 1;
            left += done[i] ? 0 : 1;
        }
        Plane weighted = new Plane(values.size());
        for (int i = 0; i < to.length; i++) {
            weighted.samples()[i] = values.samples()[i] * known.samples()[i];
        }
        int longSide = values.size().longSide();
        for (int radius = 2; left > 0 && radius < 2 * longSide; radius = radius * 3 / 2 + 1) {
            Plane sums = BoxMean.of(BoxMean.of(weighted, radius), radius / 2);
            Plane weights = BoxMean.of(BoxMean.of(known, radius), radius / 2);
            for (int i = 0; i < to.length; i++) {
                float weight = weights.samples()[i];
                if (!done[i] && weight > ENOUGH) {
                    to[i] = sums.samples()[i] / weight;
                    done[i] = true;
                    left--;
                }
            }
        }
        return out;
    }
}
