package app.yubble.core.lens;

import java.util.Arrays;

/**
 * Lists the pixels of a band that lie on one side of the sharp band by their step of radius. Pixels of one step that is drawn at a
 * reduced size are listed together, as cells of that size: most of what is far out of focus is listed once for sixteen pixels.
 */
final class CellList {
    /** Levels of cells: single pixels, 2 x 2 and 4 x 4. */
    static final int LEVELS = 3;
    /** Pixels on a side of the largest cell. */
    private static final int STRIP = 1 << LEVELS - 1;

    private final TilePixels pixels;
    private final RadiusSteps steps;
    private final float sign;
    private final int first;
    /** By level of cells and row of them. */
    private final Line[][] lines = new Line[LEVELS][];

    /** Entries of one row, from left to right. */
    private static final class Line {
        private char[] columns = new char[32];
        private byte[] steps = new byte[32];
        private float[] radii = new float[32];
        private int count;

        void add(int column, int step, float radius) {
            if (count == columns.length) {
                columns = Arrays.copyOf(columns, 2 * count);
                steps = Arrays.copyOf(steps, 2 * count);
                radii = Arrays.copyOf(radii, 2 * count);
            }
            columns[count] = (char) column;
            steps[count] = (byte) step;
            radii[count++] = radius;
        }
    }

    private CellList(TilePixels pixels, RadiusSteps steps, boolean inFront, int first, int last) {
        this.pixels = pixels;
        this.steps = steps;
        this.first = first;
        sign = inFront ? -1 : 1;
        for (int level = 0; level < LEVELS; level++) {
            lines[level] = new Line[last - first >> level];
            Arrays.setAll(lines[level], row -> new Line());
        }
    }

    /**
     * By level of cells; places are in cells of it.
     *
     * @param first row of the band, a multiple of the largest cell's side
     * @param last row, exclusive
     */
    static Listed[] of(TilePixels pixels, RadiusSteps steps, boolean inFront, int first, int last) {
        CellList list = new CellList(pixels, steps, inFront, first, last);
        float[] least = new float[pixels.width];
        float[] most = new float[pixels.width];
        for (int y = first; y < last; y += STRIP) {
            list.findRange(y, least, most);
            list.addStrip(y, least, most);
        }
        Listed[] out = new Listed[LEVELS];
        Arrays.setAll(out, list::sorted);
        return out;
    }

    /** The least and the largest radius of every column of a strip. */
    private void findRange(int y, float[] least, float[] most) {
        float[] a = pixels.radius[y];
        float[] b = pixels.radius[y + 1];
        float[] c = pixels.radius[y + 2];
        float[] d = pixels.radius[y + 3];
        for (int x = 0; x < least.length; x++) {
            float top = sign * a[x];
            float upper = sign * b[x];
            float lower = sign * c[x];
            float bottom = sign * d[x];
            least[x] = Math.min(Math.min(top, upper), Math.min(lower, bottom));
            most[x] = Math.max(Math.max(top, upper), Math.max(lower, bottom));
        }
    }

    private void addStrip(int y, float[] least, float[] most) {
        for (int x = 0; x < least.length; x += STRIP) {
            float high = Math.max(Math.max(most[x], most[x + 1]), Math.max(most[x + 2], most[x + 3]));
            if (high > 0) {
                float low = Math.min(Math.min(least[x], least[x + 1]), Math.min(least[x + 2], least[x + 3]));
                addBlock(x, y, low, high);
            }
        }
    }

    // In small loops, not written out: until it is compiled a delivery of its own waits for it, and it is four times as
    // quick.
    private void addBlock(int x, int y, float low, float high) {
        if (!isOneCell(low, high, 2)) {
            for (int quad = 0; quad < 4; quad++) {
                addQuad(x + 2 * (quad & 1), y + (quad & 2));
            }
            return;
        }
        float sum = 0;
        for (int row = y; row < y + STRIP; row++) {
            float[] radius = pixels.radius[row];
            sum += radius[x] + radius[x + 1] + radius[x + 2] + radius[x + 3];
        }
        lines[2][y - first >> 2].add(x >> 2, steps.at(low), sign * sum / (STRIP * STRIP));
    }

    private void addQuad(int x, int y) {
        float sum = 0;
        float low = Float.MAX_VALUE;
        float high = 0;
        for (int i = 0; i < 4; i++) {
            float radius = sign * pixels.radius[y + (i >> 1)][x + (i & 1)];
            sum += radius;
            low = radius < low ? radius : low;
            high = radius > high ? radius : high;
        }
        if (isOneCell(low, high, 1)) {
            lines[1][y - first >> 1].add(x >> 1, steps.at(low), sum / 4);
            return;
        }
        for (int i = 0; i < 4 && high > 0; i++) {
            addPixel(x + (i & 1), y + (i >> 1));
        }
    }

    private void addPixel(int x, int y) {
        float radius = sign * pixels.radius[y][x];
        if (radius > 0) {
            lines[0][y - first].add(x, steps.at(radius), radius);
        }
    }

    private boolean isOneCell(float low, float high, int level) {
        if (low <= 0) {
            return false;
        }
        int step = steps.at(low);
        return steps.level(step) >= level && steps.at(high) == step;
    }

    private Listed sorted(int level) {
        Listed list = new Listed(steps.count());
        for (Line line : lines[level]) {
            for (int i = 0; i < line.count; i++) {
                list.starts[line.steps[i] + 1]++;
            }
        }
        int[] next = list.opened();
        for (int row = 0; row < lines[level].length; row++) {
            Line line = lines[level][row];
            int place = (first >> level) + row << 16;
            for (int i = 0; i < line.count; i++) {
                int step = line.steps[i];
                int at = next[step]++;
                list.places[at] = place | line.columns[i];
                list.toNext[at] = steps.toNext(line.radii[i], step);
            }
        }
        return list;
    }
}
