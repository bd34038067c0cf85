package app.yubble.core.touchup;

import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unfolded;
import app.yubble.core.setting.Unit;
import java.util.List;
import java.util.stream.Collectors;

/** What was said of a subject at a moment, from where it is kept through the clip. */
public record KeptAt(
        @Setting(means = "time from the clip's first frame", most = LATEST, unit = Unit.SECONDS)
        double at,

        @Setting(
                means =
                        "`click` is what the first mark lies on, `box` what is in the box, `carried` what was kept up to here; the"
                                + " marks put it right; `painted` is what the marks cover")
        By by,

        @Unfolded PickOut pickOut) {
    private static final Declared<KeptAt> SETTINGS = Declared.of(KeptAt.class);
    /** Seconds; as marks. */
    private static final double LATEST = 36_000;

    /** How it was pointed out. */
    public enum By {
        CLICK,
        BOX,
        CARRIED,
        PAINTED
    }

    public KeptAt {
        SETTINGS.check(at, by, pickOut);
        if (by != By.BOX && pickOut.marks().isEmpty()) {
            throw new IllegalArgumentException("a kept subject that is not picked out by a box needs a mark");
        }
    }

    /** Equal lists and only those have equal keys. */
    public static String key(List<KeptAt> kept) {
        return kept.stream()
                .map(each -> each.at + " " + each.by + " " + each.pickOut.key())
                .collect(Collectors.joining("\n"));
    }
}
