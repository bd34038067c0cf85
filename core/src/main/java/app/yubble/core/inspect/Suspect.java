package app.yubble.core.inspect;

/**
 * Pixels that should probably have another depth.
 *
 * @param pixels their places, row by row, rising
 * @param own the depth that they have at their border
 * @param target the depth that they should have
 * @param unseen length of the border where depth changes without an edge in the picture, in pixels
 * @param stepped length of the border where depth changes
 * @param left what of {@code unseen} would be left with the new depth
 * @param around length of the whole border
 * @param nearer share of the border beyond which it is farther, less the share beyond which it is nearer
 */
record Suspect(
        int[] pixels,
        double own,
        double target,
        double unseen,
        double stepped,
        double left,
        double around,
        double nearer) {
    /** Two suspects mend one fault when their depths differ by less than this share of the step. */
    private static final double SIMILAR = 0.35;

    double gain() {
        return unseen - left;
    }

    /** Whether this is the other side of the same cut: each would take about the depth of the other. */
    boolean answers(Suspect other) {
        double apart = Math.max(Math.abs(own - target), Math.abs(other.own - other.target));
        return Math.abs(own - other.target) < SIMILAR * apart && Math.abs(target - other.own) < SIMILAR * apart;
    }
}
