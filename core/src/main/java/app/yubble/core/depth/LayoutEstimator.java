package app.yubble.core.depth;

import app.yubble.core.raster.BoxMean;
import app.yubble.core.raster.GuidedFilter;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Quality;
import java.util.ArrayDeque;

/**
 * Depth from the layout of ordinary photos, without a network: the ground comes nearer downwards, what stands on it is
 * upright, the sky is farthest.
 *
 * <p>How: sky is the smooth, light or blue part connected to the upper edge. The horizon is the lower quartile of the
 * sky's lower edge, or two fifths down when there is no sky. Below it nearness grows linearly, as the inverse distance
 * of a level floor does; above it things stand upright and keep the horizon's nearness. A guided filter then puts the
 * changes on the picture's edges. It knows nothing of objects: what rises from the ground is drawn too far at its top.
 */
public final class LayoutEstimator implements DepthEstimator {
    /** Longer side of the map. */
    static final int WORKING_SIDE = 640;

    /** Nearness of the ground at the horizon; a photo with a sky has little that is farther. */
    private static final float AT_HORIZON = 0.12f;
    /** Nearness of the ground at the lower border; something may stand before it. */
    private static final float AT_BOTTOM = 0.95f;
    /** Variance of lightness below which the guided filter smooths: a tenth of white would be 0.01. */
    private static final float EPSILON = 0.002f;

    @Override
    public String name() {
        return "layout";
    }

    @Override
    public DepthEstimate estimate(Picture picture, Quality quality, Progress progress) {
        Size size = picture.size().fitting(WORKING_SIDE);
        Picture small = Resample.toSize(picture, size);
        progress.at(0.3);
        Plane light = small.lightness();
        boolean[] sky = sky(small, light);
        int horizon = horizon(sky, size);
        Plane raw = new Plane(size);
        for (int y = 0; y < size.height(); y++) {
            float below = Math.max(0, (y + 0.5f - horizon) / Math.max(1, size.height() - horizon));
            float above = Math.max(0, (horizon - y - 0.5f) / Math.max(1, horizon));
            float nearness = AT_HORIZON + (AT_BOTTOM - AT_HORIZON) * below - 0.5f * AT_HORIZON * above;
            for (int x = 0; x < size.width(); x++) {
                int i = y * size.width() + x;
                raw.samples()[i] = sky[i] ? 0 : nearness;
            }
        }
        progress.at(0.6);
        int radius = Math.max(2, size.longSide() / 40);
        Plane out = GuidedFilter.fit(light, raw, radius, EPSILON).apply(light);
        progress.at(1);
        return DepthEstimate.of(out);
    }

    private static boolean[] sky(Picture small, Plane light) {
        int width = small.width();
        int height = small.height();
        Plane smoothed = BoxMean.of(light, Math.max(1, width / 200));
        boolean[] sky = new boolean[width * height];
        ArrayDeque<Integer> open = new ArrayDeque<>();
        for (int x = 0; x < width; x++) {
            if (looksLikeSky(small, light, smoothed, x)) {
                sky[x] = true;
                open.add(x);
            }
        }
        while (!open.isEmpty()) {
            int at = open.remove();
            int x = at % width;
            int[] next = {at + width, x > 0 ? at - 1 : -1, x < width - 1 ? at + 1 : -1, at - width};
            for (int to : next) {
                if (to >= 0
                        && to < sky.length
                        && !sky[to]
                        && Math.abs(smoothed.samples()[to] - smoothed.samples()[at]) < 0.02f
                        && looksLikeSky(small, light, smoothed, to)) {
                    sky[to] = true;
                    open.add(to);
                }
            }
        }
        return sky;
    }

    private static boolean looksLikeSky(Picture small, Plane light, Plane smoothed, int i) {
        float r = small.red().samples()[i];
        float g = small.green().samples()[i];
        float b = small.blue().samples()[i];
        boolean smooth = Math.abs(light.samples()[i] - smoothed.samples()[i]) < 0.04f;
        boolean bluish = b > 1.15f * r && b >= g * 0.98f && light.samples()[i] > 0.12f;
        boolean bright = light.samples()[i] > 0.72f && b >= 0.9f * r;
        return smooth && (bluish || bright);
    }

    private static int horizon(boolean[] sky, Size size) {
        int[] lowest = new int[size.width()];
        int columns = 0;
        for (int x = 0; x < size.width(); x++) {
            int y = 0;
            while (y < size.height() && sky[y * size.width() + x]) {
                y++;
            }
            if (y > size.height() / 20) {
                lowest[columns++] = y;
            }
        }
        if (columns < size.width() / 4) {
            return size.height() * 2 / 5;
        }
        java.util.Arrays.sort(lowest, 0, columns);
        return Math.min(size.height() * 7 / 10, lowest[columns * 3 / 4]);
    }
}
