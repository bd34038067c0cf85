package app.yubble.core.focus;

/**
 * The focal range in nearness.
 *
 * @param near the edge towards the camera, in [0,1] and not below {@code far}
 * @param far the edge away from the camera, in [0,1]
 * @param nearFalloff width over which blur sets in towards the camera, in [0,1]
 * @param farFalloff width over which blur sets in away from the camera, in [0,1]
 * @param tiltAcross how much nearer the band lies at the right border than in the middle, in nearness, in [-1,1]
 * @param tiltDown how much nearer it lies at the lower border
 */
public record SharpBand(
        double near, double far, double nearFalloff, double farFalloff, double tiltAcross, double tiltDown) {
    /** Everything is inside: the picture stays as it is. */
    public static final SharpBand EVERYTHING = new SharpBand(1, 0, 0, 0);

    public SharpBand {
        require("near", near);
        require("far", far);
        require("nearFalloff", nearFalloff);
        require("farFalloff", farFalloff);
        requireTilt("tiltAcross", tiltAcross);
        requireTilt("tiltDown", tiltDown);
        if (near < far) {
            throw new IllegalArgumentException(
                    "the band's near edge must not be farther than its far edge, found near " + near + ", far " + far);
        }
    }

    /** A band that is level: it lies at the same nearness all over the picture. */
    public SharpBand(double near, double far, double nearFalloff, double farFalloff) {
        this(near, far, nearFalloff, farFalloff, 0, 0);
    }

    private static void requireTilt(String name, double value) {
        if (!(value >= -1 && value <= 1)) {
            throw new IllegalArgumentException("band " + name + " must be in -1..1, found " + value);
        }
    }

    private static void require(String name, double value) {
        if (!(value >= 0 && value <= 1)) {
            throw new IllegalArgumentException("band " + name + " must be in 0..1, found " + value);
        }
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
