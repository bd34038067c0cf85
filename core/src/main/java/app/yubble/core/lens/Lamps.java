package app.yubble.core.lens;

import app.yubble.core.raster.Bands;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * Small bright things far out of focus, taken out of a tile's pixels. What a lens makes of them are discs with a crisp
 * outline; the reduced levels of the layers would soften it, and the steps of radius would double it. They are few, so
 * {@link Glow} draws them one by one.
 *
 * <p>Small and bright means: several times brighter than the mean of what surrounds the pixel within about two thirds of
 * its own disc. Only the light above its surroundings is taken; the rest stays with the pixel.
 */
final class Lamps {
    /** Levels, as powers of two, at which lamps are looked for; smaller ones are drawn at full size anyway. */
    private static final int FIRST_LEVEL = 2;
    /** See {@link #FIRST_LEVEL}. */
    private static final int LAST_LEVEL = 8;
    /** Linear light from which a spot can be a lamp. This and what follows by eye on dusk and on night photos. */
    private static final float FIRST_PEAK = 0.5f;
    /** Linear light from which it surely is, if it stands out. */
    private static final float FULL_PEAK = 0.8f;
    /** How many times brighter than what is around. */
    private static final float FIRST_CONTRAST = 4;
    /** See {@link #FIRST_CONTRAST}; from here on surely. */
    private static final float FULL_CONTRAST = 8;
    /** How much bright surroundings count against a lamp. */
    private static final float SURROUNDINGS = 1.5f;
    /** Lamps of one disc are drawn as one where they lie closer together than this share of its radius. */
    private static final float TOGETHER = 1 / 16f;
    // Columns of discs drawn for each pixel of the tile, at most: beyond, lamps farther apart are drawn as one.
    private static final double MOST_COLUMNS = 3;

    private final TilePixels pixels;
    private final RadiusSteps steps;
    /** Sums of the brightest channel over cells, by level above the first. */
    private final float[][][] sums = new float[LAST_LEVEL - FIRST_LEVEL + 1][][];
    /** By side of the band and step. */
    private final Group[][] groups;

    private boolean any;

    /** Lamps of about one radius, in the order of their places. */
    static final class Group {
        /** Of one lamp: place, radius, red, green, blue. */
        private static final int FIELDS = 6;

        private float[] values = new float[16 * FIELDS];
        private int count;

        int count() {
            return count;
        }

        float x(int i) {
            return values[FIELDS * i];
        }

        float y(int i) {
            return values[FIELDS * i + 1];
        }

        float radius(int i) {
            return values[FIELDS * i + 2];
        }

        /** 0 for red, 1 for green, 2 for blue. */
        float light(int i, int channel) {
            return values[FIELDS * i + 3 + channel];
        }

        private void add(float... lamp) {
            if ((count + 1) * FIELDS > values.length) {
                values = Arrays.copyOf(values, 2 * values.length);
            }
            System.arraycopy(lamp, 0, values, count * FIELDS, FIELDS);
            count++;
        }

        private void addAll(Group other) {
            int sum = count + other.count;
            if (sum * FIELDS > values.length) {
                values = Arrays.copyOf(values, Math.max(2 * values.length, sum * FIELDS));
            }
            System.arraycopy(other.values, 0, values, count * FIELDS, other.count * FIELDS);
            count = sum;
        }

        /** The lamps of each square of this side as one, in the middle of their light. */
        private Group together(int side) {
            if (side <= 1 || count < 2) {
                return this;
            }
            // The order within a square is that in which they came: the result does not depend on chance.
            long[] order = new long[count];
            for (int i = 0; i < count; i++) {
                long cell = (long) (y(i) / side) << 16 | (long) (x(i) / side);
                order[i] = cell << 24 | i;
            }
            Arrays.sort(order);
            Group out = new Group();
            double[] sums = new double[FIELDS];
            double light = 0;
            for (int o = 0; o < count; o++) {
                int i = (int) (order[o] & 0xffffff);
                double own = (double) light(i, 0) + light(i, 1) + light(i, 2);
                light += own;
                for (int field = 0; field < FIELDS; field++) {
                    sums[field] += values[FIELDS * i + field] * (field < 3 ? own : 1);
                }
                if (o + 1 == count || order[o + 1] >> 24 != order[o] >> 24) {
                    out.add(
                            (float) (sums[0] / light),
                            (float) (sums[1] / light),
                            (float) (sums[2] / light),
                            (float) sums[3],
                            (float) sums[4],
                            (float) sums[5]);
                    Arrays.fill(sums, 0);
                    light = 0;
                }
            }
            return out;
        }
    }

    private Lamps(TilePixels pixels, RadiusSteps steps) {
        this.pixels = pixels;
        this.steps = steps;
        groups = new Group[2][steps.count()];
    }

    /**
     * The lamps of a tile.
     *
     * @param pieces what lies over pixels, by band
     * @param least radius from which discs have an outline to lose
     * @param rings of which the disc consists
     */
    static Lamps of(TilePixels pixels, Pieces[] pieces, RadiusSteps steps, float least, int rings) {
        Lamps lamps = new Lamps(pixels, steps);
        lamps.find(pieces, least, rings);
        return lamps;
    }

