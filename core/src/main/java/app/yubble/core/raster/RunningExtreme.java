package app.yubble.core.raster;

/**
 * Largest or smallest sample in a window around each pixel; outside the plane there is nothing.
 *
 * <p>van Herk, "A fast algorithm for local minimum and maximum filters on rectangular and octagonal kernels" (Pattern
 * Recognition Letters 13, 1992): lines in four directions one after the other make an octagon, at a cost that does not
 * grow with its radius.
 */
public final class RunningExtreme {
    // Share of the radius for the slanting lines that makes the octagon regular.
    private static final double SLANTING = 1 - 1 / Math.sqrt(2);

    private RunningExtreme() {}

    /** @param largest true for the largest sample, false for the smallest */
    public static Plane octagon(Plane source, int radius, boolean largest) {
        if (radius < 0) {
            throw new IllegalArgumentException("radius must not be negative, found " + radius);
        }
        int slanting = (int) Math.round(radius * SLANTING);
        int level = radius - 2 * slanting;
        Plane out = lines(source, 1, 0, level, largest);
        out = lines(out, 0, 1, level, largest);
        out = lines(out, 1, 1, slanting, largest);
        return lines(out, 1, -1, slanting, largest);
    }

    /** Along every line in one direction; the window is 2 * radius + 1 steps long. */
    private static Plane lines(Plane source, int dx, int dy, int radius, boolean largest) {
        if (radius == 0) {
            return source;
        }
        int width = source.width();
        int height = source.height();
        Plane out = new Plane(source.size());
        int starts = dx == 0 ? width : dy == 0 ? height : width + height - 1;
        int step = dy * width + dx;
        Bands.ofRows(starts, (from, to) -> {
            float[] line = new float[Math.max(width, height)];
            float[] ahead = new float[line.length];
            float[] behind = new float[line.length];
            for (int start = from; start < to; start++) {
                int x = dx == 0 ? start : dy == 0 ? 0 : Math.max(0, start - height + 1);
                int y = dx == 0
                        ? 0
                        : dy == 0 ? start : dy > 0 ? Math.max(0, height - 1 - start) : Math.min(height - 1, start);
                int length = Math.min(
                        dx == 0 ? Integer.MAX_VALUE : width - x,
                        dy == 0 ? Integer.MAX_VALUE : dy > 0 ? height - y : y + 1);
                int first = y * width + x;
                for (int k = 0; k < length; k++) {
                    float sample = source.samples()[first + k * step];
                    line[k] = largest ? sample : -sample;
                }
                extreme(line, ahead, behind, length, radius);
                for (int k = 0; k < length; k++) {
                    out.samples()[first + k * step] = largest ? line[k] : -line[k];
                }
            }
        });
        return out;
    }

    // Running maxima within blocks of the window's length, forwards and backwards; a window is the end of one block and
    // the beginning of the next.
    private static void extreme(float[] line, float[] forwards, float[] backwards, int length, int radius) {
        int block = 2 * radius + 1;
        for (int k = 0; k < length; k++) {
            forwards[k] = k % block == 0 ? line[k] : Math.max(forwards[k - 1], line[k]);
        }
        for (int k = length - 1; k >= 0; k--) {
            backwards[k] = k == length - 1 || (k + 1) % block == 0 ? line[k] : Math.max(backwards[k + 1], line[k]);
        }
        for (int k = 0; k < length; k++) {
            int first = Math.max(0, k - radius);
            int last = Math.min(length - 1, k + radius);
            boolean whole = first / block == last / block;
            line[k] = whole && first % block == 0
                    ? forwards[last]
                    : whole ? backwards[first] : Math.max(backwards[first], forwards[last]);
        }
    }
}
