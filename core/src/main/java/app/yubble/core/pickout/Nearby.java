package app.yubble.core.pickout;

import app.yubble.core.raster.CostSpread;
import app.yubble.core.raster.Size;
import java.util.function.IntPredicate;

/**
 * The cheapest way from each place to the nearest of some sources, where every step costs what changes on it (geodesic
 * distance; Bai and Sapiro, "A Geodesic Framework for Fast Interactive Image and Video Segmentation and Matting", 2007).
 */
final class Nearby extends CostSpread {
    /** Cost at which a way is given up. */
    private static final float FARTHEST = 4;
    /** Cost of a step where nothing changes: a way of a thousand pixels costs three. */
    private static final float PER_STEP = 0.003f;
    /** Colour distance that is grain and costs nothing. */
    private static final float GRAIN = 0.01f;

    private final float[][] channels;

    private Nearby(float[][] channels, Size size) {
        super(size, FARTHEST);
        this.channels = channels;
    }

    /** @param source whether ways begin at a place */
    static float[] to(IntPredicate source, float[][] channels, Size size) {
        Nearby out = new Nearby(channels, size);
        for (int i = 0; i < size.pixels(); i++) {
            if (source.test(i)) {
                out.start(i);
            }
        }
        out.spread();
        return out.costs();
    }

    @Override
    protected float step(int from, int to) {
        float sum = 0;
        for (float[] channel : channels) {
            float d = channel[from] - channel[to];
            sum += d * d;
        }
        return PER_STEP + Math.max(0, (float) Math.sqrt(sum) - GRAIN);
    }
}
