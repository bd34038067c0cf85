package app.yubble.core.inspect;

import app.yubble.core.raster.Picture;

/**
 * Areas of one look: Felzenszwalb and Huttenlocher, "Efficient Graph-Based Image Segmentation" (IJCV 2004), on the square roots
 * of linear light. Departure: edges are sorted into a thousand steps of difference rather than exactly.
 */
final class Segments {
    /** Of colour distance, for sorting by counting. */
    private static final int STEPS = 1024;
    /** Pixels; smaller areas join their neighbour (Felzenszwalb and Huttenlocher 2004). */
    private static final int SMALLEST = 24;

    private final int[] parents;
    private final int[] sizes;
    private final float[] widest;
    private final float scale;

    private Segments(int count, float scale) {
        this.scale = scale;
        parents = new int[count];
        sizes = new int[count];
        widest = new float[count];
        for (int i = 0; i < count; i++) {
            parents[i] = i;
            sizes[i] = 1;
        }
    }

    /**
     * For every pixel the number of its area.
     *
     * @param scale the paper's k, for colours in [0,1]: the larger, the larger the areas
     * @param smooth against grain; what is a few pixels wide may run together
     */
    static int[] of(Picture picture, float scale, boolean smooth) {
        int width = picture.width();
        int height = picture.height();
        float[][] colours = smooth ? smoothed(colours(picture), width, height) : colours(picture);
        Segments out = new Segments(width * height, scale);
        int[] counts = new int[STEPS + 1];
        int across = 1;
        for (int pass = 0; pass < 2; pass++) {
            int step = pass == 0 ? across : width;
            for (int i = 0; i + step < width * height; i++) {
                if (pass == 1 || (i + 1) % width != 0) {
                    counts[step(colours, i, i + step) + 1]++;
                }
            }
        }
        for (int k = 0; k < STEPS; k++) {
            counts[k + 1] += counts[k];
        }
        int[] order = new int[counts[STEPS]];
        for (int pass = 0; pass < 2; pass++) {
            int step = pass == 0 ? across : width;
            for (int i = 0; i + step < width * height; i++) {
                if (pass == 1 || (i + 1) % width != 0) {
                    order[counts[step(colours, i, i + step)]++] = 2 * i + pass;
                }
            }
        }
        for (int edge : order) {
            int a = edge / 2;
            int b = a + (edge % 2 == 0 ? across : width);
            out.join(a, b, (float) step(colours, a, b) / STEPS);
        }
        // As the authors do: what grain has left over goes to its nearest neighbour in colour.
        for (int edge : order) {
            out.absorb(edge / 2, edge / 2 + (edge % 2 == 0 ? across : width));
        }
        int[] labels = new int[width * height];
        for (int i = 0; i < labels.length; i++) {
            labels[i] = out.root(i);
        }
        return labels;
    }

    static float[][] colours(Picture picture) {
        return new float[][] {
            picture.red().rooted().samples(),
            picture.green().rooted().samples(),
            picture.blue().rooted().samples()
        };
    }

    /** A quarter, a half and a quarter in both directions: the paper's smoothing, against grain. */
    private static float[][] smoothed(float[][] colours, int width, int height) {
        float[][] out = new float[colours.length][];
        for (int c = 0; c < out.length; c++) {
            float[] across = new float[width * height];
            for (int i = 0; i < across.length; i++) {
                int x = i % width;
                float before = colours[c][x > 0 ? i - 1 : i];
                across[i] = (before + 2 * colours[c][i] + colours[c][x < width - 1 ? i + 1 : i]) / 4;
            }
            out[c] = new float[across.length];
            for (int i = 0; i < across.length; i++) {
                float above = across[i >= width ? i - width : i];
                out[c][i] = (above + 2 * across[i] + across[i + width < across.length ? i + width : i]) / 4;
            }
        }
        return out;
    }

    static float distance(float[][] colours, int a, int b) {
        float sum = 0;
        for (float[] channel : colours) {
            float d = channel[a] - channel[b];
            sum += d * d;
        }
        return (float) Math.sqrt(sum);
    }

    private static int step(float[][] colours, int a, int b) {
        return (int) Math.min(STEPS - 1, distance(colours, a, b) * STEPS);
    }

    private void join(int a, int b, float difference) {
        int first = root(a);
        int second = root(b);
        if (first != second
                && difference <= widest[first] + scale / sizes[first]
                && difference <= widest[second] + scale / sizes[second]) {
            parents[second] = first;
            sizes[first] += sizes[second];
            widest[first] = Math.max(difference, Math.max(widest[first], widest[second]));
        }
    }

    private void absorb(int a, int b) {
        int first = root(a);
        int second = root(b);
        if (first != second && Math.min(sizes[first], sizes[second]) < SMALLEST) {
            parents[second] = first;
            sizes[first] += sizes[second];
        }
    }

    private int root(int i) {
        int at = i;
        while (parents[at] != at) {
            parents[at] = parents[parents[at]];
            at = parents[at];
        }
        return at;
    }
}
