package app.yubble.core.follow;

import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;

/** Where a followed point was put by hand at a moment. */
public record Put(
        @Setting(means = "time from the clip's first frame", most = LATEST, unit = Unit.SECONDS)
        double at,

        @Setting(means = "share of the picture's width, from the left", usual = 0.5, unit = Unit.SHARE)
        double x,

        @Setting(means = "share of the picture's height, from the top", usual = 0.5, unit = Unit.SHARE)
        double y) {
    private static final Declared<Put> SETTINGS = Declared.of(Put.class);
    /** Seconds; as marks. */
    private static final double LATEST = 36_000;

    public Put {
        SETTINGS.check(at, x, y);
    }
}
