package app.yubble.core.raster;

/**
 * Mean over the square of side {@code 2 * radius + 1} around each pixel; at the border, over the part inside.
 *
 * <p>Running sums along rows and columns: the cost does not grow with the radius. The sums are doubles, so that a row
 * of 100-megapixel size keeps its precision.
 */
public final class BoxMean {
    private static final int MOST_ADDED = 3;

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
            float[] line = new float[width];
            float[] sums = new float[width];
            for (int y = from; y < until; y++) {
                System.arraycopy(in, y * width, line, 0, width);
                if (radius <= MOST_ADDED) {
                    added(line, sums, radius);
                } else {
                    running(line, sums, radius);
                }
                System.arraycopy(sums, 0, to, y * width, width);
            }
        });
        return out;
    }

    /** Every neighbour is added for all pixels at once, which the processor does many at a time. */
    private static void added(float[] line, float[] means, int radius) {
        int width = line.length;
        System.arraycopy(line, 0, means, 0, width);
        for (int k = 1; k <= radius; k++) {
            for (int x = k; x < width; x++) {
                means[x] += line[x - k];
            }
            for (int x = 0; x < width - k; x++) {
                means[x] += line[x + k];
            }
        }
        float share = 1f / (2 * radius + 1);
        for (int x = 0; x < width; x++) {
            means[x] *= share;
        }
        // At the border there are fewer.
        for (int x = 0; x < Math.min(radius, width); x++) {
            means[x] *= (2 * radius + 1f) / (Math.min(width - 1, x + radius) + 1);
        }
        for (int x = Math.max(radius, width - radius); x < width; x++) {
            means[x] *= (2 * radius + 1f) / (width - Math.max(0, x - radius));
        }
    }

    private static void running(float[] line, float[] means, int radius) {
        int width = line.length;
        double sum = 0;
        for (int x = 0; x <= Math.min(radius, width - 1); x++) {
            sum += line[x];
        }
        double share = 1.0 / (2 * radius + 1);
        for (int x = 0; x < width; x++) {
            if (x >= radius && x < width - radius - 1) {
                means[x] = (float) (sum * share);
                sum += line[x + radius + 1] - (double) line[x - radius];
                continue;
            }
            means[x] = (float) (sum / (Math.min(width - 1, x + radius) - Math.max(0, x - radius) + 1));
            sum += x + radius + 1 < width ? line[x + radius + 1] : 0;
            sum -= x - radius >= 0 ? line[x - radius] : 0;
        }
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