    private void find(Pieces[] pieces, float least, int rings) {
        int bands = pieces.length;
        float[][][] bright = new float[bands][][];
        sums[0] = new float[pixels.height >> FIRST_LEVEL][pixels.width >> FIRST_LEVEL];
        Bands.ofPieces(bands, band -> bright[band] = sumUp(band, least));
        for (float[][] rows : bright) {
            any |= rows != null;
        }
        for (Pieces each : pieces) {
            any |= hasBright(each);
        }
        if (!any) {
            return;
        }
        for (int level = 1; level < sums.length; level++) {
            sums[level] = halved(sums[level - 1]);
        }
        Group[][][] found = new Group[bands][2][steps.count()];
        Bands.ofPieces(bands, band -> {
            if (bright[band] != null) {
                takePixels(band, bright[band], least, found[band]);
            }
            takePieces(pieces[band], least, found[band]);
        });
        join(found, rings);
    }

    boolean any() {
        return any;
    }

    /** Null when there are none. */
    @Nullable
    Group at(int step, boolean inFront) {
        return groups[inFront ? 1 : 0][step];
    }

    /** Sums of the cells in a band of rows; the answer is the brightest of each out of focus, null when none is bright. */
    private float @Nullable [][] sumUp(int band, float least) {
        int first = band * LayerCut.BAND >> FIRST_LEVEL;
        int last = Math.min(sums[0].length, (band + 1) * LayerCut.BAND >> FIRST_LEVEL);
        float[][] bright = new float[last - first][];
        boolean some = false;
        float[] peaks = new float[pixels.width];
        float[] brightest = new float[pixels.width];
        for (int row = first; row < last; row++) {
            float[] sum = sums[0][row];
            Arrays.fill(brightest, 0);
            float[] down = new float[pixels.width];
            for (int y = row << FIRST_LEVEL; y < row + 1 << FIRST_LEVEL; y++) {
                peakRow(pixels.red[y], pixels.green[y], pixels.blue[y], peaks);
                addRow(peaks, down);
                blurredPeaks(peaks, pixels.radius[y], least, brightest);
            }
            float[] found = new float[sum.length];
            boolean inRow = false;
            for (int cell = 0; cell < sum.length; cell++) {
                int x = cell << FIRST_LEVEL;
                sum[cell] = down[x] + down[x + 1] + down[x + 2] + down[x + 3];
                found[cell] = Math.max(
                        Math.max(brightest[x], brightest[x + 1]), Math.max(brightest[x + 2], brightest[x + 3]));
                inRow |= found[cell] > FIRST_PEAK;
            }
            if (inRow) {
                bright[row - first] = found;
                some = true;
            }
        }
        return some ? bright : null;
    }

    private static void peakRow(float[] r, float[] g, float[] b, float[] peak) {
        for (int i = 0; i < peak.length; i++) {
            peak[i] = Math.max(r[i], Math.max(g[i], b[i]));
        }
    }

    private static void addRow(float[] more, float[] sum) {
        for (int i = 0; i < sum.length; i++) {
            sum[i] += more[i];
        }
    }

    private static void blurredPeaks(float[] peak, float[] radius, float least, float[] brightest) {
        for (int i = 0; i < brightest.length; i++) {
            float seen = Math.abs(radius[i]) > least ? peak[i] : 0f;
            brightest[i] = Math.max(brightest[i], seen);
        }
    }

    private static boolean hasBright(Pieces pieces) {
        for (int i = 0; i < pieces.count; i++) {
            if (Math.max(pieces.red[i], Math.max(pieces.green[i], pieces.blue[i])) > FIRST_PEAK * pieces.coverage[i]) {
                return true;
            }
        }
        return false;
    }

    private static float[][] halved(float[][] fine) {
        float[][] out = new float[(fine.length + 1) / 2][(fine[0].length + 1) / 2];
        for (int y = 0; y < fine.length; y++) {
            for (int x = 0; x < fine[y].length; x++) {
                out[y / 2][x / 2] += fine[y][x];
            }
        }
        return out;
    }

    private void takePixels(int band, float[][] bright, float least, Group[][] to) {
        int first = band * LayerCut.BAND;
        for (int row = 0; row < bright.length; row++) {
            if (bright[row] == null) {
                continue;
            }
            for (int cell = 0; cell < bright[row].length; cell++) {
                if (bright[row][cell] > FIRST_PEAK) {
                    takeCell(cell << FIRST_LEVEL, first + (row << FIRST_LEVEL), bright[row][cell], least, to);
                }
            }
        }
    }

