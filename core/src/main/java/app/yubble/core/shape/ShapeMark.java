package app.yubble.core.shape;

import app.yubble.core.clip.Ease;
import app.yubble.core.clip.Mark;
import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unfolded;
import app.yubble.core.setting.Unit;

/** Where a blur shape lies at a moment. */
public record ShapeMark(
        @Setting(means = "time from the clip's first frame", most = LATEST, unit = Unit.SECONDS)
        double at,

        @Unfolded Ease ease,
        @Unfolded Place place)
        implements Mark {
    private static final Declared<ShapeMark> SETTINGS = Declared.of(ShapeMark.class);

    public ShapeMark {
        SETTINGS.check(at, ease, place);
    }
}
