package app.yubble.core.subject;

import app.yubble.core.raster.Plane;

/**
 * What a picture is of.
 *
 * @param matte share of each pixel that the subject covers, in [0,1]; of any size with the picture's shape
 * @param confidence in [0,1]; see {@link #of}
 */
public record Subject(Plane matte, double confidence) {
    /** Below this the matte is a guess and not used: measured on photos without a subject, see docs/architecture.md. */
    private static final double CLEAR = 0.72;

    /** Of the picture; less is a speck that nobody photographed. */
    private static final double SMALLEST_SHARE = 0.002;
    /** More is a matte that found no background. */
    private static final double LARGEST_SHARE = 0.93;

    /**
     * The confidence in a matte is how decided it is: the mean of itself weighted by itself, which is 1 for a matte of
     * only zeros and ones and falls with every pixel in between. A matte of nothing, or of everything, has none.
     */
    public static Subject of(Plane matte) {
        double sum = 0;
        double squares = 0;
        for (float a : matte.samples()) {
            sum += a;
            squares += (double) a * a;
        }
        double share = sum / matte.samples().length;
        boolean some = share >= SMALLEST_SHARE && share <= LARGEST_SHARE;
        return new Subject(matte, some ? squares / sum : 0);
    }

    /** True when there is one clear subject. */
    public boolean clear() {
        return confidence >= CLEAR;
    }
}
