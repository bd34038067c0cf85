package app.yubble.core.finish;

import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;

/** The last touches on a picture. */
public record Finish(
        @Setting(
                called = "Grain",
                means = "share of the photo's own noise that is put back where the blur took it",
                usual = 1,
                unit = Unit.SHARE)
        double grain,

        @Setting(
                called = "Crispness",
                means =
                        "how far the finest details of what is sharp are raised, without halos and without raising noise",
                unit = Unit.SHARE)
        double crispness) {
    private static final Declared<Finish> SETTINGS = Declared.of(Finish.class);

    public static final Finish USUAL = Declared.usual(Finish.class);
    /** The blur and nothing more. */
    public static final Finish NONE = new Finish(0, 0);

    public Finish {
        SETTINGS.check(grain, crispness);
    }

    public Finish withGrain(double value) {
        return new Finish(value, crispness);
    }

    public Finish withCrispness(double value) {
        return new Finish(grain, value);
    }
}
