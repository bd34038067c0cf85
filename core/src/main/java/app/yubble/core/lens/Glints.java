package app.yubble.core.lens;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.BoxMean;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;

/**
 * Gives clipped highlights back some of the energy the sensor lost, before the blur spreads them.
 *
 * <p>Only what is small is lifted: a lamp that clips was many times brighter than white, a window or a white wall hardly
 * brighter. Small means that clipped pixels fill little of the square of 2 % of the longer side around a pixel. Sharp
 * highlights stay as they are: the lift sets in with the blur radius, so that a lamp just outside the band does not jump.
 *
 * @param strength in [0,1]; 0 lifts nothing
 */
public record Glints(double strength) {
    public static final Glints NONE = new Glints(0);

    // A lamp that clips is typically tens of times brighter than white; full strength multiplies by this much more.
    private static final float FULL_LIFT = 24;
    private static final float THRESHOLD = 0.82f;
    private static final float FULL_RADIUS = 4;
    private static final float SMALL = 0.12f;
    private static final float LARGE = 0.45f;

    public Glints {
        if (!(strength >= 0 && strength <= 1)) {
            throw new IllegalArgumentException("glints must be in 0..1, found " + strength);
        }
    }

    /** For each pixel how many times its light is added to it where it is blurred; 0 for most. */
    public Plane lift(Picture source) {
        Plane clipped = new Plane(source.size());
        float[] r = source.red().samples();
        float[] g = source.green().samples();
        float[] b = source.blue().samples();
        float[] c = clipped.samples();
        int width = source.width();
        Bands.ofRows(source.height(), (from, to) -> {
            for (int i = from * width; i < to * width; i++) {
                float peak = Math.max(r[i], Math.max(g[i], b[i]));
                float over = Math.max(0, Math.min(1, (peak - THRESHOLD) / (1 - THRESHOLD)));
                c[i] = over * over * over;
            }
        });
        Plane around = BoxMean.of(clipped, Math.max(2, source.size().longSide() / 100));
        Plane lift = new Plane(source.size());
        float full = (float) strength * FULL_LIFT;
        Bands.ofRows(source.height(), (from, to) -> {
            for (int i = from * width; i < to * width; i++) {
                if (c[i] > 0) {
                    float large = Math.max(0, Math.min(1, (around.samples()[i] - SMALL) / (LARGE - SMALL)));
                    lift.samples()[i] = full * c[i] * (1 - large);
                }
            }
        });
        return lift;
    }

    /**
     * Turns lifts into factors on pixels of these blur radii. In place.
     *
     * @param lifts as {@link #lift} gives them
     */
    static void factors(float[] lifts, float[] radius) {
        for (int i = 0; i < lifts.length; i++) {
            lifts[i] = 1f + lifts[i] * Math.min(1f, Math.abs(radius[i]) * (1 / FULL_RADIUS));
        }
    }
}
