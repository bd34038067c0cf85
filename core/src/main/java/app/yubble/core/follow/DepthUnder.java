package app.yubble.core.follow;

import app.yubble.core.raster.Plane;
import java.util.Arrays;

/** The depth of the thing that a point lies on. */
public final class DepthUnder {
    /** Share of the longer side that is looked at around it; by eye on heads and lamps of the demo clip. */
    private static final double AROUND = 0.008;
    /** Nearness within which samples are of one thing. */
    private static final double SAME = 0.04;

    private DepthUnder() {}

    /**
     * The median of what around the point has nearly the depth of its nearest three by three samples: a background that is seen beside a
     * thin thing does not count.
     *
     * @param x share of the width
     * @param y share of the height
     */
    public static double of(Plane nearness, double x, double y) {
        int px = (int) Math.max(0, Math.min(nearness.width() - 1, Math.floor(x * nearness.width())));
        int py = (int) Math.max(0, Math.min(nearness.height() - 1, Math.floor(y * nearness.height())));
        double middle = median(nearness, px, py, 1, 0, Double.MAX_VALUE);
        int radius = (int) Math.max(1, Math.round(AROUND * nearness.size().longSide()));
        return median(nearness, px, py, radius, middle, SAME);
    }

    private static double median(Plane nearness, int px, int py, int radius, double middle, double most) {
        float[] found = new float[(2 * radius + 1) * (2 * radius + 1)];
        int count = 0;
        for (int y = Math.max(0, py - radius); y <= Math.min(nearness.height() - 1, py + radius); y++) {
            for (int x = Math.max(0, px - radius); x <= Math.min(nearness.width() - 1, px + radius); x++) {
                float value = nearness.samples()[y * nearness.width() + x];
                if (Math.abs(value - middle) <= most) {
                    found[count++] = value;
                }
            }
        }
        Arrays.sort(found, 0, count);
        return count == 0 ? middle : found[count / 2];
    }
}
