package app.yubble.core.raster;

/**
 * Mean over the square of side {@code 2 * radius + 1} around each pixel; at the border, over the part inside.
 *
 * <p>Running sums along rows and columns: the cost does not grow with the radius. The sums are doubles, so that a row
 * of 100-megapixel size keeps its precision.
 */
public final class BoxMean {
    private BoxMean() {}

    public static Plane of(Plane source, int radius) {
        if (radius < 0) {
            throw new IllegalArgumentException("radius must not be negative, found " + radius);
        }
        if (radius == 0) {
            return source;
        }
        return columns(rows(source, radius), radius);
    }

    private static Plane rows(Plane source, int radius) {
        int width = source.width();
        Plane out = new Plane(source.size());
        float[] in = source.samples();
        float[] to = out.samples();
        Bands.ofRows(source.height(), (from, until) -> {
            for (int y = from; y < until; y++) {
                int row = y * width;
                double sum = 0;
                int right = Math.min(radius, width - 1);
                for (int x = 0; x <= right; x++) {
                    sum += in[row + x];
                }
                for (int x = 0; x < width; x++) {
                    int first = Math.max(0, x - radius);
                    int last = Math.min(width - 1, x + radius);
                    to[row + x] = (float) (sum / (last - first + 1));
                    if (x + radius + 1 < width) {
                        sum += in[row + x + radius + 1];
                    }
                    if (x - radius >= 0) {
                        sum -= in[row + x - radius];
                    }
                }
            }
        });
        return out;
    }

    private static Plane columns(Plane source, int radius) {
        int width = source.width();
        int height = source.height();
        Plane out = new Plane(source.size());
        float[] in = source.samples();
        float[] to = out.samples();
        Bands.ofRows(height, (from, until) -> {
            double[] sums = new double[width];
            for (int y = Math.max(0, from - radius); y <= Math.min(height - 1, from + radius); y++) {
                for (int x = 0; x < width; x++) {
                    sums[x] += in[y * width + x];
                }
            }
            for (int y = from; y < until; y++) {
                int rows = Math.min(height - 1, y + radius) - Math.max(0, y - radius) + 1;
                double share = 1.0 / rows;
                for (int x = 0; x < width; x++) {
                    to[y * width + x] = (float) (sums[x] * share);
                }
                if (y + radius + 1 < height) {
                    int entering = (y + radius + 1) * width;
                    for (int x = 0; x < width; x++) {
                        sums[x] += in[entering + x];
                    }
                }
                if (y - radius >= 0) {
                    int leaving = (y - radius) * width;
                    for (int x = 0; x < width; x++) {
                        sums[x] -= in[leaving + x];
                    }
                }
            }
        });
        return out;
    }
}
