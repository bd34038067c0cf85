package app.yubble.core.keep;

import app.yubble.core.keep.SceneSource.Scene;
import app.yubble.core.raster.Plane;
import java.util.Arrays;

/**
 * What a subject looks like wherever its mask was given.
 *
 * @param colours samples of its rooted red, green and blue
 * @param area of its largest mask
 */
@SuppressWarnings("ArrayRecordComponent")
record Memory(float[][] colours, double area) {
    static final Memory NOTHING = new Memory(new float[3][0], 0);
    /** Pixels of each mask whose colours are remembered. */
    private static final int REMEMBERED = 2500;

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
        return new Memory(out, Math.max(area, all));
    }
}
