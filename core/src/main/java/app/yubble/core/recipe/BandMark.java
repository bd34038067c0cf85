package app.yubble.core.recipe;

import app.yubble.core.clip.Ease;
import app.yubble.core.clip.Mark;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unfolded;
import app.yubble.core.setting.Unit;

/** The sharp band at a moment. */
public record BandMark(
        @Setting(means = "time from the clip's first frame", most = LATEST, unit = Unit.SECONDS)
        double at,

        @Unfolded Ease ease,
        @Unfolded SharpBand band,

        @Setting(means = "from this mark on the band keeps to what is followed, until the next mark")
        boolean follow)
        implements Mark {
    private static final Declared<BandMark> SETTINGS = Declared.of(BandMark.class);

    public BandMark {
        SETTINGS.check(at, ease, band, follow);
    }

    /** A mark from which values go on by its ease. */
    public BandMark(double at, Ease ease, SharpBand band) {
        this(at, ease, band, false);
    }

    static SharpBand between(SharpBand a, SharpBand b, double share) {
        return new SharpBand(
                Mark.mixed(a.near(), b.near(), share),
                Mark.mixed(a.far(), b.far(), share),
                Mark.mixed(a.nearFalloff(), b.nearFalloff(), share),
                Mark.mixed(a.farFalloff(), b.farFalloff(), share),
                Mark.mixed(a.tiltAcross(), b.tiltAcross(), share),
                Mark.mixed(a.tiltDown(), b.tiltDown(), share));
    }
}
