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
            int y = from;
            for (; y + 3 < until; y += 4) {
                running(in, to, y * width, width, radius);
            }
            for (; y < until; y++) {
                running(in, to, y * width, width, radius, 1);
            }
        });
        return out;
    }

    /** Four rows side by side: each sum waits for the one before, so one row alone leaves the processor idle. */
    private static void running(float[] in, float[] to, int a, int width, int radius) {
        int inside = width - radius - 1;
        if (inside <= radius) {
            running(in, to, a, width, radius, 4);
            return;
        }
        int b = a + width;
        int c = b + width;
        int d = c + width;
        double[] sums = {
            border(in, to, a, radius), border(in, to, b, radius), border(in, to, c, radius), border(in, to, d, radius)
        };
        double share = 1.0 / (2 * radius + 1);
        double sa = sums[0];
        double sb = sums[1];
        double sc = sums[2];
        double sd = sums[3];
        for (int x = radius; x < inside; x++) {
            to[a + x] = (float) (sa * share);
            to[b + x] = (float) (sb * share);
            to[c + x] = (float) (sc * share);
            to[d + x] = (float) (sd * share);
            sa += in[a + x + radius + 1] - (double) in[a + x - radius];
            sb += in[b + x + radius + 1] - (double) in[b + x - radius];
            sc += in[c + x + radius + 1] - (double) in[c + x - radius];
            sd += in[d + x + radius + 1] - (double) in[d + x - radius];
        }
        end(in, to, a, width, radius, sa);
        end(in, to, b, width, radius, sb);
        end(in, to, c, width, radius, sc);
        end(in, to, d, width, radius, sd);
    }

    /** The means of a row's first pixels; returns the sum around the first that has all neighbours. */
    private static double border(float[] in, float[] to, int row, int radius) {
        double sum = 0;
        for (int x = 0; x < radius; x++) {
            sum += in[row + x];
        }
        for (int x = 0; x < radius; x++) {
            sum += in[row + x + radius];
            to[row + x] = (float) (sum / (x + radius + 1));
        }
        return sum + in[row + 2 * radius];
    }

    /** The means from the last pixel that has all neighbours to the end of the row. */
    private static void end(float[] in, float[] to, int row, int width, int radius, double sum) {
        for (int x = width - radius - 1; x < width; x++) {
            to[row + x] = (float) (sum / (width - x + radius));
            sum -= in[row + x - radius];
        }
    }

    /** Rows of any width, one after the other. */
    private static void running(float[] in, float[] to, int first, int width, int radius, int rows) {
        for (int row = first; row < first + rows * width; row += width) {
            double sum = 0;
            for (int x = 0; x <= Math.min(radius, width - 1); x++) {
                sum += in[row + x];
            }
            for (int x = 0; x < width; x++) {
                int neighbours = Math.min(width - 1, x + radius) - Math.max(0, x - radius) + 1;
                to[row + x] = (float) (sum / neighbours);
                sum += x + radius + 1 < width ? in[row + x + radius + 1] : 0;
                sum -= x - radius >= 0 ? in[row + x - radius] : 0;
            }
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
