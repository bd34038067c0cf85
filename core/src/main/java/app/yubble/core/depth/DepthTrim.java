package app.yubble.core.depth;

/**
 * Corrections of a whole depth map, applied in the order of the parameters.
 *
 * @param flip true when the map has white far
 * @param farEnd nearness of the map that becomes 0, in [0,1)
 * @param nearEnd nearness of the map that becomes 1, in (0,1], over {@code farEnd}
 * @param bend moves the middle and leaves the ends: -1 pushes it away, 0 leaves it, 1 brings it near; a nearness of a half
 *     becomes {@code 0.5 ^ (4 ^ -bend)}
 * @param edges grows what is near over what is behind it (up to 1) or shrinks it (down to -1); 1 is a hundredth of the
 *     longer side
 * @param settle evens out small differences inside things and keeps their edges, in [0,1]
 */
public record DepthTrim(boolean flip, double farEnd, double nearEnd, double bend, double edges, double settle) {
    /** Two ends closer than this would make steps of a 16-bit map visible. */
    public static final double LEAST_RANGE = 0.01;

    public static final DepthTrim NONE = new DepthTrim(false, 0, 1, 0, 0, 0);

    public DepthTrim {
        require("far end", farEnd, 0, 1);
        require("near end", nearEnd, 0, 1);
        require("bend", bend, -1, 1);
        require("edges", edges, -1, 1);
        require("settle", settle, 0, 1);
        if (nearEnd - farEnd < LEAST_RANGE) {
            throw new IllegalArgumentException("depth near end must lie at least " + LEAST_RANGE
                    + " over the far end, found near " + nearEnd + ", far " + farEnd);
        }
    }

    private static void require(String name, double value, double low, double high) {
        if (!(value >= low && value <= high)) {
            throw new IllegalArgumentException(
                    "depth " + name + " must be in " + (int) low + ".." + (int) high + ", found " + value);
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
