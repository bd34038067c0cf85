package app.yubble.core.focus;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.BoxMean;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;

/**
 * How soft the edges of a photo already are: nothing can make sharp what the lens left soft.
 *
 * <p>An edge that is blurred once more by a known amount loses the more of its slope the sharper it was; the ratio of the two
 * slopes gives its width (Zhuo and Sim, Defocus map estimation from a single image, Pattern Recognition 44, 2011).
 */
public final class EdgeWidth {
    /** Pixels at the size that is looked at. Wider edges are shadows and gradients. */
    private static final float MOST = 6;
    // Of lightness over two pixels: less is grain or a shadow, and says nothing of the lens.
    private static final float LEAST_SLOPE = 0.07f;
    // Three means of 3 x 3 pixels are a blur of variance 2.
    private static final int AGAIN = 3;
    /**
     * Of the blur that is laid on once more; the width follows from how much weaker the edge gets (Zhuo and Sim
     * 2011).
     */
    private static final double AGAIN_VARIANCE = 2;

    private EdgeWidth() {}

    /**
     * Width of the edge at every pixel that lies on one, at most {@value #MOST} px; 0 where there is none.
     *
     * @param light perceptual lightness, as {@link app.yubble.core.raster.Picture#lightness} gives it
     */
    public static Plane of(Plane light) {
        Plane again = light;
        for (int i = 0; i < AGAIN; i++) {
            again = BoxMean.of(again, 1);
        }
        Plane blurred = again;
        Plane out = new Plane(light.size());
        int height = light.height();
        Bands.ofRows(height, (from, to) -> {
            for (int y = Math.max(1, from); y < Math.min(height - 1, to); y++) {
                for (int x = 1; x < light.width() - 1; x++) {
                    out.samples()[y * light.width() + x] = width(light, blurred, x, y);
                }
            }
        });
        return out;
    }

    /** The sharpest edge in each cell of a smaller map; 0 where a cell has none. */
    public static Plane sharpest(Plane widths, Size size) {
        Plane out = new Plane(size);
        for (int y = 0; y < widths.height(); y++) {
            for (int x = 0; x < widths.width(); x++) {
                float width = widths.at(x, y);
                int to = y * size.height() / widths.height() * size.width() + x * size.width() / widths.width();
                float known = out.samples()[to];
                out.samples()[to] = width == 0 || known > 0 && known < width ? known : width;
            }
        }
        return out;
    }

    private static float width(Plane light, Plane blurred, int x, int y) {
        float across = light.at(x + 1, y) - light.at(x - 1, y);
        float down = light.at(x, y + 1) - light.at(x, y - 1);
        float slope = length(across, down);
        if (slope < LEAST_SLOPE || !isRidge(light, x, y, across, down, slope)) {
            return 0;
        }
        float after = length(blurred.at(x + 1, y) - blurred.at(x - 1, y), blurred.at(x, y + 1) - blurred.at(x, y - 1));
        double ratio = slope / Math.max(1e-6, after);
        double found = ratio <= 1 ? MOST : Math.sqrt(AGAIN_VARIANCE / (ratio * ratio - 1));
        return (float) Math.max(0.1, Math.min(MOST, found));
    }

    /** Whether the slope is not steeper on either side of the edge. */
    private static boolean isRidge(Plane light, int x, int y, float across, float down, float slope) {
        int dx = Math.abs(across) > 0.4f * Math.abs(down) ? (across > 0 ? 1 : -1) : 0;
        int dy = Math.abs(down) > 0.4f * Math.abs(across) ? (down > 0 ? 1 : -1) : 0;
        return slopeAt(light, x + dx, y + dy) <= slope && slopeAt(light, x - dx, y - dy) <= slope;
    }

    private static float slopeAt(Plane light, int x, int y) {
        int left = Math.max(0, x - 1);
        int right = Math.min(light.width() - 1, x + 1);
        int above = Math.max(0, y - 1);
        int below = Math.min(light.height() - 1, y + 1);
        return length(light.at(right, y) - light.at(left, y), light.at(x, below) - light.at(x, above));
    }

    /** Lightness lies in 0 to 1, so nothing overflows and the careful way of the library, many times slower, is not needed. */
    private static float length(float across, float down) {
        return (float) Math.sqrt(across * across + down * down);
    }
}