    /** What is around is the same for all pixels of a cell that are blurred about as much. */
    private void takeCell(int x0, int y0, float brightest, float least, Group[][] to) {
        int levelBefore = -1;
        float around = 0;
        int cell = 1 << FIRST_LEVEL;
        for (int y = y0; y < Math.min(y0 + cell, pixels.inHeight); y++) {
            for (int x = x0; x < Math.min(x0 + cell, pixels.inWidth); x++) {
                float radius = pixels.radius[y][x];
                if (!(Math.abs(radius) > least)) {
                    continue;
                }
                int level = levelOf(radius);
                if (level != levelBefore) {
                    around = around(x, y, level);
                    levelBefore = level;
                }
                if (brightest <= FIRST_CONTRAST * around) {
                    continue;
                }
                float red = pixels.red[y][x];
                float green = pixels.green[y][x];
                float blue = pixels.blue[y][x];
                float taken = share(Math.max(red, Math.max(green, blue)), around);
                if (taken > 0) {
                    put(x, y, radius, taken * red, taken * green, taken * blue, to);
                    pixels.red[y][x] -= taken * red;
                    pixels.green[y][x] -= taken * green;
                    pixels.blue[y][x] -= taken * blue;
                }
            }
        }
    }

    private void takePieces(Pieces pieces, float least, Group[][] to) {
        for (int i = 0; i < pieces.count; i++) {
            if (!(Math.abs(pieces.radius[i]) > least)) {
                continue;
            }
            int x = pieces.places[i] & 0xffff;
            int y = pieces.places[i] >>> 16;
            float peak = Math.max(pieces.red[i], Math.max(pieces.green[i], pieces.blue[i]));
            float taken = share(peak / Math.max(0.05f, pieces.coverage[i]), around(x, y, levelOf(pieces.radius[i])));
            if (taken > 0) {
                put(x, y, pieces.radius[i], taken * pieces.red[i], taken * pieces.green[i], taken * pieces.blue[i], to);
                pieces.red[i] *= 1 - taken;
                pieces.green[i] *= 1 - taken;
                pieces.blue[i] *= 1 - taken;
            }
        }
    }

    /** How much of a pixel's light is a lamp's. */
    private static float share(float peak, float around) {
        if (peak <= FIRST_PEAK) {
            return 0;
        }
        float contrast = peak / Math.max(1e-4f, around);
        if (contrast <= FIRST_CONTRAST) {
            return 0;
        }
        float clear = Math.min(1, (contrast - FIRST_CONTRAST) / (FULL_CONTRAST - FIRST_CONTRAST))
                * Math.min(1, (peak - FIRST_PEAK) / (FULL_PEAK - FIRST_PEAK));
        return clear * Math.max(0, 1 - SURROUNDINGS * around / peak);
    }

    /** The level whose cells are about half a radius wide. */
    private static int levelOf(float radius) {
        int level = FIRST_LEVEL;
        while (level < LAST_LEVEL && 3 << level < 2 * Math.abs(radius)) {
            level++;
        }
        return level;
    }

    /** Mean of the brightest channel in three by three cells. */
    private float around(int x, int y, int level) {
        float[][] cells = sums[level - FIRST_LEVEL];
        int cx = x >> level;
        int cy = y >> level;
        float sum = 0;
        int pixelsIn = 0;
        for (int v = Math.max(0, cy - 1); v <= Math.min(cells.length - 1, cy + 1); v++) {
            int high = Math.max(0, Math.min(pixels.inHeight, v + 1 << level) - (v << level));
            for (int u = Math.max(0, cx - 1); u <= Math.min(cells[v].length - 1, cx + 1); u++) {
                sum += cells[v][u];
                pixelsIn += high * Math.max(0, Math.min(pixels.inWidth, u + 1 << level) - (u << level));
            }
        }
        return sum / Math.max(1, pixelsIn);
    }

    private void put(int x, int y, float radius, float r, float g, float b, Group[][] to) {
        float size = Math.abs(radius);
        int below = steps.at(size);
        int step = Math.max(1, steps.toNext(size, below) < 0.5f ? below : below + 1);
        Group[] side = to[radius < 0 ? 1 : 0];
        if (side[step] == null) {
            side[step] = new Group();
        }
        side[step].add(x, y, size, r, g, b);
    }

    private void join(Group[][][] found, int rings) {
        for (Group[][] band : found) {
            for (int side = 0; side < 2; side++) {
                for (int step = 0; step < band[side].length; step++) {
                    if (band[side][step] != null) {
                        if (groups[side][step] == null) {
                            groups[side][step] = new Group();
                        }
                        groups[side][step].addAll(band[side][step]);
                    }
                }
            }
        }
        double most = MOST_COLUMNS * pixels.width * pixels.height;
        for (float closeness = TOGETHER; closeness <= 1; closeness *= 2) {
            double columns = 0;
            for (Group[] side : groups) {
                for (int step = 1; step < side.length; step++) {
                    if (side[step] != null) {
                        int apart = Integer.highestOneBit((int) Math.max(1, steps.radius(step) * closeness));
                        side[step] = side[step].together(apart);
                        columns += side[step].count * (2.0 * steps.radius(step) + 1) * rings * 2;
                    }
                }
            }
            if (columns <= most) {
                break;
            }
        }
    }
}
