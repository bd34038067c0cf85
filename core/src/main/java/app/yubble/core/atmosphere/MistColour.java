package app.yubble.core.atmosphere;

import app.yubble.core.raster.Luminance;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;

/** The light of a mist, linear, in the primaries of the picture. */
public record MistColour(float red, float green, float blue) {
    /** Share of the picture that counts as lying farthest. */
    private static final double FAR_SHARE = 0.1;
    /** Pixels that are looked at. */
    private static final int LOOKED_AT = 250_000;
    /** Mist scatters all light: it has this share of the colour of what is seen through it. */
    private static final double COLOURED = 0.5;
    /** Steps of nearness that are told apart. */
    private static final int STEPS = 1024;

    /**
     * As the scene's far end has it: the mean of what lies farthest, of bright things more than of dark ones, since it is the sky that
     * lights a mist.
     */
    public static MistColour ofScene(Picture picture, Plane nearness) {
        float[] near = nearness.samples();
        int step = Math.max(1, near.length / LOOKED_AT);
        int[] counts = new int[STEPS];
        int all = 0;
        for (int i = 0; i < near.length; i += step, all++) {
            counts[stepOf(near[i])]++;
        }
        int farthest = 0;
        for (int count = counts[0]; count < FAR_SHARE * all; ) {
            count += counts[++farthest];
        }
        double[] sum = new double[3];
        double weight = 0;
        for (int i = 0; i < near.length; i += step) {
            if (stepOf(near[i]) <= farthest) {
                double red = bounded(picture.red().samples()[i]);
                double green = bounded(picture.green().samples()[i]);
                double blue = bounded(picture.blue().samples()[i]);
                double bright = Luminance.of(red, green, blue);
                sum[0] += bright * red;
                sum[1] += bright * green;
                sum[2] += bright * blue;
                weight += bright;
            }
        }
        if (weight == 0) {
            return new MistColour(0, 0, 0);
        }
        double grey = Luminance.of(sum[0], sum[1], sum[2]) / weight;
        return new MistColour(paled(sum[0] / weight, grey), paled(sum[1] / weight, grey), paled(sum[2] / weight, grey));
    }

    public static MistColour of(Mist picked) {
        return new MistColour((float) picked.red(), (float) picked.green(), (float) picked.blue());
    }

    private static float paled(double value, double grey) {
        return (float) (grey + COLOURED * (value - grey));
    }

    private static double bounded(float value) {
        return Math.max(0, Math.min(1, value));
    }

    private static int stepOf(float nearness) {
        return (int) Math.max(0, Math.min(STEPS - 1, nearness * STEPS));
    }
}
