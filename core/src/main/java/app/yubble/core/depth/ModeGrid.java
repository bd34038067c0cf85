package app.yubble.core.depth;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Plane;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * Gives every pixel the depth that most pixels near it and of its colour have.
 *
 * <p>A bilateral grid (Chen, Paris and Durand, "Real-time edge-aware image processing with the bilateral grid", SIGGRAPH
 * 2007) over place, lightness and one axis of colour, whose cells hold a histogram of nearness instead of a mean. The
 * answer is the histogram's main mode, refined to the mean of the bins around it: a mean over an edge would be a depth
 * at which nothing stands, a mode is one of the two. A floor stays a ramp, because inside one mode the mean is taken.
 */
final class ModeGrid {
    /** Of nearness; two surfaces closer than a bin are one. */
    static final int BINS = 24;
    // Differences under this many bins are one thing's own relief and are averaged, not told apart: with 2, cheeks and
    // sleeves broke into plateaus along their shadows.
    private static final int AROUND_MODE = 4;

    /** Of a cell in which nothing is. */
    private static final float[] NOTHING = new float[BINS];

    private final int columns;
    private final int rows;
    private final int lights;
    private final int hues;
    private final float cell;
    private final float lightStep;
    private final float hueStep;
    private final float darkest;
    private final float lowestHue;
    /** One histogram per cell, null where nothing is: most combinations of place and colour do not occur. */
    private float[][] cells;
    /** A bit for each bin of a cell that has something: most cells know one surface, three bins wide. */
    private final int[] taken;

    private ModeGrid(Plane nearness, Guide guide, float cell, float lightStep, float hueStep) {
        this.cell = cell;
        this.lightStep = lightStep;
        this.hueStep = hueStep;
        columns = (int) Math.ceil(nearness.width() / cell) + 2;
        rows = (int) Math.ceil(nearness.height() / cell) + 2;
        // Only the range that the picture has: a tenth of the whole for the hues of most photos.
        Plane.Range light = guide.light().range();
        Plane.Range hue = guide.hue().range();
        darkest = light.low();
        lowestHue = hue.low();
        lights = (int) Math.ceil(light.span() / lightStep) + 2;
        hues = (int) Math.ceil(hue.span() / hueStep) + 2;
        cells = new float[columns * rows * lights * hues][];
        collect(nearness, guide);
        blur(rows, columns * lights * hues, 0.25f);
        blur(columns, lights * hues, 0.25f);
        blur(lights, hues, 0.2f);
        blur(hues, 1, 0.2f);
        taken = new int[cells.length];
        for (int at = 0; at < cells.length; at++) {
            taken[at] = bits(cells[at]);
        }
    }

    private static int bits(float @Nullable [] histogram) {
        int out = 0;
        for (int k = 0; histogram != null && k < BINS; k++) {
            out |= histogram[k] > 0 ? 1 << k : 0;
        }
        return out;
    }

    /** Lightness and one axis of colour for each pixel, both in [0,1]. */
    record Guide(Plane light, Plane hue) {}

    /**
     * @param cell spacing of the grid in pixels
     * @param contrast difference in lightness, in [0,1], that separates two things
     */
    static Plane filter(Plane nearness, Guide guide, float cell, float contrast) {
        return new ModeGrid(nearness, guide, cell, contrast, contrast * 1.5f).read(nearness, guide);
    }

    private int index(int row, int column, int light, int hue) {
        return ((row * columns + column) * lights + light) * hues + hue;
    }

    private void collect(Plane nearness, Guide guide) {
        int width = nearness.width();
        for (int y = 0; y < nearness.height(); y++) {
            int row = Math.round((y + 0.5f) / cell + 0.5f);
            for (int x = 0; x < width; x++) {
                int i = y * width + x;
                int at = index(
                        row,
                        Math.round((x + 0.5f) / cell + 0.5f),
                        Math.round((guide.light().samples()[i] - darkest) / lightStep),
                        Math.round((guide.hue().samples()[i] - lowestHue) / hueStep));
                float bin = Math.max(0, Math.min(1, nearness.samples()[i])) * (BINS - 1);
                int lower = Math.min(BINS - 2, (int) bin);
                float[] cell = cells[at];
                if (cell == null) {
                    cell = new float[BINS];
                    cells[at] = cell;
                }
                cell[lower] += 1 - (bin - lower);
                cell[lower + 1] += bin - lower;
            }
        }
    }

