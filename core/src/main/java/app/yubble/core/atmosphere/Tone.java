package app.yubble.core.atmosphere;

import app.yubble.core.raster.Luminance;
import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;

/** How the light of one side that is out of focus is changed; the more it is blurred, the more. */
public record Tone(
        @Setting(
                called = "Warmth",
                means = "of what is out of focus: from cool (-1) to warm (1), its brightness kept",
                least = -1,
                unit = Unit.SHARE)
        double warmth,

        @Setting(
                called = "Cast",
                means = "of what is out of focus: from green (-1) to magenta (1), its brightness kept",
                least = -1,
                unit = Unit.SHARE)
        double cast,

        @Setting(
                called = "Colour",
                means = "of what is out of focus: from grey (-1) to twice as colourful (1)",
                least = -1,
                unit = Unit.SHARE)
        double colour,

        @Setting(
                called = "Light",
                means = "of what is out of focus: stops of exposure",
                least = -2,
                most = 2,
                unit = Unit.STOPS)
        double light) {
    private static final Declared<Tone> SETTINGS = Declared.of(Tone.class);
    /** Stops between red and blue light at full warmth are twice this; by eye on dusk. */
    private static final double WARMTH_STOPS = 0.35;
    /** Stops that green light loses at full cast. */
    private static final double CAST_STOPS = 0.3;

    public static final Tone PLAIN = Declared.usual(Tone.class);

    public Tone {
        SETTINGS.check(warmth, cast, colour, light);
    }

    boolean isPlain() {
        return equals(PLAIN);
    }

    /** Factors on red, green and blue light where it acts wholly; a grey keeps its luminance but for {@link #light}. */
    float[] gains() {
        double red = Math.pow(2, WARMTH_STOPS * warmth);
        double green = Math.pow(2, -CAST_STOPS * cast);
        double blue = Math.pow(2, -WARMTH_STOPS * warmth);
        double all = Math.pow(2, light) / Luminance.of(red, green, blue);
        return new float[] {(float) (red * all), (float) (green * all), (float) (blue * all)};
    }
}
