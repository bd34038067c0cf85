package app.yubble.core.atmosphere;

import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;

/** Mist that grows with distance. */
public record Mist(
        @Setting(
                called = "Mist",
                means = "how dense the mist is: at 1 what lies farthest is hidden in it",
                unit = Unit.SHARE)
        double density,

        @Setting(
                called = "Mist from",
                means = "nearness at which the mist begins; what is nearer stays clear",
                usual = USUAL_START,
                unit = Unit.NEARNESS)
        double start,

        @Setting(
                called = "Mist up to",
                means =
                        "height in the picture up to which the mist is full, from the lower border (0) to the upper one (1)",
                usual = 1,
                unit = Unit.SHARE)
        double height,

        @Setting(
                called = "Give contrast back",
                means = "how much of the contrast that mist takes is given back to what is sharp",
                unit = Unit.SHARE)
        double clearing,

        @Setting(
                means =
                        "whether the mist has the colour of what lies farthest in the scene, or a colour that was picked")
        Source source,

        @Setting(
                called = "Colour of the mist",
                means = "red light of a mist whose colour was picked; linear",
                usual = PALE,
                unit = Unit.SHARE)
        double red,

        @Setting(
                called = "Colour of the mist",
                means = "green light of a mist whose colour was picked; linear",
                usual = PALE,
                unit = Unit.SHARE)
        double green,

        @Setting(
                called = "Colour of the mist",
                means = "blue light of a mist whose colour was picked; linear",
                usual = PALE,
                unit = Unit.SHARE)
        double blue) {
    private static final Declared<Mist> SETTINGS = Declared.of(Mist.class);
    /** In front of most that is seen; what stands close stays clear. */
    private static final double USUAL_START = 0.6;
    /** A pale grey, as of an overcast sky. */
    private static final double PALE = 0.6;
    /** Optical depth of what lies farthest at full density: two hundredths of its light are left. */
    private static final double DEEPEST = 4;
    /** Nearness of what lies farthest, were it not normalised; by eye on dusk and the hall. */
    private static final double FARTHEST = 0.15;
    /** Share of the picture's height over which mist thins out upwards. */
    private static final double THINNING = 0.35;

    /** Where its colour comes from. */
    public enum Source {
        SCENE,
        PICKED
    }

    public static final Mist NONE = Declared.usual(Mist.class);

    public Mist {
        SETTINGS.check(density, start, height, clearing, source, red, green, blue);
    }

    public Mist withDensity(double value) {
        return new Mist(value, start, height, clearing, source, red, green, blue);
    }

    public Mist withStart(double value) {
        return new Mist(density, value, height, clearing, source, red, green, blue);
    }

    public Mist withHeight(double value) {
        return new Mist(density, start, value, clearing, source, red, green, blue);
    }

    public Mist withClearing(double value) {
        return new Mist(density, start, height, value, source, red, green, blue);
    }

    /** A mist of this linear light. */
    public Mist withPicked(double newRed, double newGreen, double newBlue) {
        return new Mist(density, start, height, clearing, Source.PICKED, newRed, newGreen, newBlue);
    }

    public boolean isNone() {
        return density == 0 || start == 0;
    }

    /** Optical depth between the camera and what is this near, where the mist is full. */
    double depth(double nearness) {
        double all = 1 / FARTHEST - 1 / (1 + FARTHEST);
        double way = 1 / (Math.max(0, nearness) + FARTHEST) - 1 / (start + FARTHEST);
        return DEEPEST * density * Math.max(0, way) / all;
    }

    /** Share of the mist there is at a height of the picture, 0 at the lower border and 1 at the upper one. */
    double shareAt(double up) {
        double over = Math.max(0, up - height) / THINNING;
        return height >= 1 ? 1 : Math.exp(-over * over);
    }
}
