package app.yubble.core.inspect;

import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import app.yubble.core.touchup.Stroke;
import java.util.ArrayList;
import java.util.List;

/** Covers a piece of a picture with as few dabs as will do, the largest first; they cling to what they are put on. */
final class Dabs {
    /** A touch-up of more dabs could not be judged by a look. */
    private static final int MOST = 24;
    /** Share of a piece that the dabs cover. */
    private static final double ENOUGH = 0.97;
    // Beyond the piece, so that the paint reaches the edge that the picture has.
    private static final double MORE = 2.5;
    /** As tightly as the page's brush does at first. */
    private static final double CLING = 0.6;

    private Dabs() {}

    /**
     * @param inside row by row over {@code box}
     * @param size of the whole picture
     */
    static List<Stroke> over(boolean[] inside, Region box, Size size) {
        int width = box.width();
        int left = 0;
        for (boolean each : inside) {
            left += each ? 1 : 0;
        }
        int whole = left;
        boolean[] open = inside.clone();
        int[] depth = depths(inside, width);
        List<Stroke> out = new ArrayList<>();
        while (out.size() < MOST && left > (1 - ENOUGH) * whole) {
            int best = -1;
            for (int i = 0; i < open.length; i++) {
                if (open[i] && (best < 0 || depth[i] > depth[best])) {
                    best = i;
                }
            }
            double radius = depth[best] / 3.0 + MORE;
            int cx = best % width;
            int cy = best / width;
            for (int i = 0; i < open.length; i++) {
                if (open[i] && Math.hypot(i % width - cx, i / width - cy) <= radius) {
                    open[i] = false;
                    left--;
                }
            }
            Stroke.Brush brush = Stroke.Brush.of(Math.min(2, 2 * (radius + MORE) / size.longSide()))
                    .withCling(CLING);
            out.add(new Stroke(
                    brush,
                    (float) ((cx + box.x() + 0.5) / size.width()),
                    (float) ((cy + box.y() + 0.5) / size.height()),
                    1));
        }
        return out;
    }

    /** Three times the distance to the outside: the chamfer distance of Borgefors (1986) with steps of 3 and 4. */
    static int[] depths(boolean[] inside, int width) {
        int[] out = new int[inside.length];
        for (int i = 0; i < out.length; i++) {
            if (inside[i]) {
                int x = i % width;
                int least = 3 + (x > 0 ? out[i - 1] : 0);
                least = Math.min(least, 3 + (i >= width ? out[i - width] : 0));
                least = Math.min(least, 4 + (x > 0 && i >= width ? out[i - width - 1] : 0));
                out[i] = Math.min(least, 4 + (x < width - 1 && i >= width ? out[i - width + 1] : 0));
            }
        }
        for (int i = out.length - 1; i >= 0; i--) {
            if (inside[i]) {
                int x = i % width;
                boolean below = i + width < out.length;
                int least = Math.min(out[i], 3 + (x < width - 1 ? out[i + 1] : 0));
                least = Math.min(least, 3 + (below ? out[i + width] : 0));
                least = Math.min(least, 4 + (below && x < width - 1 ? out[i + width + 1] : 0));
                out[i] = Math.min(least, 4 + (below && x > 0 ? out[i + width - 1] : 0));
            }
        }
        return out;
    }
}
