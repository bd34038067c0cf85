package app.yubble.core.ladder;

import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;
import java.util.List;

/** A place that was clicked: nearer than those of the rungs after it. */
public record Rung(
        @Setting(means = "where it was clicked, as a share of the picture's width", unit = Unit.SHARE)
        double x,

        @Setting(means = "where it was clicked, as a share of the picture's height", unit = Unit.SHARE)
        double y,

        @Setting(called = "Tied", means = "stands as far as the rung before it, instead of farther")
        boolean tied,

        @Setting(
                called = "Distance",
                means = "from the camera, where it is known, else 0; a tied rung has that of the one before it",
                most = FARTHEST,
                unit = Unit.METRES)
        double metres,

        @Setting(means = "time from the clip's first frame at which it was clicked", most = LATEST, unit = Unit.SECONDS)
        double at) {
    /** So that a re-solve stays quick. */
    public static final int MOST = 50;

    private static final Declared<Rung> SETTINGS = Declared.of(Rung.class);
    /** Metres; the horizon at sea lies at half of it. */
    private static final double FARTHEST = 10_000;
    /** Seconds; as marks. */
    private static final double LATEST = 36_000;

    public Rung {
        SETTINGS.check(x, y, tied, metres, at);
        if (tied && metres > 0) {
            throw new IllegalArgumentException("a tied rung has the distance of the one before it and none of its own");
        }
    }

    /** A rung of a photo. */
    public static Rung at(double x, double y) {
        return new Rung(x, y, false, 0, 0);
    }

    /**
     * The same rungs.
     *
     * @throws IllegalArgumentException when they are no ladder
     */
    public static List<Rung> ladder(List<Rung> rungs) {
        if (rungs.size() > MOST) {
            throw new IllegalArgumentException("a ladder has at most " + MOST + " rungs, found " + rungs.size());
        }
        if (!rungs.isEmpty() && rungs.get(0).tied) {
            throw new IllegalArgumentException("the first rung of a ladder is tied to none");
        }
        double before = 0;
        for (Rung rung : rungs) {
            if (rung.metres > 0 && rung.metres <= before) {
                throw new IllegalArgumentException("the distances of a ladder must grow from rung to rung, found "
                        + Declared.text(rung.metres) + " m after " + Declared.text(before) + " m");
            }
            before = rung.metres > 0 ? rung.metres : before;
        }
        return List.copyOf(rungs);
    }
}
