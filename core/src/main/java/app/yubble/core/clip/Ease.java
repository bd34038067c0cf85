package app.yubble.core.clip;

import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;
import java.util.List;

/** How a value goes from one mark to the next. */
public record Ease(
        @Setting(
                means =
                        "how values go on from this mark to the next: `smooth` (3t^2-2t^3), `straight`, `hold` until the next, or"
                                + " `drawn` along `curve`")
        Kind ease,

        @Setting(means = "points of a drawn ease between its ends 0, 0 and 1, 1; at most " + MOST_POINTS)
        List<CurvePoint> curve) {
    private static final Declared<Ease> SETTINGS = Declared.of(Ease.class);
    /** A hand draws no more bends than that on a piece of ribbon. */
    public static final int MOST_POINTS = 32;

    public static final Ease SMOOTH = Declared.usual(Ease.class);
    public static final Ease STRAIGHT = new Ease(Kind.STRAIGHT, List.of());
    public static final Ease HOLD = new Ease(Kind.HOLD, List.of());

    /** The kinds of ease. */
    public enum Kind {
        SMOOTH,
        STRAIGHT,
        HOLD,
        DRAWN
    }

    /** A point of a drawn ease. */
    public record CurvePoint(
            @Setting(means = "share of the time between the marks", unit = Unit.SHARE)
            double along,

            @Setting(means = "share of the way between the values", unit = Unit.SHARE)
            double way) {
        private static final Declared<CurvePoint> SETTINGS = Declared.of(CurvePoint.class);

        public CurvePoint {
            SETTINGS.check(along, way);
        }
    }

    public Ease {
        SETTINGS.check(ease, curve);
        curve = List.copyOf(curve);
        if (curve.size() > MOST_POINTS) {
            throw new IllegalArgumentException(
                    "a drawn ease has at most " + MOST_POINTS + " points, found " + curve.size());
        }
        for (int i = 1; i < curve.size(); i++) {
            if (curve.get(i).along() <= curve.get(i - 1).along()) {
                throw new IllegalArgumentException("points of a drawn ease must follow each other in time");
            }
        }
    }

    /** A drawn ease through points between its ends. */
    public static Ease drawn(List<CurvePoint> points) {
        return new Ease(Kind.DRAWN, points);
    }

    /**
     * The share of the way at a share of the time, both in [0,1].
     *
     * <p>A drawn ease is a cubic through its points whose slopes never let it swing over them: F. N. Fritsch and R. E. Carlson,
     * "Monotone Piecewise Cubic Interpolation", SIAM J. Numer. Anal. 17 (1980), with the harmonic mean of Fritsch and Butland (1984)
     * for the slopes at points.
     */
    public double share(double time) {
        double t = Math.max(0, Math.min(1, time));
        return switch (ease) {
            case SMOOTH -> t * t * (3 - 2 * t);
            case STRAIGHT -> t;
            case HOLD -> t < 1 ? 0 : 1;
            case DRAWN -> onCurve(t);
        };
    }

    private double onCurve(double t) {
        int piece = 0;
        while (piece < curve.size() && t >= curve.get(piece).along()) {
            piece++;
        }
        double from = along(piece);
        double length = along(piece + 1) - from;
        if (length <= 0) {
            return way(piece + 1);
        }
        double s = (t - from) / length;
        double rest = 1 - s;
        return way(piece) * rest * rest * (1 + 2 * s)
                + way(piece + 1) * s * s * (1 + 2 * rest)
                + length * s * rest * (slope(piece) * rest - slope(piece + 1) * s);
    }

    /** Of point {@code i}, where 0 and one more than there are points are the ends. */
    private double along(int i) {
        return i == 0 ? 0 : i > curve.size() ? 1 : curve.get(i - 1).along();
    }

    private double way(int i) {
        return i == 0 ? 0 : i > curve.size() ? 1 : curve.get(i - 1).way();
    }

    private double slope(int i) {
        if (i == 0) {
            return rise(0);
        }
        if (i > curve.size()) {
            return rise(curve.size());
        }
        double before = rise(i - 1);
        double after = rise(i);
        return before * after <= 0 ? 0 : 2 * before * after / (before + after);
    }

    private double rise(int piece) {
        double length = along(piece + 1) - along(piece);
        return length <= 0 ? 0 : (way(piece + 1) - way(piece)) / length;
    }
}
