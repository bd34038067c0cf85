package app.yubble.core.lens;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.BoxMean;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;

/**
 * Gives clipped highlights back some of the energy the sensor lost, before the blur spreads them.
 *
 * <p>How much depends on how clipped a pixel is, how many of its channels are, and how small the patch of clipped pixels is
 * that it belongs to: a lamp that clips was many times brighter than white, a window or a white wall hardly brighter. Panes
 * of one window are small but close together, so a patch also counts as large where clipped pixels fill much of the
 * square of 2 % of the longer side around it. Sharp highlights stay as they are: the lift sets in with the blur radius, so
 * that a lamp just outside the band does not jump.
 */
public record Glints(
        @Setting(
                called = "Glints",
                means =
                        "how much of their brightness clipped lights get back where they are blurred, so that they become clear"
                                + " discs",
                usual = USUAL_STRENGTH,
                unit = Unit.SHARE)
        double strength,

        @Setting(
                called = "Lights from",
                means =
                        "share of white, in linear light, from which a small light counts as clipped: lower lifts dimmer lights"
                                + " too",
                least = 0.3,
                usual = USUAL_THRESHOLD,
                unit = Unit.SHARE)
        double threshold) {
    private static final Declared<Glints> SETTINGS = Declared.of(Glints.class);
    /** By eye on the lamps of dusk and the windows beside them. */
    private static final double USUAL_THRESHOLD = 0.82;
    /** At which the light that was cut off is given back as it is estimated. */
    private static final double USUAL_STRENGTH = 0.25;
    /** How far below the usual threshold dimmer lights are lifted as much as the setting says. */
    private static final double FULLY_LOWERED = 0.2;
    /** Light to which a pixel at the border of a lamp is at least compared. */
    private static final float LEAST_PEAK = 0.05f;

    public static final Glints NONE = of(0);

    /** Longer side at which is looked how crowded lights are; at 100 megapixels the full one would take 800 MB. */
    private static final int CROWDING_SIDE = 2560;
    /** A lamp that clips is typically tens of times brighter than white; full strength multiplies by this much more. */
    private static final float FULL_LIFT = 24;
    /** Linear light over which the lift sets in, at least: a step would pick out grain. */
    private static final float LEAST_RAMP = 0.01f;
    /** What a pixel counts of which only one channel clips: it is a colour, more often than a lamp. By eye on dusk. */
    private static final float ONE_CHANNEL = 0.4f;
    /** Pixels of blur from which the lift is full. */
    private static final float FULL_RADIUS = 4;
    // Side of a patch, in shares of the longer side of the picture.
    private static final double SMALL_SIDE = 0.012;
    /** From here on a patch is a window. By eye on the windows and lamps of dusk. */
    private static final double LARGE_SIDE = 0.026;
    /** Share of clipped pixels around up to which a patch stands alone; panes of a window do not. By eye on dusk. */
    private static final float SPARSE = 0.12f;
    /** Share from which nothing is lifted. */
    private static final float DENSE = 0.4f;

    public Glints {
        SETTINGS.check(strength, threshold);
    }

    public static Glints of(double strength) {
        return new Glints(strength, USUAL_THRESHOLD);
    }

    public Glints withStrength(double value) {
        return new Glints(value, threshold);
    }

    /**
     * The same where it is known how much was cut off: this times the setting over its usual value. A threshold over the usual one leaves out
     * what does not reach it. One below it lifts dimmer lights too, the more the lower it is, all alike.
     *
     * @param cut as {@link CutLight} finds it, at the size of {@code source}
     */
    public Plane lift(Picture source, Plane cut) {
        if (strength == 0) {
            return new Plane(source.size());
        }
        double lowered = Math.max(0, Math.min(1, (USUAL_THRESHOLD - threshold) / FULLY_LOWERED));
        Plane out = lowered > 0 ? new Glints(strength * lowered, threshold).lift(source) : new Plane(source.size());
        float least = threshold > USUAL_THRESHOLD ? (float) threshold : 0;
        float scale = (float) (strength / USUAL_STRENGTH);
        int width = source.width();
        Bands.ofRows(source.height(), (from, to) -> {
            for (int i = from * width; i < to * width; i++) {
                float more = cut.samples()[i];
                if (more > 0) {
                    float peak = Math.max(
                            source.red().samples()[i],
                            Math.max(source.green().samples()[i], source.blue().samples()[i]));
                    if (peak > least) {
                        out.samples()[i] = Math.max(out.samples()[i], scale * more / Math.max(LEAST_PEAK, peak));
                    }
                }
            }
        });
        return out;
    }

    /** For each pixel how many times its light is added to it where it is blurred; 0 for most. */
    public Plane lift(Picture source) {
        if (strength == 0) {
            return new Plane(source.size());
        }
        Plane clipped = new Plane(source.size());
        int width = source.width();
        Bands.ofRows(source.height(), (from, to) -> {
            for (int i = from * width; i < to * width; i++) {
                clipped.samples()[i] = clipped(
                        source.red().samples()[i],
                        source.green().samples()[i],
                        source.blue().samples()[i]);
            }
        });
        Size wide = source.size().fitting(CROWDING_SIDE);
        Plane around = BoxMean.of(Resample.toSize(clipped, wide), Math.max(2, wide.longSide() / 100));
        liftInPlace(clipped, around, (float) strength * FULL_LIFT);
        return clipped;
    }

    private float clipped(float red, float green, float blue) {
        float from = (float) threshold;
        float ramp = Math.max(LEAST_RAMP, (float) Math.min(1 - USUAL_THRESHOLD, 1 - threshold));
        float peak = Math.max(red, Math.max(green, blue));
        if (peak <= from) {
            return 0;
        }
        float over = Math.min(1, (peak - from) / ramp);
        float least = Math.min(red, Math.min(green, blue));
        float middle = red + green + blue - peak - least;
        float others = (over(least - from, ramp) + over(middle - from, ramp)) / 2;
        return over * over * over * (ONE_CHANNEL + (1 - ONE_CHANNEL) * others);
    }

    private static float over(float above, float ramp) {
        return Math.max(0, Math.min(1, above / ramp));
    }

    private static float crowdingAt(int i, Plane clipped, Plane around) {
        int x = i % clipped.width();
        int y = i / clipped.width();
        return around.at((int) ((long) x * around.width() / clipped.width()), (int)
                ((long) y * around.height() / clipped.height()));
    }

    /** Clipped samples become lifts. */
    private static void liftInPlace(Plane clipped, Plane around, float full) {
        Patches patches = new Patches(clipped);
        int count = patches.count();
        double[] area = new double[count];
        float[] dense = new float[count];
        for (int run = 0; run < count; run++) {
            int patch = patches.patch(run);
            for (int i = patches.from(run); i < patches.to(run); i++) {
                area[patch] += clipped.samples()[i];
                dense[patch] = Math.max(dense[patch], crowdingAt(i, clipped, around));
            }
        }
        double side = clipped.size().longSide();
        for (int run = 0; run < count; run++) {
            int patch = patches.patch(run);
            double large = (Math.sqrt(area[patch]) / side - SMALL_SIDE) / (LARGE_SIDE - SMALL_SIDE);
            double crowded = (dense[patch] - SPARSE) / (DENSE - SPARSE);
            float small = (float) (full * (1 - clamp(large)) * (1 - clamp(crowded)));
            for (int i = patches.from(run); i < patches.to(run); i++) {
                clipped.samples()[i] *= small;
            }
        }
    }

    private static double clamp(double value) {
        return Math.max(0, Math.min(1, value));
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
