package app.yubble.core.recipe;

import app.yubble.core.clip.Ease;
import app.yubble.core.clip.Mark;
import app.yubble.core.lens.Aperture;
import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unfolded;
import app.yubble.core.setting.Unit;

/** How strong the blur is at a moment; the lens and what decides are the recipe's. */
public record ApertureMark(
        @Setting(means = "time from the clip's first frame", most = LATEST, unit = Unit.SECONDS)
        double at,

        @Unfolded Ease ease,

        @Setting(called = "Aperture", means = "the f-number", least = 0.5, most = 64, usual = 2)
        double fNumber,

        @Setting(
                called = "Strength",
                means = "blur without a lens in mind",
                most = 100,
                usual = 35,
                unit = Unit.PERCENT)
        double strength)
        implements Mark {
    private static final Declared<ApertureMark> SETTINGS = Declared.of(ApertureMark.class);

    public ApertureMark {
        SETTINGS.check(at, ease, fNumber, strength);
    }

    Aperture on(Aperture lens) {
        return new Aperture(lens.mode(), fNumber, lens.focalLength(), lens.sensorWidth(), lens.distance(), strength);
    }

    /** An iris moves in stops: half way between f/2 and f/8 is f/4. */
    static Aperture between(Aperture a, Aperture b, double share) {
        double stops = Mark.mixed(Math.log(a.fNumber()), Math.log(b.fNumber()), share);
        return new Aperture(
                a.mode(),
                share == 0 ? a.fNumber() : share == 1 ? b.fNumber() : Math.exp(stops),
                a.focalLength(),
                a.sensorWidth(),
                a.distance(),
                Mark.mixed(a.strength(), b.strength(), share));
    }
}
