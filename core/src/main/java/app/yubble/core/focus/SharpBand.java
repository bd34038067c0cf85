package app.yubble.core.focus;

import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;

/** The focal range in nearness. */
public record SharpBand(
        @Setting(
                called = "Near edge",
                means = "the band's edge towards the camera, not below its far edge",
                usual = 1,
                unit = Unit.NEARNESS)
        double near,

        @Setting(called = "Far edge", means = "the band's edge away from the camera", unit = Unit.NEARNESS)
        double far,

        @Setting(
                called = "Falloff in front",
                means =
                        "width over which blur sets in towards the camera: within it the radius grows with the square, beyond it"
                                + " linearly",
                unit = Unit.NEARNESS)
        double nearFalloff,

        @Setting(
                called = "Falloff behind",
                means = "width over which blur sets in away from the camera",
                unit = Unit.NEARNESS)
        double farFalloff,

        @Setting(
                called = "Turn the band",
                means = "how much nearer the band lies at the right border than in the middle",
                least = -1,
                unit = Unit.NEARNESS)
        double tiltAcross,

        @Setting(
                called = "Lean the band",
                means = "how much nearer the band lies at the lower border than in the middle",
                least = -1,
                unit = Unit.NEARNESS)
        double tiltDown) {
    private static final Declared<SharpBand> SETTINGS = Declared.of(SharpBand.class);

    /** Everything is inside: the picture stays as it is. */
    public static final SharpBand EVERYTHING = Declared.usual(SharpBand.class);

    public SharpBand {
        SETTINGS.check(near, far, nearFalloff, farFalloff, tiltAcross, tiltDown);
        if (near < far) {
            throw new IllegalArgumentException(
                    "the band's near edge must not be farther than its far edge, found near " + near + ", far " + far);
        }
    }

    /** A band that is level: it lies at the same nearness all over the picture. */
    public SharpBand(double near, double far, double nearFalloff, double farFalloff) {
        this(near, far, nearFalloff, farFalloff, 0, 0);
    }

    /** A band of {@code width} around {@code centre}, cut at 0 and 1, with equal falloffs. */
    public static SharpBand around(double centre, double width, double falloff) {
        double half = width / 2;
        return new SharpBand(clamp(centre + half), clamp(centre - half), falloff, falloff);
    }

    public SharpBand tilted(double across, double down) {
        return new SharpBand(near, far, nearFalloff, farFalloff, across, down);
    }

    public boolean isLevel() {
        return tiltAcross == 0 && tiltDown == 0;
    }

    /**
     * How much nearer than in the middle the band lies at a place in the picture.
     *
     * @param x share of the width, from the left
     * @param y share of the height, from the top
     */
    public double tiltAt(double x, double y) {
        return tiltAcross * (2 * x - 1) + tiltDown * (2 * y - 1);
    }

    public double centre() {
        return (near + far) / 2;
    }

    public boolean coversEverything() {
        return near >= 1 && far <= 0;
    }

    /**
     * Signed distance outside the band after the falloff, in nearness: positive behind, negative in front.
     *
     * @param nearness less {@link #tiltAt} of its place
     */
    public double outside(double nearness) {
        if (nearness > near) {
            return -eased(nearness - near, nearFalloff);
        }
        if (nearness < far) {
            return eased(far - nearness, farFalloff);
        }
        return 0;
    }

    private static double eased(double distance, double falloff) {
        return distance < falloff ? distance * distance / (2 * falloff) : distance - falloff / 2;
    }

    private static double clamp(double value) {
        return Math.max(0, Math.min(1, value));
    }
}
