package app.yubble.core.lens;

import org.jspecify.annotations.Nullable;

/**
 * A tile cut into soft layers along the blur radius, on one side of the sharp band.
 *
 * <p>A pixel between two steps belongs to both in proportion. What each layer needs is found through lists of the pixels
 * at each step, so that cutting all layers touches every pixel a few times, not once for each layer.
 */
final class LayerCut {
    private final float[] from;
    private final int width;
    private final int height;
    private final boolean inFront;
    private final float[] radii;
    /** The pixels outside the band, ordered by step, row by row within a step: y in the upper 16 bits, x in the lower. */
    private final int[] places;
    /** How far each of them is on the way to the next step, in [0,1]. */
    private final float[] toNext;
    /** Where the pixels of each step start. */
    private final int[] starts;

    /** Share of each cell that lies at or beyond step {@link #gatheredTo}, on level {@link #gatheredLevel}. */
    private float[][] gathered = new float[0][0];

    private int gatheredLevel = -1;
    private int gatheredTo;

    /**
     * @param from red, green, blue and signed radius, interleaved
     * @param side 1 for what lies behind the band, -1 for what lies in front
     * @param largest radius in the whole picture
     */
    LayerCut(float[] from, int width, int height, int side, float largest) {
        this.from = from;
        this.width = width;
        this.height = height;
        this.inFront = side < 0;
        this.radii = RadiusSteps.upTo(largest);
        int last = radii.length - 2;
        byte[] step = new byte[width * height];
        starts = new int[radii.length + 1];
        for (int i = 0; i < step.length; i++) {
            float radius = side * from[i * 4 + 3];
            if (radius > 0) {
                int j = Math.min(last, (int) Math.min(radius, 5));
                while (j < last && radii[j + 1] <= radius) {
                    j++;
                }
                step[i] = (byte) j;
                starts[j + 1]++;
            }
        }
        for (int j = 1; j < starts.length; j++) {
            starts[j] += starts[j - 1];
        }
        int[] next = starts.clone();
        places = new int[starts[radii.length]];
        toNext = new float[places.length];
        for (int y = 0, i = 0; y < height; y++) {
            for (int x = 0; x < width; x++, i++) {
                float radius = side * from[i * 4 + 3];
                if (radius > 0) {
                    int j = step[i];
                    int o = next[j]++;
                    places[o] = y << 16 | x;
                    toNext[o] = Math.min(1, (radius - radii[j]) / (radii[j + 1] - radii[j]));
                }
            }
        }
    }

    int count() {
        return radii.length;
    }

    float radius(int k) {
        return radii[k];
    }

    /** Layer k on its level, blurred and divided by what is not nearer; null when no pixel belongs to it. */
    @Nullable
    Layer blurredLayer(int k, int level, Disc disc) {
        int first = Integer.MAX_VALUE;
        int last = -1;
        for (int j = k - 1; j <= k; j++) {
            // Row by row within a step: the first and the last tell the rows.
            if (starts[j] < starts[j + 1]) {
                first = Math.min(first, places[starts[j]] >> 16);
                last = Math.max(last, places[starts[j + 1] - 1] >> 16);
            }
        }
        if (last < 0) {
            return null;
        }
        Disc.Spans spans = disc.spans(radii[k] / (1 << level), inFront);
        int firstRow = Math.max(0, (first >> level) - spans.reach());
        int lastRow = Math.min((height >> level) - 1, (last >> level) + spans.reach());
        return cut(k, level).blurred(spans, firstRow, lastRow);
    }

    private Layer cut(int k, int level) {
        Layer layer = new Layer(width >> level, height >> level);
        float share = 1f / (1 << 2 * level);
        addMembers(layer, k - 1, false, level, share);
        addMembers(layer, k, true, level, share);
        float[][] shown = layer.rows[Layer.NOT_NEARER];
        if (inFront) {
            // Nearer layers have the higher numbers: all but what lies beyond this one.
            gather(k + 1, level, share);
            for (int y = 0; y < shown.length; y++) {
                lessRow(gathered[y], shown[y]);
            }
            addShown(shown, k, -share, level, true);
        } else {
            gather(k, level, share);
            for (int y = 0; y < shown.length; y++) {
                System.arraycopy(gathered[y], 0, shown[y], 0, shown[y].length);
            }
            addShown(shown, k - 1, share, level, true);
        }
        return layer;
    }

    private static void lessRow(float[] taken, float[] left) {
        for (int i = 0; i < left.length; i++) {
            left[i] = 1f - taken[i];
        }
    }

    // Layers come in falling order, so on one level each step is added once.
    private void gather(int to, int level, float share) {
        if (level != gatheredLevel) {
            gathered = new float[height >> level][width >> level];
            gatheredLevel = level;
            gatheredTo = radii.length - 1;
        }
        for (; gatheredTo > to; gatheredTo--) {
            addShown(gathered, gatheredTo - 1, share, level, false);
        }
    }

    private void addMembers(Layer layer, int j, boolean own, int level, float share) {
        float[][] r = layer.rows[0];
        float[][] g = layer.rows[1];
        float[][] b = layer.rows[2];
        float[][] covered = layer.rows[Layer.COVERAGE];
        for (int o = starts[j]; o < starts[j + 1]; o++) {
            int x = places[o] & 0xffff;
            int y = places[o] >> 16;
            int i = (y * width + x) * 4;
            float coverage = share * (own ? 1 - toNext[o] : toNext[o]);
            x >>= level;
            y >>= level;
            r[y][x] += coverage * from[i];
            g[y][x] += coverage * from[i + 1];
            b[y][x] += coverage * from[i + 2];
            covered[y][x] += coverage;
        }
    }

    /** Adds the pixels at step j, whole or only their way to the next step. */
    private void addShown(float[][] shown, int j, float share, int level, boolean part) {
        for (int o = starts[j]; o < starts[j + 1]; o++) {
            int place = places[o];
            shown[place >> 16 + level][(place & 0xffff) >> level] += part ? share * toNext[o] : share;
        }
    }
}
