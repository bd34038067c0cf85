package app.yubble.core.touchup;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.Arrays;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Lays the edges of a mask along those of depth; see {@link Mask#alongDepth(Plane)}. */
final class AlongDepth {
    /** Pixels around a mask's edge in which depth is looked at. */
    private static final int NEXT = 3;
    /** Change of a mask, in 255ths, that makes an edge: half. */
    private static final int STEEP = 127;
    /** Change of nearness over two pixels that makes an edge; by eye on the figurine. */
    private static final float DEPTH_EDGE = 0.04f;

    private final Mask mask;
    private final Plane nearness;
    private final Size picture;
    private final @Nullable Region box;

    AlongDepth(Mask mask, Plane nearness) {
        this.mask = mask;
        this.nearness = nearness;
        picture = mask.picture();
        box = mask.box();
    }

    Mask whole() {
        return box == null ? mask : changed(box, Mask.empty(picture));
    }

    /**
     * @param part in which the mask is another one than it was
     * @param known that one along depth
     */
    Mask changed(Region part, Mask known) {
        return drawn(part.grown(NEXT, picture), known);
    }

    /** @param known what is right outside of {@code part} */
    private Mask drawn(Region part, Mask known) {
        Region around = box == null ? null : box.grown(NEXT, picture);
        Region drawn = around == null ? null : around.meet(part);
        if (around == null) {
            return mask;
        }
        Mask kept = known.within(around);
        byte[] out = new byte[around.width() * around.height()];
        Region keptBox = kept.box();
        if (keptBox != null) {
            Mask.copy(kept.shares(), keptBox, out, around);
        }
        if (drawn != null) {
            Bands.ofRows(drawn.height(), (from, to) -> {
                byte[][] rows = new byte[3][drawn.width() + 2 * NEXT];
                for (int y = drawn.y() + from; y < drawn.y() + to; y++) {
                    for (int i = 0; i < rows.length; i++) {
                        read(y + (i - 1) * NEXT, drawn.x() - NEXT, rows[i]);
                    }
                    int at = (y - around.y()) * around.width() + drawn.x() - around.x();
                    follow(rows, drawn.x(), y, out, at);
                }
            });
        }
        return new Mask(picture, around, out);
    }

    /** @param rows shares above a row of pixels, on it and below it, and to either side */
    private void follow(byte[][] rows, int x, int y, byte[] out, int at) {
        for (int i = 0; i < rows[1].length - 2 * NEXT; i++) {
            int across = Math.abs((rows[1][i + 2 * NEXT] & 0xff) - (rows[1][i] & 0xff));
            int down = Math.abs((rows[2][i + NEXT] & 0xff) - (rows[0][i + NEXT] & 0xff));
            out[at + i] =
                    Math.max(across, down) > STEEP && isDepthEdge(x + i, y) ? atItsDepth(x + i, y) : rows[1][i + NEXT];
        }
    }

    /** Shares of a row from {@code x} on. Beyond the picture they are those of its border. */
    private void read(int y, int x, byte[] to) {
        int row = Math.max(0, Math.min(picture.height() - 1, y));
        Arrays.fill(to, (byte) 0);
        if (box != null && row >= box.y() && row < box.y() + box.height()) {
            int first = Math.max(box.x(), x);
            int count = Math.min(box.x() + box.width(), x + to.length) - first;
            if (count > 0) {
                System.arraycopy(mask.shares(), (row - box.y()) * box.width() + first - box.x(), to, first - x, count);
            }
        }
        for (int i = 0; i < NEXT && x + i < 0; i++) {
            to[i] = mask.byteAt(0, row);
        }
        for (int i = to.length - 1; x + i >= picture.width(); i--) {
            to[i] = mask.byteAt(picture.width() - 1, row);
        }
    }

    private boolean isDepthEdge(int x, int y) {
        int left = Math.max(0, x - NEXT);
        int right = Math.min(nearness.width() - 1, x + NEXT);
        int top = Math.max(0, y - NEXT);
        int bottom = Math.min(nearness.height() - 1, y + NEXT);
        return Math.abs(nearness.at(right, y) - nearness.at(left, y)) > DEPTH_EDGE
                || Math.abs(nearness.at(x, bottom) - nearness.at(x, top)) > DEPTH_EDGE;
    }

    private byte atItsDepth(int x, int y) {
        Region own = Objects.requireNonNull(box);
        float[] near = nearness.samples();
        float wanted = nearness.at(x, y);
        int sum = 0;
        int count = 0;
        for (int v = Math.max(0, y - NEXT); v <= Math.min(picture.height() - 1, y + NEXT); v++) {
            boolean painted = v >= own.y() && v < own.y() + own.height();
            int row = (v - own.y()) * own.width() - own.x();
            for (int u = Math.max(0, x - NEXT); u <= Math.min(picture.width() - 1, x + NEXT); u++) {
                if (Math.abs(near[v * picture.width() + u] - wanted) < DEPTH_EDGE / 2) {
                    boolean inside = painted && u >= own.x() && u < own.x() + own.width();
                    sum += inside ? mask.shares()[row + u] & 0xff : 0;
                    count++;
                }
            }
        }
        return (byte) Math.round(Math.max(0, Math.min(255, 3f * sum / count - 255)));
    }
}
