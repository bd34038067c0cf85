package app.yubble.core.depth;

import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;

/** Corrections of a whole depth map, applied in the order of the parameters. */
public record DepthTrim(
        @Setting(called = "Flip", means = "the map has white far")
        boolean flip,

        @Setting(called = "Far end", means = "nearness of the map that counts as farthest", unit = Unit.SHARE)
        double farEnd,

        @Setting(
                called = "Near end",
                means = "nearness of the map that counts as nearest; at least 0.01 over the far end",
                usual = 1,
                unit = Unit.SHARE)
        double nearEnd,

        @Setting(
                called = "Bend",
                means =
                        "brings the middle nearer or pushes it away, both ends stay: nearness n becomes n to the power of"
                                + " 4^-bend",
                least = -1)
        double bend,

        @Setting(
                called = "Shrink or grow",
                means =
                        "shrinks (-1) or grows (1) what is near over what is behind it, by up to a hundredth of the longer side",
                least = -1)
        double edges,

        @Setting(
                called = "Settle",
                means = "evens out small differences inside things and keeps their edges",
                unit = Unit.SHARE)
        double settle) {
    private static final Declared<DepthTrim> SETTINGS = Declared.of(DepthTrim.class);

    /** Two ends closer than this would make steps of a 16-bit map visible. */
    public static final double LEAST_RANGE = 0.01;

    public static final DepthTrim NONE = Declared.usual(DepthTrim.class);

    public DepthTrim {
        SETTINGS.check(flip, farEnd, nearEnd, bend, edges, settle);
        if (nearEnd - farEnd < LEAST_RANGE) {
            throw new IllegalArgumentException("depth near end must lie at least " + LEAST_RANGE
                    + " over the far end, found near " + nearEnd + ", far " + farEnd);
        }
    }

    public DepthTrim withFlip(boolean value) {
        return new DepthTrim(value, farEnd, nearEnd, bend, edges, settle);
    }

    /** What a nearness of the map becomes, before edges and settling. */
    public double valueOf(double nearness) {
        double turned = flip ? 1 - nearness : nearness;
        double ranged = Math.max(0, Math.min(1, (turned - farEnd) / (nearEnd - farEnd)));
        return bend == 0 ? ranged : Math.pow(ranged, Math.pow(4, -bend));
    }
}
