package app.yubble.core.inspect;

import app.yubble.core.raster.Flood;
import app.yubble.core.raster.Plane;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;

/** Pieces of one look and without a step of depth, and the borders between them. */
final class Fragments {
    /** Pixels; smaller ones are noise. */
    private static final int SMALLEST = 12;

    private final int width;
    private final int[] labels;
    private final int[] sizes;
    private final Map<Long, Border> borders = new HashMap<>();

    /** What two fragments have in common: its length, how clearly the picture shows it, and the depths on both sides. */
    static final class Border {
        int length;
        double across;
        double beside;
        double firstDepth;
        double secondDepth;

        /** How far the picture has no edge here, in [0,1]. */
        double unseen() {
            double contrast = across / length;
            double texture = beside / length;
            double clear = Math.exp(-contrast * contrast / (CLEAR * CLEAR));
            double above = (contrast + FAINT) / (texture + FAINT);
            return clear * Math.max(0, Math.min(1, (MARKED - above) / (MARKED - UNMARKED)));
        }

        /**
         * Colour distance of an edge that everybody sees. By the made faults of EdgeInspectorTest, as the next ones.
         */
        private static final double CLEAR = 0.08;
        /** Colour distance that is grain. */
        private static final double FAINT = 0.006;
        // An edge stands out from what lies beside it by this much when it is one, and by less than that when not.
        private static final double MARKED = 1.9;
        /** Contrast over texture up to which a border is not seen. */
        private static final double UNMARKED = 1.2;
    }

    private Fragments(int width, int[] labels, int[] sizes) {
        this.width = width;
        this.labels = labels;
        this.sizes = sizes;
    }

    int count() {
        return sizes.length;
    }

    int size(int fragment) {
        return sizes[fragment];
    }

    int[] labels() {
        return labels;
    }

    Map<Long, Border> borders() {
        return borders;
    }

    static int first(long pair) {
        return (int) (pair >> 32);
    }

    static int second(long pair) {
        return (int) pair;
    }

    /** @param step of nearness between neighbours that parts them */
    static Fragments of(int[] segments, float[][] colours, Plane nearness, float step) {
        int width = nearness.width();
        int[] labels = new int[segments.length];
        int[] sizes = new int[1024];
        Flood flood = new Flood(nearness.size());
        float[] depth = nearness.samples();
        int count = 0;
        for (int i = 0; i < labels.length; i++) {
            if (!flood.isTaken(i)) {
                if (count == sizes.length) {
                    sizes = Arrays.copyOf(sizes, 2 * count);
                }
                int[] piece = flood.from(
                        i,
                        false,
                        (from, to) -> segments[to] == segments[from] && Math.abs(depth[to] - depth[from]) <= step);
                for (int place : piece) {
                    labels[place] = count;
                }
                sizes[count++] = piece.length;
            }
        }
        Fragments out = new Fragments(width, labels, Arrays.copyOf(sizes, count));
        out.absorb(colours, depth);
        out.measure(colours, depth);
        return out;
    }

    /** Specks go to the neighbour that is most like them in colour and depth. */
    private void absorb(float[][] colours, float[] depth) {
        for (int pass = 0; pass < 3; pass++) {
            for (int i = 0; i < labels.length; i++) {
                if (sizes[labels[i]] >= SMALLEST) {
                    continue;
                }
                int best = -1;
                float least = Float.MAX_VALUE;
                int x = i % width;
                for (int d = 0; d < 4; d++) {
                    int to = d == 0 ? i - width : d == 1 ? i + width : d == 2 ? i - 1 : i + 1;
                    if (to < 0 || to >= labels.length || d == 2 && x == 0 || d == 3 && x == width - 1) {
                        continue;
                    }
                    if (sizes[labels[to]] >= SMALLEST) {
                        float unlike = Segments.distance(colours, i, to) + 2 * Math.abs(depth[i] - depth[to]);
                        if (unlike < least) {
                            least = unlike;
                            best = labels[to];
                        }
                    }
                }
                if (best >= 0) {
                    sizes[labels[i]]--;
                    labels[i] = best;
                    sizes[best]++;
                }
            }
        }
    }

    private void measure(float[][] colours, float[] depth) {
        int height = labels.length / width;
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                int i = y * width + x;
                if (x + 1 < width && labels[i] != labels[i + 1]) {
                    add(colours, depth, i, 1, x, width);
                }
                if (y + 1 < height && labels[i] != labels[i + width]) {
                    add(colours, depth, i, width, y, height);
                }
            }
        }
    }

    /** A pair of neighbours: the pixel and the one a step on. Contrast is read over three pixels, for edges are smoothed. */
    private void add(float[][] colours, float[] depth, int i, int step, int at, int end) {
        int one = at >= 1 ? i - step : i;
        int four = at >= 4 ? i - 4 * step : one;
        int two = at + 2 < end ? i + 2 * step : i + step;
        int five = at + 5 < end ? i + 5 * step : two;
        boolean ordered = labels[i] < labels[i + step];
        long pair = ordered ? (long) labels[i] << 32 | labels[i + step] : (long) labels[i + step] << 32 | labels[i];
        Border border = borders.computeIfAbsent(pair, key -> new Border());
        border.length++;
        border.across += Segments.distance(colours, one, two);
        border.beside += (Segments.distance(colours, four, one) + Segments.distance(colours, two, five)) / 2;
        // Depth is read a pixel inside, where it is not between the two.
        border.firstDepth += depth[ordered ? one : two];
        border.secondDepth += depth[ordered ? two : one];
    }
}
