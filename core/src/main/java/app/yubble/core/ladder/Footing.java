package app.yubble.core.ladder;

import app.yubble.core.raster.BoxMedian;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;

/** What rungs stand on: what every pixel of a moment looks like, without what is thin on it, where it lies and how near the map says it is. */
public final class Footing {
    /** Longer side at which ladders are solved: the network's map is not finer. */
    public static final int SIDE = 240;

    /** In pixels to each side: letters on a sign and specks of light on a wall do not stand elsewhere than these. */
    private static final int THIN = 3;

    /** Place (2), nearness and colour (3) of a pixel. */
    static final int PARTS = 6;
    /**
     * How far apart two pixels are that have little to do with each other: in place (of the longer side), in nearness, and in colour (roots of
     * linear light). Fitted on photos with ranked points ({@code bench pairs}), as all here.
     */
    private static final double PLACE = 0.35;
    /** See {@link #PLACE}. */
    private static final double NEARNESS = 0.24;
    /** See {@link #PLACE}. */
    private static final double COLOUR = 0.23;

    /** How much what is alike moves together however far apart it lies. */
    private static final double ANYWHERE = 0.5;
    /** How much all moves together, against what moves alone. */
    private static final double TOGETHER = 0.4;
    /** How much all of the picture leans to one side, against what moves alone. */
    private static final double SLOPE = 0.12;

    private final Plane nearness;
    private final Plane[] colours = new Plane[3];
    private final Likeness likeness;
    private final double side;

    /** @param picture small, as {@code nearness}, which has no ladder yet */
    public Footing(Plane nearness, Picture picture) {
        this.nearness = nearness;
        side = nearness.size().longSide();
        likeness = new Likeness(nearness, picture);
        for (int c = 0; c < colours.length; c++) {
            colours[c] = BoxMedian.of(new Plane(nearness.width(), nearness.height(), likeness.colour(c)), THIN);
        }
    }

    public Size size() {
        return nearness.size();
    }

    public long bytes() {
        return (1 + 2L * colours.length) * nearness.bytes();
    }

    Likeness likeness() {
        return likeness;
    }

    Plane nearness() {
        return nearness;
    }

    /** The pixel that a rung stands on. */
    int under(Rung rung) {
        int x = Math.min(nearness.width() - 1, (int) (rung.x() * nearness.width()));
        int y = Math.min(nearness.height() - 1, (int) (rung.y() * nearness.height()));
        return y * nearness.width() + x;
    }

    /** Such that the squared distance of two is what they have to do with each other. */
    void read(int pixel, float[] to) {
        int width = nearness.width();
        to[0] = (float) ((pixel % width + 0.5) / side / PLACE);
        to[1] = (float) ((pixel / width + 0.5) / side / PLACE);
        to[2] = (float) (nearness.samples()[pixel] / NEARNESS);
        for (int c = 0; c < colours.length; c++) {
            to[3 + c] = (float) (colours[c].samples()[pixel] / COLOUR);
        }
    }

    /** How much two places move together. */
    static double alike(float[] a, float[] b) {
        double away = 0;
        for (int k = 0; k < 2; k++) {
            away += (a[k] - b[k]) * (a[k] - b[k]);
        }
        double unlike = 0;
        for (int k = 2; k < PARTS; k++) {
            unlike += (a[k] - b[k]) * (a[k] - b[k]);
        }
        double near = ANYWHERE + (1 - ANYWHERE) * Math.exp(-0.5 * away);
        return near * Math.exp(-0.5 * unlike)
                + SLOPE * (aside(a[0]) * aside(b[0]) + aside(a[1]) * aside(b[1]))
                + TOGETHER;
    }

    private static double aside(float place) {
        return place * PLACE - 0.5;
    }
}
