package app.yubble.core.inspect;

import app.yubble.core.touchup.Touchup;

/**
 * A place where depth is probably wrong.
 *
 * @param left of the box around it, in shares of the picture's width
 * @param x of a point in it, in shares of the width
 * @param visibility how much it shows with the present band and blur; only to compare faults with
 * @param proposal would put it right
 */
public record Fault(
        Kind kind,
        double left,
        double top,
        double width,
        double height,
        double x,
        double y,
        double visibility,
        Touchup proposal) {
    /** What it looks like. */
    public enum Kind {
        /** A depth edge runs beside the edge that the picture shows. */
        EDGE,
        /** Something thin has the depth of what is behind it, or what is between thin things has theirs. */
        THIN,
        /** Something is farther than all that is around it, and does not look so. */
        HOLE,
        /** Something is nearer than all that is around it, and does not look so. */
        ISLAND,
        /** The subject's matte is neither here nor there, and depth with it. */
        MATTE
    }
}