    /**
     * Blurs along one axis, in which neighbours lie {@code step} cells apart. Nothing lies beyond the ends.
     *
     * @param side weight of each neighbour
     */
    private void blur(int length, int step, float side) {
        float[][] from = cells;
        float[][] to = new float[from.length][];
        Bands.ofRows(from.length, (first, last) -> {
            int k = first / step % length;
            int untilNext = step - first % step;
            for (int at = first; at < last; at++, untilNext--) {
                if (untilNext == 0) {
                    untilNext = step;
                    k = k + 1 < length ? k + 1 : 0;
                }
                float[] before = k > 0 ? from[at - step] : null;
                float[] after = k < length - 1 ? from[at + step] : null;
                if (from[at] != null || before != null || after != null) {
                    to[at] = mixed(orNothing(from[at]), orNothing(before), orNothing(after), side);
                }
            }
        });
        cells = to;
    }

    private static float[] mixed(float[] own, float[] before, float[] after, float side) {
        float[] out = new float[BINS];
        float rest = 1 - 2 * side;
        for (int i = 0; i < BINS; i++) {
            out[i] = rest * own[i] + side * (before[i] + after[i]);
        }
        return out;
    }

    private static float[] orNothing(float @Nullable [] histogram) {
        return histogram == null ? NOTHING : histogram;
    }

    private Plane read(Plane nearness, Guide guide) {
        Plane out = new Plane(nearness.size());
        int width = nearness.width();
        Bands.ofRows(nearness.height(), (from, to) -> {
            Reading reading = new Reading();
            for (int y = from; y < to; y++) {
                for (int x = 0; x < width; x++) {
                    int i = y * width + x;
                    reading.gather(x, y, guide.light().samples()[i], guide.hue().samples()[i]);
                    out.samples()[i] = reading.mode(nearness.samples()[i]);
                }
            }
        });
        return out;
    }

    /** The histogram between cells, of one place after the other. */
    private final class Reading {
        final float[] histogram = new float[BINS];
        final int perPlace = lights * hues;
        /** The bins that may have something. */
        int lowest;
        /** Exclusive. */
        int highest;

        void gather(int x, int y, float light, float hue) {
            float across = (x + 0.5f) / cell + 0.5f;
            float down = (y + 0.5f) / cell + 0.5f;
            float bright = (light - darkest) / lightStep;
            float tint = (hue - lowestHue) / hueStep;
            int c0 = (int) across;
            int r0 = (int) down;
            int l0 = (int) bright;
            int h0 = (int) tint;
            float right = across - c0;
            float below = down - r0;
            int aside = c0 + 1 < columns ? perPlace : 0;
            int under = r0 + 1 < rows ? columns * perPlace : 0;
            int first = index(r0, c0, l0, h0);
            int[] places = {first, first + aside, first + under, first + aside + under};
            float[] shares = {(1 - below) * (1 - right), (1 - below) * right, below * (1 - right), below * right};
            int lighter = l0 + 1 < lights ? hues : 0;
            int next = h0 + 1 < hues ? 1 : 0;
            int all = 0;
            for (int place : places) {
                all |= taken[place] | taken[place + lighter] | taken[place + next] | taken[place + lighter + next];
            }
            lowest = Math.min(BINS, Integer.numberOfTrailingZeros(all));
            highest = Integer.SIZE - Integer.numberOfLeadingZeros(all);
            Arrays.fill(histogram, 0);
            float more = bright - l0;
            float other = tint - h0;
            add(places, 0, shares, (1 - more) * (1 - other));
            add(places, lighter, shares, lighter > 0 ? more * (1 - other) : 0);
            add(places, next, shares, next > 0 ? (1 - more) * other : 0);
            add(places, lighter + next, shares, lighter > 0 && next > 0 ? more * other : 0);
        }

        // Four cells at once: a loop over few bins costs more to begin than to run.
        private void add(int[] places, int step, float[] shares, float weight) {
            if (weight <= 0) {
                return;
            }
            float[] a = orNothing(cells[places[0] + step]);
            float[] b = orNothing(cells[places[1] + step]);
            float[] c = orNothing(cells[places[2] + step]);
            float[] d = orNothing(cells[places[3] + step]);
            float wa = weight * shares[0];
            float wb = weight * shares[1];
            float wc = weight * shares[2];
            float wd = weight * shares[3];
            for (int k = lowest; k < highest; k++) {
                histogram[k] += wa * a[k] + wb * b[k] + wc * c[k] + wd * d[k];
            }
        }

        float mode(float otherwise) {
            int best = -1;
            float most = 0;
            for (int k = Math.max(0, lowest - 1); k < Math.min(BINS, highest + 1); k++) {
                float weight =
                        histogram[k] + 0.5f * ((k > 0 ? histogram[k - 1] : 0) + (k < BINS - 1 ? histogram[k + 1] : 0));
                if (weight > most) {
                    most = weight;
                    best = k;
                }
            }
            if (best < 0) {
                return otherwise;
            }
            float sum = 0;
            float total = 0;
            for (int k = Math.max(0, best - AROUND_MODE); k <= Math.min(BINS - 1, best + AROUND_MODE); k++) {
                sum += histogram[k] * k;
                total += histogram[k];
            }
            return sum / total / (BINS - 1);
        }
    }
}
