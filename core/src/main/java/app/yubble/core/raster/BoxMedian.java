package app.yubble.core.raster;

import java.util.Arrays;

/**
 * Median over the square of side {@code 2 * radius + 1} around each pixel: takes away what is thin, and keeps edges. A histogram moves along
 * each row (Huang, Yang and Tang, "A fast two-dimensional median filtering algorithm", 1979).
 */
public final class BoxMedian {
    /** Values told apart: as many as an 8-bit picture has. */
    private static final int BINS = 256;

    private BoxMedian() {}

    /** @param source in [0,1] */
    public static Plane of(Plane source, int radius) {
        Plane out = new Plane(source.size());
        int width = source.width();
        byte[] bins = new byte[source.samples().length];
        for (int i = 0; i < bins.length; i++) {
            bins[i] = (byte) Math.round(Math.max(0, Math.min(1, source.samples()[i])) * (BINS - 1));
        }
        Bands.ofRows(source.height(), (from, to) -> {
            int[] counts = new int[BINS];
            for (int y = from; y < to; y++) {
                int top = Math.max(0, y - radius);
                int bottom = Math.min(source.height() - 1, y + radius);
                Arrays.fill(counts, 0);
                int all = 0;
                for (int x = 0; x < Math.min(radius, width); x++) {
                    all += column(bins, width, x, top, bottom, counts, 1);
                }
                for (int x = 0; x < width; x++) {
                    if (x + radius < width) {
                        all += column(bins, width, x + radius, top, bottom, counts, 1);
                    }
                    if (x - radius > 0) {
                        all += column(bins, width, x - radius - 1, top, bottom, counts, -1);
                    }
                    out.samples()[y * width + x] = middle(counts, all) / (float) (BINS - 1);
                }
            }
        });
        return out;
    }

    /** How many more there are. */
    private static int column(byte[] bins, int width, int x, int top, int bottom, int[] counts, int sign) {
        for (int y = top; y <= bottom; y++) {
            counts[bins[y * width + x] & 0xff] += sign;
        }
        return sign * (bottom - top + 1);
    }

    private static int middle(int[] counts, int all) {
        int below = 0;
        int bin = -1;
        while (2 * below < all) {
            below += counts[++bin];
        }
        return bin;
    }
}
