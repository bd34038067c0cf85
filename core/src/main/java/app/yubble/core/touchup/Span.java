package app.yubble.core.touchup;

import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;

/** Over which moments of a clip something acts: all of them unless it says so. Photos have no time and are always within. */
public record Span(
        @Setting(called = "From", means = "acts from this time of a clip on", most = LATEST, unit = Unit.SECONDS)
        double from,

        @Setting(
                called = "To",
                means = "acts up to this time of a clip, which it includes",
                most = LATEST,
                usual = LATEST,
                unit = Unit.SECONDS)
        double to,

        @Setting(
                called = "Fade",
                means = "fades in over this time from `from` on, and out before `to`, unless these are the clip's ends",
                most = 600,
                unit = Unit.SECONDS)
        double fade) {
    private static final Declared<Span> SETTINGS = Declared.of(Span.class);
    /** Seconds. */
    private static final double LATEST = 36_000;

    public static final Span ALL = Declared.usual(Span.class);

    public Span {
        SETTINGS.check(from, to, fade);
        if (from > to) {
            throw new IllegalArgumentException(
                    "it must not end before it begins, found from " + from + " s to " + to + " s");
        }
    }

    /** How strongly it acts at a time, in [0,1]. */
    public double at(double seconds) {
        if (seconds < from || seconds > to) {
            return 0;
        }
        double in = from > 0 ? faded(seconds - from) : 1;
        double out = to < LATEST ? faded(to - seconds) : 1;
        return Math.min(in, out);
    }

    private double faded(double since) {
        return fade > 0 ? Math.min(1, since / fade) : 1;
    }
}
