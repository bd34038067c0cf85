package app.yubble.core.recipe;

import app.yubble.core.clip.Ease;
import app.yubble.core.clip.Mark;
import app.yubble.core.focus.Gain;
import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unfolded;
import app.yubble.core.setting.Unit;

/** How strongly each side of the band is blurred at a moment. */
public record GainMark(
        @Setting(means = "time from the clip's first frame", most = LATEST, unit = Unit.SECONDS)
        double at,

        @Unfolded Ease ease,
        @Unfolded Gain gain)
        implements Mark {
    private static final Declared<GainMark> SETTINGS = Declared.of(GainMark.class);

    public GainMark {
        SETTINGS.check(at, ease, gain);
    }

    static Gain between(Gain a, Gain b, double share) {
        return new Gain(Mark.mixed(a.front(), b.front(), share), Mark.mixed(a.behind(), b.behind(), share));
    }
}
