package app.yubble.core.ladder;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;

/** How much pixels of a small picture are like others in nearness and colour (roots of linear light). */
final class Likeness {
    /** Difference in nearness at which another counts for half; under what shows as an edge. */
    private static final float NEARNESS = 0.03f;
    /** The same of colour. */
    private static final float COLOUR = 0.1f;

    private final Plane nearness;
    private final float[][] colours;

    Likeness(Plane nearness, Picture picture) {
        this.nearness = nearness;
        colours = picture.planes().stream().map(Likeness::roots).toArray(float[][]::new);
    }

    private static float[] roots(Plane plane) {
        float[] out = plane.samples().clone();
        for (int i = 0; i < out.length; i++) {
            out[i] = root(out[i]);
        }
        return out;
    }

    static float root(float light) {
        return (float) Math.sqrt(Math.max(0, light));
    }

    /** Of a pixel here to one that may be of a larger picture; 1 when they are the same. */
    float of(int pixel, float z, float r, float g, float b) {
        float dz = (nearness.samples()[pixel] - z) / NEARNESS;
        float dr = colours[0][pixel] - r;
        float dg = colours[1][pixel] - g;
        float db = colours[2][pixel] - b;
        float dc = (dr * dr + dg * dg + db * db) / (COLOUR * COLOUR);
        return 1 / ((1 + dz * dz * dz * dz) * (1 + dc * dc));
    }

    /** Roots of the light of one of the three colours. */
    float[] colour(int which) {
        return colours[which];
    }
}
