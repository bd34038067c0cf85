package app.yubble.core.depth;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Plane;
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
            for (int at = first; at < last; at++) {
                int k = at / step % length;
                float[] before = k > 0 ? from[at - step] : null;
                float[] after = k < length - 1 ? from[at + step] : null;
                if (from[at] != null || before != null || after != null) {
                    to[at] = new float[BINS];
                    add(from[at], to[at], 1 - 2 * side);
                    add(before, to[at], side);
                    add(after, to[at], side);
                }
            }
        });
        cells = to;
    }

    private static void add(float @Nullable [] from, float[] to, float weight) {
        if (from != null) {
            for (int i = 0; i < BINS; i++) {
                to[i] += weight * from[i];
            }
        }
    }

    private Plane read(Plane nearness, Guide guide) {
        Plane out = new Plane(nearness.size());
        int width = nearness.width();
        Bands.ofRows(nearness.height(), (from, to) -> {
            float[] histogram = new float[BINS];
            for (int y = from; y < to; y++) {
                for (int x = 0; x < width; x++) {
                    int i = y * width + x;
                    gather(
                            histogram,
                            x,
                            y,
                            guide.light().samples()[i],
                            guide.hue().samples()[i]);
                    out.samples()[i] = mode(histogram, nearness.samples()[i]);
                }
            }
        });
        return out;
    }

    private void gather(float[] histogram, int x, int y, float light, float hue) {
        float across = (x + 0.5f) / cell + 0.5f;
        float down = (y + 0.5f) / cell + 0.5f;
        float bright = (light - darkest) / lightStep;
        float tint = (hue - lowestHue) / hueStep;
        int c0 = (int) across;
        int r0 = (int) down;
        int l0 = (int) bright;
        int h0 = (int) tint;
        java.util.Arrays.fill(histogram, 0);
        for (int corner = 0; corner < 16; corner++) {
            int dc = corner & 1;
            int dr = corner >> 1 & 1;
            int dl = corner >> 2 & 1;
            int dh = corner >> 3;
            float weight = side(across - c0, dc) * side(down - r0, dr) * side(bright - l0, dl) * side(tint - h0, dh);
            if (weight > 0 && l0 + dl < lights && h0 + dh < hues) {
                int at = index(Math.min(rows - 1, r0 + dr), Math.min(columns - 1, c0 + dc), l0 + dl, h0 + dh);
                add(cells[at], histogram, weight);
            }
        }
    }

    private static float side(float fraction, int upper) {
        return upper == 1 ? fraction : 1 - fraction;
    }

    private static float mode(float[] histogram, float otherwise) {
        int best = -1;
        float most = 0;
        for (int k = 0; k < BINS; k++) {
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
