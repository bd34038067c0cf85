package app.yubble.core.keep;

import app.yubble.core.keep.SceneSource.Scene;
import app.yubble.core.pickout.ObjectCut;
import app.yubble.core.raster.BoxMean;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Instances;

/** The subject at a place that was clicked. */
public final class Pointed {
    /** Of the longer side: what a click surely lies on. */
    private static final double DOT = 0.012;
    /** Pixels to either side of a matte's border in which it is parted anew. */
    private static final int BORDER = 4;
    /** Matte from which something may belong to it. */
    private static final float DOUBTFUL = 0.05f;
    /** Of the longer side: how far from it. */
    private static final double DOUBTED = 0.05;
    /** Share of a window that counts as none of it. */
    private static final float NONE = 0.01f;

    private Pointed() {}

    /**
     * Its mask, 1 on it.
     *
     * @param x share of the width
     * @param y share of the height
     */
    public static Plane at(Scene scene, double x, double y) {
        Size size = scene.picture().size();
        int px = (int) Math.max(0, Math.min(size.width() - 1, x * size.width()));
        int py = (int) Math.max(0, Math.min(size.height() - 1, y * size.height()));
        byte[] hints = new byte[(int) size.pixels()];
        if (scene.matte() == null || !byMatte(scene.matte(), px, py, hints)) {
            border(size, hints);
        }
        int radius = (int) Math.ceil(DOT * size.longSide());
        for (int dy = -radius; dy <= radius; dy++) {
            for (int dx = -radius; dx <= radius; dx++) {
                boolean inside = dx * dx + dy * dy <= radius * radius
                        && px + dx >= 0
                        && py + dy >= 0
                        && px + dx < size.width()
                        && py + dy < size.height();
                if (inside) {
                    hints[(py + dy) * size.width() + px + dx] = ObjectCut.KEEP;
                }
            }
        }
        return ObjectCut.of(scene.picture(), scene.nearness(), hints);
    }

    /** What of a matte belongs together with the place; false when it lies on nothing. */
    private static boolean byMatte(Plane matte, int px, int py, byte[] hints) {
        Instances things = Instances.of(matte);
        int own = things.labels()[py * matte.width() + px];
        if (own == 0) {
            return false;
        }
        Plane thing = new Plane(matte.size());
        for (int i = 0; i < hints.length; i++) {
            thing.samples()[i] = things.labels()[i] == own ? 1 : 0;
        }
        Plane share = BoxMean.of(thing, BORDER);
        // Hair and what else the network is not sure of, beside what it is sure of.
        Plane near = BoxMean.of(thing, (int) Math.ceil(DOUBTED * matte.size().longSide()));
        for (int i = 0; i < hints.length; i++) {
            float part = share.samples()[i];
            boolean doubted = matte.samples()[i] > DOUBTFUL && near.samples()[i] > 0;
            hints[i] = part > 1 - NONE ? ObjectCut.KEEP : part < NONE && !doubted ? ObjectCut.OUTSIDE : ObjectCut.OPEN;
        }
        return true;
    }

    /** Without a matte what lies at the picture's border tells what else there is. */
    private static void border(Size size, byte[] hints) {
        for (int y = 0, i = 0; y < size.height(); y++) {
            for (int x = 0; x < size.width(); x++, i++) {
                boolean rim = x == 0 || y == 0 || x == size.width() - 1;
                hints[i] = rim ? ObjectCut.OUTSIDE : ObjectCut.OPEN;
            }
        }
    }
}
