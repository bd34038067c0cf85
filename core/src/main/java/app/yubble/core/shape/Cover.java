package app.yubble.core.shape;

import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;

/** What of the scene a blur shape blurs where it lies. */
public record Cover(
        @Setting(means = "everything, or only what lies behind or in front of the shape's own depth")
        Which covers,

        @Setting(called = "Its depth", means = "where the shape stands in the scene", usual = 0.5, unit = Unit.NEARNESS)
        double depth,

        @Setting(
                called = "Depth fade",
                means = "over how much of depth its blur sets in around that",
                usual = 0.04,
                unit = Unit.NEARNESS)
        double depthFade) {
    /** What is blurred. */
    public enum Which {
        EVERYTHING,
        BEHIND,
        IN_FRONT
    }

    private static final Declared<Cover> SETTINGS = Declared.of(Cover.class);

    public static final Cover ALL = Declared.usual(Cover.class);

    public Cover {
        SETTINGS.check(covers, depth, depthFade);
    }

    /** How much of what has this nearness is covered, in [0,1]. */
    float share(float nearness) {
        if (covers == Which.EVERYTHING) {
            return 1;
        }
        double behind = depth - nearness;
        double ahead = covers == Which.BEHIND ? behind : -behind;
        return depthFade == 0 ? (ahead > 0 ? 1 : 0) : (float) Outline.smooth(0.5 + ahead / depthFade);
    }
}
