package app.yubble.core.touchup;

import app.yubble.core.raster.BoxMean;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.RunningExtreme;
import app.yubble.core.raster.Size;
import java.util.Arrays;
import java.util.function.IntFunction;
import org.jspecify.annotations.Nullable;

/**
 * How far each pixel is painted, in [0,1], in steps of a 255th; 0 outside the box. Hundreds of them are kept at once.
 *
 * @param box where anything is painted, within the picture; null when nothing is
 * @param shares of the box, row by row, as unsigned bytes
 */
public record Mask(Size picture, @Nullable Region box, byte[] shares) {

    public static Mask empty(Size picture) {
        return new Mask(picture, null, new byte[0]);
    }

    /** From shares in [0,1]. */
    static Mask of(Size picture, Region box, float[] shares) {
        byte[] out = new byte[shares.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = (byte) Math.round(shares[i] * 255);
        }
        return new Mask(picture, box, out);
    }

    public boolean isEmpty() {
        return box == null;
    }

    public float at(int x, int y) {
        return (byteAt(x, y) & 0xff) * (1 / 255f);
    }

    /** The share of a pixel by its place in the box. */
    float share(int i) {
        return (shares[i] & 0xff) * (1 / 255f);
    }

    /** One value for every pixel of the picture. */
    public Plane plane() {
        Plane out = new Plane(picture);
        if (box != null) {
            for (int y = 0; y < box.height(); y++) {
                int at = (y + box.y()) * picture.width() + box.x();
                for (int x = 0; x < box.width(); x++) {
                    out.samples()[at + x] = share(y * box.width() + x);
                }
            }
        }
        return out;
    }

    public long bytes() {
        return 64L + shares.length;
    }

    /** What is not painted here, over the whole picture. */
    public Mask inverted() {
        float[] out = plane().samples();
        for (int i = 0; i < out.length; i++) {
            out[i] = 1 - out[i];
        }
        return of(picture, Region.all(picture), out);
    }

    /** From a map of the picture's shape, brought to its size. */
    public static Mask of(Plane map, Size picture) {
        return of(picture, Region.all(picture), Resample.toSize(map, picture).samples());
    }

    /** With its edge moved and faded. */
    public Mask rimmed(Touchup.Rim rim) {
        if (box == null || rim.equals(Touchup.Rim.PLAIN)) {
            return this;
        }
        double grow = rim.grow() * picture.longSide();
        double soften = rim.soften() * picture.longSide();
        int more = (int) Math.ceil(Math.max(0, grow) + soften) + 2;
        Region around = box.grown(more, picture);
        Plane out = new Plane(around.size());
        for (int y = 0, i = 0; y < around.height(); y++) {
            for (int x = 0; x < around.width(); x++, i++) {
                out.samples()[i] = at(x + around.x(), y + around.y());
            }
        }
        if (grow != 0) {
            Plane before = out;
            boolean largest = grow > 0;
            out = between(Math.abs(grow), radius -> RunningExtreme.octagon(before, radius, largest));
        }
        if (soften > 0) {
            // Two means after each other reach as far as one of twice the width.
            Plane before = out;
            out = between(soften / 2, radius -> BoxMean.of(BoxMean.of(before, radius), radius));
        }
        return of(picture, around, out.samples());
    }

