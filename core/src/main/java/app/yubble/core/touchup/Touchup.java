package app.yubble.core.touchup;

import app.yubble.core.focus.SharpBand;
import java.util.List;

/**
 * A group of strokes with one action and one strength, which acts on all of them.
 *
 * @param id tells touch-ups of a recipe apart
 * @param name as the user calls it
 * @param strength how far the action goes, in [0,1]; of a blur in [-1,1], in front when negative
 * @param target nearness that focus and match lead to; without meaning for the others
 * @param inverted acts where nothing is painted
 */
public record Touchup(
        String id,
        String name,
        Action action,
        double strength,
        double target,
        boolean shown,
        boolean inverted,
        List<Stroke> strokes) {
    /** What painting does. */
    public enum Action {
        /** Leads to the depth that the sharp band had when the touch-up was begun. */
        FOCUS,
        /** Leads away from the band: behind it, or in front when the strength is negative. */
        BLUR,
        /** Leads to the depth picked elsewhere. */
        MATCH,
        /** Gives back the untouched photo and leaves depth alone. */
        REVEAL
    }

    public Touchup {
        double least = action == Action.BLUR ? -1 : 0;
        if (!(strength >= least && strength <= 1)) {
            throw new IllegalArgumentException(
                    "touch-up strength must be in " + (int) least + "..1, found " + strength);
        }
        if (!(target >= 0 && target <= 1)) {
            throw new IllegalArgumentException("touch-up target must be in 0..1, found " + target);
        }
        strokes = List.copyOf(strokes);
    }

    /** Whether the result can differ for it. */
    public boolean acts() {
        return shown && strength != 0 && (inverted || !strokes.isEmpty());
    }

    /** Whether nearness is changed by it, and not only what is shown. */
    public boolean changesDepth() {
        return action != Action.REVEAL;
    }

    /**
     * Nearness after the action on a pixel that is painted to the share {@code paint}.
     *
     * <p>A blur is a distance outside the band, whether the pixel was in it, before it or behind it; so it goes along when the
     * band is moved.
     */
    float moved(float nearness, float paint, SharpBand band) {
        return switch (action) {
            case FOCUS, MATCH -> nearness + (float) (paint * strength * (target - nearness));
            case BLUR -> {
                double from = strength > 0 ? Math.min(nearness, band.far()) : Math.max(nearness, band.near());
                yield nearness + (float) (paint * (from - strength - nearness));
            }
            case REVEAL -> nearness;
        };
    }
}
