package app.yubble.core.recipe;

import app.yubble.core.clip.Ease;
import app.yubble.core.clip.Mark;
import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unfolded;
import app.yubble.core.setting.Unit;

/** How much of the effect is shown at a moment. */
public record OpacityMark(
        @Setting(means = "time from the clip's first frame", most = LATEST, unit = Unit.SECONDS)
        double at,

        @Unfolded Ease ease,

        @Setting(
                called = "Opacity",
                means = "of the whole effect over the untouched photo",
                usual = 1,
                unit = Unit.SHARE)
        double opacity)
        implements Mark {
    private static final Declared<OpacityMark> SETTINGS = Declared.of(OpacityMark.class);

    public OpacityMark {
        SETTINGS.check(at, ease, opacity);
    }
}
