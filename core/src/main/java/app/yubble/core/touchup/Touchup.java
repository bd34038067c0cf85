package app.yubble.core.touchup;

import app.yubble.core.focus.SharpBand;
import app.yubble.core.raster.Size;
import java.util.List;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A group of strokes with one action and one strength, which acts on all of them.
 *
 * @param id tells touch-ups of a recipe apart
 * @param name as the user calls it
 * @param strength how far the action goes, in [0,1]; of a blur in [-1,1], in front when negative
 * @param target nearness that focus and match lead to; without meaning for the others
 * @param inverted acts where nothing is painted
 * @param start what is painted before the first stroke
 * @param rim what happens to the edge of all that is painted
 */
public record Touchup(
        String id,
        String name,
        Action action,
        double strength,
        double target,
        boolean shown,
        boolean inverted,
        List<Stroke> strokes,
        Start start,
        Rim rim) {
    /**
     * What a touch-up's mask begins with; strokes add to it and take away from it.
     *
     * @param pickOut an object, or null
     * @param file the hash of a mask from a file, or null; there is at most one of the two
     */
    public record Start(@Nullable PickOut pickOut, @Nullable String file) {
        public static final Start EMPTY = new Start(null, null);
        private static final Pattern HASH = Pattern.compile("[0-9a-f]{64}");

        public Start {
            if (pickOut != null && file != null) {
                throw new IllegalArgumentException(
                        "a touch-up begins with a pick-out or with a mask file, not with both");
            }
            if (file != null && !HASH.matcher(file).matches()) {
                throw new IllegalArgumentException("a mask file is named by 64 digits and letters a to f");
            }
        }

        boolean isEmpty() {
            return pickOut == null && file == null;
        }

        /** Equal starts and only those have equal keys. */
        public String key() {
            return pickOut != null ? pickOut.key() : file == null ? "" : file;
        }
    }

    /**
     * The edge of a mask, in shares of the picture's longer side.
     *
     * @param grow how far the mask reaches beyond its edge; shrinks it when negative
     * @param soften over how much to either side the edge fades
     */
    public record Rim(double grow, double soften) {
        public static final Rim PLAIN = new Rim(0, 0);
        private static final double MOST = 0.05;

        /** How many pixels around a place it is seen from. */
        public int reach(Size picture) {
            return equals(PLAIN) ? 0 : (int) Math.ceil((Math.abs(grow) + soften) * picture.longSide()) + 3;
        }

        public Rim {
            if (!(Math.abs(grow) <= MOST && soften >= 0 && soften <= MOST)) {
                throw new IllegalArgumentException("a mask's edge moves and fades by at most " + MOST
                        + " of the picture, found " + grow + " and " + soften);
            }
        }
    }

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

    /** One with strokes only. */
    public static Touchup of(String id, Action action, double strength, double target, Stroke... strokes) {
        return new Touchup(id, "", action, strength, target, true, false, List.of(strokes), Start.EMPTY, Rim.PLAIN);
    }

    public Touchup withStrokes(List<Stroke> value) {
        return new Touchup(id, name, action, strength, target, shown, inverted, value, start, rim);
    }

    /** Whether the result can differ for it. */
    public boolean acts() {
        return shown && strength != 0 && (inverted || !strokes.isEmpty() || !start.isEmpty());
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
