package app.yubble.core.keep;

import app.yubble.core.keep.SceneSource.Scene;
import app.yubble.core.raster.Plane;
import java.util.Arrays;

/**
 * What a subject looks like wherever its mask was given.
 *
 * @param colours samples of its rooted red, green and blue
 * @param whole it with its largest mask
 * @param area of its largest mask
 */
@SuppressWarnings("ArrayRecordComponent")
record Memory(float[][] colours, LastSeen whole, double area) {
    static final Memory NOTHING = new Memory(new float[3][0], LastSeen.NEVER, 0);
    /** Steps of each colour that are told apart. */
    private static final int BINS = 24;
    /** A step and those beside it, in three colours. */
    private static final int NEIGHBOURS = 27;
    /** Share of what is remembered that must look so. */
    private static final double KNOWN = 0.002;
    /** Pixels of each mask whose colours are remembered. */
    private static final int REMEMBERED = 2500;

    /** Colours that it has, as {@link #bin}; 1 or 0. */
    boolean[] known() {
        int[] counts = new int[BINS * BINS * BINS];
        for (int i = 0; i < colours[0].length; i++) {
            counts[bin(colours[0][i], colours[1][i], colours[2][i])]++;
        }
        boolean[] out = new boolean[counts.length];
        double least = KNOWN * colours[0].length;
        for (int i = 0; i < out.length; i++) {
            int sum = 0;
            for (int k = 0; k < NEIGHBOURS; k++) {
                int r = i / (BINS * BINS) + k / 9 - 1;
                int g = i / BINS % BINS + k / 3 % 3 - 1;
                int b = i % BINS + k % 3 - 1;
                if (Math.min(r, Math.min(g, b)) >= 0 && Math.max(r, Math.max(g, b)) < BINS) {
                    sum += counts[(r * BINS + g) * BINS + b];
                }
            }
            out[i] = sum >= least;
        }
        return out;
    }

    /** Where rooted red, green and blue are in what is {@link #known}. */
    static int bin(float red, float green, float blue) {
        return (step(red) * BINS + step(green)) * BINS + step(blue);
    }

    private static int step(float value) {
        return Math.max(0, Math.min(BINS - 1, (int) (value * BINS)));
    }

    /** With what it looks like in one more frame. */
    Memory with(Scene scene, Plane mask) {
        double all = Math.max(1, Carry.area(mask));
        int count = (int) Math.min(REMEMBERED, Carry.area(mask));
        int before = colours[0].length;
        float[][] out = new float[3][];
        for (int c = 0; c < 3; c++) {
            out[c] = Arrays.copyOf(colours[c], before + count);
        }
        int seen = 0;
        int taken = 0;
        for (int i = 0; i < mask.samples().length && taken < count; i++) {
            if (mask.samples()[i] > 0.5f && seen++ * (double) count / all >= taken) {
                for (int c = 0; c < 3; c++) {
                    out[c][before + taken] = (float) Math.sqrt(
                            Math.max(0, scene.picture().planes().get(c).samples()[i]));
                }
                taken++;
            }
        }
        return new Memory(out, all > area ? new LastSeen(Carry.rooted(scene), mask) : whole, Math.max(area, all));
    }
}
