package app.yubble.core.touchup;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import org.jspecify.annotations.Nullable;

/**
 * How far each pixel is painted, in [0,1]; 0 outside the box.
 *
 * @param box where anything is painted, within the picture; null when nothing is
 * @param shares of the box, row by row
 */
public record Mask(Size picture, @Nullable Region box, float[] shares) {
    public static Mask empty(Size picture) {
        return new Mask(picture, null, new float[0]);
    }

    public boolean isEmpty() {
        return box == null;
    }

    public float at(int x, int y) {
        return box == null || x < box.x() || y < box.y() || x >= box.x() + box.width() || y >= box.y() + box.height()
                ? 0
                : shares[(y - box.y()) * box.width() + x - box.x()];
    }

    /** One value for every pixel of the picture. */
    public Plane plane() {
        Plane out = new Plane(picture);
        if (box != null) {
            for (int y = 0; y < box.height(); y++) {
                System.arraycopy(
                        shares, y * box.width(), out.samples(), (y + box.y()) * picture.width() + box.x(), box.width());
            }
        }
        return out;
    }

    public long bytes() {
        return 64 + (long) shares.length * Float.BYTES;
    }

    /** What is not painted here, over the whole picture. */
    public Mask inverted() {
        float[] out = plane().samples();
        for (int i = 0; i < out.length; i++) {
            out[i] = 1 - out[i];
        }
        return new Mask(picture, Region.all(picture), out);
    }

    /** This one after a stroke over it, which adds to it or takes away from it. */
    Mask with(Mask stroke, boolean erases) {
        if (stroke.box == null || box == null && erases) {
            return this;
        }
        Region both = box == null || erases ? (box == null ? stroke.box : box) : around(box, stroke.box);
        float[] out = new float[both.width() * both.height()];
        for (int y = 0; box != null && y < box.height(); y++) {
            System.arraycopy(
                    shares,
                    y * box.width(),
                    out,
                    (y + box.y() - both.y()) * both.width() + box.x() - both.x(),
                    box.width());
        }
        for (int y = 0; y < both.height(); y++) {
            for (int x = 0; x < both.width(); x++) {
                float more = stroke.at(x + both.x(), y + both.y());
                int i = y * both.width() + x;
                out[i] = erases ? out[i] * (1 - more) : out[i] + more * (1 - out[i]);
            }
        }
        return new Mask(picture, both, out);
    }

    private static Region around(Region a, Region b) {
        int x0 = Math.min(a.x(), b.x());
        int y0 = Math.min(a.y(), b.y());
        int x1 = Math.max(a.x() + a.width(), b.x() + b.width());
        int y1 = Math.max(a.y() + a.height(), b.y() + b.height());
        return new Region(x0, y0, x1 - x0, y1 - y0);
    }
}
