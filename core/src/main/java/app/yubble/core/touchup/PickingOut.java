package app.yubble.core.touchup;

import app.yubble.core.pickout.ObjectCut;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.MatteRefiner;

/**
 * Turns a pick-out into a mask: solved once in few pixels, then brought to the edges of the picture at any size, so that
 * previews and deliveries agree.
 */
public final class PickingOut {
    /** Longer side of the picture from which a box of usual size is solved. */
    private static final int USUAL_SIDE = 1024;

    /** Longer side at which a small box is looked at: the size of the reduced picture. */
    private static final int FINE_SIDE = 2560;
    /** Share of the longer side below which a box is small. */
    private static final double SMALL_BOX = 0.3;
    /** What lies around the box tells what does not belong to the object. */
    private static final double AROUND = 0.25;

    /** Share of the picture around the box that is learned as background, at least. */
    private static final double LEAST_AROUND = 0.03;
    /** Longer side of the box while it is solved: under a second on two cores. */
    private static final int SOLVED_SIDE = 360;

    private PickingOut() {}

    /** The size of the whole picture from which a pick-out is to be solved. */
    public static Size solvedFrom(PickOut pickOut, Size full) {
        Size usual = full.fitting(USUAL_SIDE);
        double box = Math.max(pickOut.width() * usual.width(), pickOut.height() * usual.height());
        return box < SMALL_BOX * usual.longSide() ? full.fitting(FINE_SIDE) : usual;
    }

    /**
     * What belongs to the object, in a few hundred pixels of the box and its surroundings.
     *
     * @param picture of the size {@link #solvedFrom}
     * @param nearness of the same size
     */
    public static Plane solved(PickOut pickOut, Picture picture, Plane nearness) {
        Size size = picture.size();
        Region around = around(pickOut, size);
        Size reduced = around.size().fitting(SOLVED_SIDE);
        return ObjectCut.of(
                Resample.toSize(Resample.crop(picture, around), reduced),
                Resample.toSize(Resample.crop(nearness, around), reduced),
                hints(pickOut, size, around, reduced));
    }

    /**
     * The mask at the picture's size.
     *
     * @param part of the picture that is wanted
     */
    public static Mask mask(PickOut pickOut, Plane solved, Picture picture, Region part) {
        Region around = around(pickOut, picture.size());
        Region both = around.meet(part);
        return both == null
                ? Mask.empty(picture.size())
                : Mask.of(
                        picture.size(),
                        both,
                        MatteRefiner.refine(solved, picture, around, both).samples());
    }

    /**
     * A coarse mask of a whole picture, brought to the picture's edges.
     *
     * @param part of the picture that is wanted
     */
    public static Mask fine(Plane coarse, Picture picture, Region part) {
        Plane refined = MatteRefiner.refine(coarse, picture, Region.all(picture.size()), part);
        return Mask.of(picture.size(), part, refined.samples());
    }

    /** The box with some of what is around it. */
    private static Region around(PickOut pickOut, Size size) {
        double across = Math.max(LEAST_AROUND, AROUND * pickOut.width());
        double down = Math.max(LEAST_AROUND, AROUND * pickOut.height());
        int x0 = (int) Math.floor(Math.max(0, pickOut.left() - across) * size.width());
        int y0 = (int) Math.floor(Math.max(0, pickOut.top() - down) * size.height());
        int x1 = (int) Math.ceil(Math.min(1, pickOut.left() + pickOut.width() + across) * size.width());
        int y1 = (int) Math.ceil(Math.min(1, pickOut.top() + pickOut.height() + down) * size.height());
        return new Region(x0, y0, Math.max(1, x1 - x0), Math.max(1, y1 - y0));
    }

    /** What the box and the marks say of each pixel of a whole picture. */
    public static byte[] hints(PickOut pickOut, Size size) {
        return hints(pickOut, size, Region.all(size), size);
    }

    private static byte[] hints(PickOut pickOut, Size size, Region around, Size reduced) {
        byte[] out = new byte[(int) reduced.pixels()];
        double across = (double) around.width() / reduced.width() / size.width();
        double down = (double) around.height() / reduced.height() / size.height();
        double left = (double) around.x() / size.width();
        double top = (double) around.y() / size.height();
        for (int y = 0, i = 0; y < reduced.height(); y++) {
            for (int x = 0; x < reduced.width(); x++, i++) {
                double px = left + (x + 0.5) * across;
                double py = top + (y + 0.5) * down;
                boolean boxed = px >= pickOut.left()
                        && py >= pickOut.top()
                        && px <= pickOut.left() + pickOut.width()
                        && py <= pickOut.top() + pickOut.height();
                out[i] = boxed ? ObjectCut.OPEN : ObjectCut.OUTSIDE;
            }
        }
        // No mark is so thin that it falls between the pixels.
        double least = 2.0 * around.width() / reduced.width() / size.longSide();
        for (Stroke mark : pickOut.marks()) {
            Mask footprint = Footprint.of(mark.atLeast(least), size);
            for (int y = 0, i = 0; y < reduced.height(); y++) {
                int py = around.y() + (int) ((y + 0.5) * around.height() / reduced.height());
                for (int x = 0; x < reduced.width(); x++, i++) {
                    int px = around.x() + (int) ((x + 0.5) * around.width() / reduced.width());
                    if (footprint.at(px, py) > 0.5f) {
                        out[i] = mark.brush().erases() ? ObjectCut.DROP : ObjectCut.KEEP;
                    }
                }
            }
        }
        return out;
    }
}
