package app.yubble.core.depth;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;

/**
 * Lightness and the one axis of colour along which a picture's colours differ most, both in [0,1]: enough to tell a red
 * flower from green leaves of the same lightness, in two numbers.
 */
final class ColourAxes {
    private ColourAxes() {}

    static ModeGrid.Guide guide(Picture picture) {
        Plane light = picture.lightness();
        int count = light.samples().length;
        float[] redness = new float[count];
        float[] blueness = new float[count];
        double rr = 0;
        double rb = 0;
        double bb = 0;
        double r1 = 0;
        double b1 = 0;
        for (int i = 0; i < count; i++) {
            float r = (float) Math.sqrt(Math.max(0, picture.red().samples()[i]));
            float g = (float) Math.sqrt(Math.max(0, picture.green().samples()[i]));
            float b = (float) Math.sqrt(Math.max(0, picture.blue().samples()[i]));
            redness[i] = r - g;
            blueness[i] = b - 0.5f * (r + g);
            r1 += redness[i];
            b1 += blueness[i];
            rr += redness[i] * redness[i];
            rb += redness[i] * blueness[i];
            bb += blueness[i] * blueness[i];
        }
        r1 /= count;
        b1 /= count;
        double turn = 0.5 * Math.atan2(2 * (rb / count - r1 * b1), rr / count - r1 * r1 - (bb / count - b1 * b1));
        float alongRed = (float) Math.cos(turn);
        float alongBlue = (float) Math.sin(turn);
        Plane hue = new Plane(light.size());
        for (int i = 0; i < count; i++) {
            hue.samples()[i] = Math.max(0, Math.min(1, 0.5f + alongRed * redness[i] + alongBlue * blueness[i]));
            light.samples()[i] = Math.min(1, light.samples()[i]);
        }
        return new ModeGrid.Guide(light, hue);
    }
}