    /** What lies between the results of the whole radii below and above. */
    private static Plane between(double radius, IntFunction<Plane> filter) {
        int whole = (int) Math.floor(radius);
        float part = (float) (radius - whole);
        Plane lower = filter.apply(whole);
        if (part == 0) {
            return lower;
        }
        Plane upper = filter.apply(whole + 1);
        Plane out = new Plane(lower.size());
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = lower.samples()[i] + part * (upper.samples()[i] - lower.samples()[i]);
        }
        return out;
    }

    /** Around all that a stroke over it can change: it is not painted wholly there yet, or not empty yet; null for nothing. */
    @Nullable
    Region open(Mask stroke, boolean erases) {
        Region of = stroke.box;
        if (of == null || box == null) {
            return erases ? null : of;
        }
        byte done = erases ? 0 : (byte) 255;
        Region around = null;
        for (int y = of.y(); y < of.y() + of.height(); y++) {
            int left = of.x();
            int right = of.x() + of.width();
            while (left < right && isDone(stroke, left, y, done)) {
                left++;
            }
            while (right > left && isDone(stroke, right - 1, y, done)) {
                right--;
            }
            if (left < right) {
                around = Region.around(around, new Region(left, y, right - left, 1));
            }
        }
        return around;
    }

    private boolean isDone(Mask stroke, int x, int y, byte done) {
        return byteAt(x, y) == done || stroke.byteAt(x, y) == 0;
    }

    byte byteAt(int x, int y) {
        return box == null || x < box.x() || y < box.y() || x >= box.x() + box.width() || y >= box.y() + box.height()
                ? 0
                : shares[(y - box.y()) * box.width() + x - box.x()];
    }

    /** What of it lies in a part. */
    public Mask within(Region part) {
        Region own = box;
        Region both = own == null ? null : own.meet(part);
        if (own == null || both == null) {
            return empty(picture);
        }
        if (both.equals(own)) {
            return this;
        }
        byte[] out = new byte[both.width() * both.height()];
        for (int y = 0; y < both.height(); y++) {
            System.arraycopy(
                    shares,
                    (y + both.y() - own.y()) * own.width() + both.x() - own.x(),
                    out,
                    y * both.width(),
                    both.width());
        }
        return new Mask(picture, both, out);
    }

    /** This one and another one, which is painted nowhere where this one is. */
    public Mask beside(Mask other) {
        Region own = box;
        Region others = other.box;
        if (own == null || others == null) {
            return own == null ? other : this;
        }
        Region both = own.joined(others);
        byte[] out = new byte[both.width() * both.height()];
        lay(shares, own, out, both);
        lay(other.shares, others, out, both);
        return new Mask(picture, both, out);
    }

    /** Copies shares of a box into a larger one. */
    static void copy(byte[] shares, Region box, byte[] out, Region larger) {
        for (int y = 0; y < box.height(); y++) {
            int to = (y + box.y() - larger.y()) * larger.width() + box.x() - larger.x();
            System.arraycopy(shares, y * box.width(), out, to, box.width());
        }
    }

    /** Lays shares of a box over a larger one, which is painted nowhere there; {@code out} is modified. */
    private static void lay(byte[] shares, Region box, byte[] out, Region both) {
        for (int y = 0; y < box.height(); y++) {
            int to = (y + box.y() - both.y()) * both.width() + box.x() - both.x();
            for (int x = 0; x < box.width(); x++) {
                out[to + x] |= shares[y * box.width() + x];
            }
        }
    }

    /** This one after a stroke over it, which adds to it or takes away from it. */
    Mask with(Mask stroke, boolean erases) {
        Region own = box;
        Region strokes = stroke.box;
        if (strokes == null || own == null && erases) {
            return this;
        }
        Region both = own == null ? strokes : erases ? own : own.joined(strokes);
        byte[] out = new byte[both.width() * both.height()];
        if (own != null) {
            copy(shares, own, out, both);
        }
        Region painted = both.meet(strokes);
        if (painted == null) {
            return this;
        }
        for (int y = painted.y(); y < painted.y() + painted.height(); y++) {
            for (int x = painted.x(); x < painted.x() + painted.width(); x++) {
                float more = stroke.share((y - strokes.y()) * strokes.width() + x - strokes.x());
                if (more > 0) {
                    int i = (y - both.y()) * both.width() + x - both.x();
                    float before = (out[i] & 0xff) * (1 / 255f);
                    out[i] = (byte) Math.round(255 * (erases ? before * (1 - more) : before + more * (1 - before)));
                }
            }
        }
        return new Mask(picture, both, out);
    }

    /** The same at a smaller size: each pixel has the mean of those that it covers. */
    public Mask resized(Size smaller) {
        if (box == null) {
            return empty(smaller);
        }
        double across = (double) picture.width() / smaller.width();
        double down = (double) picture.height() / smaller.height();
        int x0 = (int) Math.floor(box.x() / across);
        int y0 = (int) Math.floor(box.y() / down);
        int x1 = Math.min(smaller.width(), (int) Math.ceil((box.x() + box.width()) / across));
        int y1 = Math.min(smaller.height(), (int) Math.ceil((box.y() + box.height()) / down));
        Region to = new Region(x0, y0, Math.max(1, x1 - x0), Math.max(1, y1 - y0));
        byte[] out = new byte[to.width() * to.height()];
        float[] columns = new float[box.width()];
        for (int y = 0; y < to.height(); y++) {
            double top = (y + y0) * down - box.y();
            Arrays.fill(columns, 0);
            for (int row = (int) Math.max(0, Math.floor(top)); row < Math.min(box.height(), top + down); row++) {
                float weight = (float) ((Math.min(row + 1, top + down) - Math.max(row, top)) / down);
                for (int x = 0; x < columns.length; x++) {
                    columns[x] += weight * (shares[row * columns.length + x] & 0xff);
                }
            }
            for (int x = 0; x < to.width(); x++) {
                double left = (x + x0) * across - box.x();
                double sum = 0;
                for (int column = (int) Math.max(0, Math.floor(left));
                        column < Math.min(columns.length, left + across);
                        column++) {
                    sum += (Math.min(column + 1, left + across) - Math.max(column, left)) * columns[column];
                }
                out[y * to.width() + x] = (byte) Math.min(255, Math.round(sum / across));
            }
        }
        return new Mask(smaller, to, out);
    }

    /**
     * The mask as depth takes it: where its edge follows an edge of depth, a pixel is painted as what lies at its depth around
     * it. A pixel that is partly of an object has the depth of one side, and moving that by a share would leave it
     * between the two, as a spot that is sharp or hangs in the air.
     *
     * @param nearness of the picture, before any touch-up
     */
    public Mask alongDepth(Plane nearness) {
        return new AlongDepth(this, nearness).whole();
    }

    /**
     * The same, when it is known for a mask of which this one is a change.
     *
     * @param before another mask of the picture
     * @param along that one along depth
     */
    public Mask alongDepth(Plane nearness, Mask before, Mask along) {
        Region changed = difference(before, this);
        return changed == null ? along : new AlongDepth(this, nearness).changed(changed, along);
    }

    /** Around all that differs between two masks of one picture; null when nothing does. */
    public static @Nullable Region difference(Mask a, Mask b) {
        Region both = a == b ? null : Region.around(a.box, b.box);
        if (both == null) {
            return null;
        }
        byte[] own = new byte[both.width()];
        byte[] other = new byte[both.width()];
        int top = -1;
        int bottom = 0;
        int left = both.width();
        int right = 0;
        for (int y = 0; y < both.height(); y++) {
            a.row(y + both.y(), both, own);
            b.row(y + both.y(), both, other);
            int first = Arrays.mismatch(own, other);
            if (first >= 0) {
                int last = own.length - 1;
                while (own[last] == other[last]) {
                    last--;
                }
                top = top < 0 ? y : top;
                bottom = y;
                left = Math.min(left, first);
                right = Math.max(right, last);
            }
        }
        return top < 0 ? null : new Region(both.x() + left, both.y() + top, right - left + 1, bottom - top + 1);
    }

    /** The shares of one row of {@code within}, which holds the box. */
    private void row(int y, Region within, byte[] out) {
        Arrays.fill(out, (byte) 0);
        if (box != null && y >= box.y() && y < box.y() + box.height()) {
            System.arraycopy(shares, (y - box.y()) * box.width(), out, box.x() - within.x(), box.width());
        }
    }
}
