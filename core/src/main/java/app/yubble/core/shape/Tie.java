package app.yubble.core.shape;

import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;

/** What a blur shape of a clip moves along with. */
public record Tie(
        @Setting(means = "the id of a follow whose point it moves along with; empty for none")
        String follow,

        @Setting(
                means =
                        "the time of a clip at which it lies where it says; at other times as much beside as the point is",
                most = LATEST,
                unit = Unit.SECONDS)
        double tiedAt) {
    private static final Declared<Tie> SETTINGS = Declared.of(Tie.class);
    /** Seconds; as marks. */
    private static final double LATEST = 36_000;

    public static final Tie NONE = Declared.usual(Tie.class);

    public Tie {
        SETTINGS.check(follow, tiedAt);
    }
}
