package app.yubble.core.touchup;

import app.yubble.core.focus.SharpBand;
import app.yubble.core.raster.Size;
import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unfolded;
import app.yubble.core.setting.Unit;
import java.util.List;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** A group of strokes with one action and one strength, which acts on all of them. */
public record Touchup(
        @Setting(means = "tells touch-ups of a recipe apart; at most " + LONGEST_NAME + " characters")
        String id,

        @Setting(means = "as the user calls it; at most " + LONGEST_NAME + " characters")
        String name,

        @Setting(
                means =
                        "`focus` and `match` lead to `target`, `focus` of a kept subject into the band, `blur` leads out of the band,"
                                + " `reveal` gives back the untouched photo")
        Action action,

        @Setting(
                called = "Strength",
                means =
                        "how far; of a blur the distance out of the band in nearness, in front when negative, which it is for"
                                + " no other",
                least = -1,
                usual = 1,
                unit = Unit.SHARE)
        double strength,

        @Setting(called = "Target", means = "where focus and match lead to", unit = Unit.NEARNESS)
        double target,

        @Setting(called = "Shown", means = "acts at all", usual = 1)
        boolean shown,

        @Setting(called = "Inverted", means = "acts where nothing is painted")
        boolean inverted,

        @Setting(means = "painted one after the other; at most " + MOST_STROKES)
        List<Stroke> strokes,

        @Unfolded Start start,
        @Unfolded Rim rim,
        @Unfolded Span span) {
    private static final Declared<Touchup> SETTINGS = Declared.of(Touchup.class);
    /** Characters. */
    private static final int LONGEST_NAME = 80;
    /** So that a recipe stays within what a request may have. */
    private static final int MOST_STROKES = 2000;
    /** Whoever corrects more often paints. */
    private static final int MOST_KEPT = 100;

    /** What a touch-up's mask begins with, at most one of the three; strokes add to it and take away from it. */
    public record Start(
            @Setting(means = "an object that the mask begins with") @Nullable
            PickOut pickOut,

            @Setting(
                    written = "maskFile",
                    means =
                            "SHA-256 hash (hexadecimal) of a mask the touch-up begins with, instead of a pick-out. The command"
                                    + " line reads it from `HASH.png` beside the recipe")
            @Nullable
            String file,

            @Setting(
                    means =
                            "a subject that is kept through a clip: what was said of it at moments, in the order in which it was"
                                    + " said; at most " + MOST_KEPT)
            List<KeptAt> kept) {
        public static final Start EMPTY = new Start(null, null);
        private static final Pattern HASH = Pattern.compile("[0-9a-f]{64}");

        public Start {
            if ((pickOut == null ? 0 : 1) + (file == null ? 0 : 1) + (kept.isEmpty() ? 0 : 1) > 1) {
                throw new IllegalArgumentException(
                        "a touch-up begins with a pick-out, a mask file or a kept subject, not with more than one");
            }
            if (kept.size() > MOST_KEPT) {
                throw new IllegalArgumentException(
                        "of a kept subject at most " + MOST_KEPT + " moments are told, found " + kept.size());
            }
            if (!kept.isEmpty() && kept.get(0).by() == KeptAt.By.CARRIED) {
                throw new IllegalArgumentException("a kept subject must be pointed out before it is put right");
            }
            kept = List.copyOf(kept);
            if (file != null && !HASH.matcher(file).matches()) {
                throw new IllegalArgumentException("a mask file is named by 64 digits and letters a to f");
            }
        }

        public Start(@Nullable PickOut pickOut, @Nullable String file) {
            this(pickOut, file, List.of());
        }

        boolean isEmpty() {
            return pickOut == null && file == null && kept.isEmpty();
        }

        /** Equal starts and only those have equal keys. */
        public String key() {
            return pickOut != null ? pickOut.key() : file != null ? file : KeptAt.key(kept);
        }
    }

    /** The edge of a mask. */
    public record Rim(
            @Setting(
                    called = "Grow",
                    means = "moves the edge of all that is painted out, in when negative",
                    least = -MOST,
                    most = MOST,
                    unit = Unit.SIDE)
            double grow,

            @Setting(
                    called = "Soften",
                    means = "over how much to either side that edge fades",
                    most = MOST,
                    unit = Unit.SIDE)
            double soften) {
        private static final Declared<Rim> SETTINGS = Declared.of(Rim.class);
        /** Of the longer side: 300 pixels of a large photo. */
        private static final double MOST = 0.05;

        public static final Rim PLAIN = Declared.usual(Rim.class);

        /** How many pixels around a place it is seen from. */
        public int reach(Size picture) {
            return equals(PLAIN) ? 0 : (int) Math.ceil((Math.abs(grow) + soften) * picture.longSide()) + 3;
        }

        public Rim {
            SETTINGS.check(grow, soften);
        }
    }

    /** What painting does. */
    public enum Action {
        /** Leads to the depth that the sharp band had when the touch-up was begun; of a subject that is kept to where it is. */
        FOCUS,
        /** Leads away from the band: behind it, or in front when the strength is negative. */
        BLUR,
        /** Leads to the depth picked elsewhere. */
        MATCH,
        /** Gives back the untouched photo and leaves depth alone. */
        REVEAL
    }

    public Touchup {
        SETTINGS.check(id, name, action, strength, target, shown, inverted, strokes, start, rim, span);
        if (id.isBlank() || id.length() > LONGEST_NAME) {
            throw new IllegalArgumentException("a touch-up needs an id of at most " + LONGEST_NAME + " characters");
        }
        if (name.length() > LONGEST_NAME) {
            throw new IllegalArgumentException("a touch-up's name has at most " + LONGEST_NAME + " characters");
        }
        if (strength < 0 && action != Action.BLUR) {
            throw new IllegalArgumentException(
                    "only the strength of a blur is in -1..1, of others in 0..1, found " + strength);
        }
        if (strokes.size() > MOST_STROKES) {
            throw new IllegalArgumentException(
                    "a touch-up has at most " + MOST_STROKES + " strokes, found " + strokes.size());
        }
        strokes = List.copyOf(strokes);
    }

    /** One with strokes only. */
    public static Touchup of(String id, Action action, double strength, double target, Stroke... strokes) {
        return new Touchup(
                id, "", action, strength, target, true, false, List.of(strokes), Start.EMPTY, Rim.PLAIN, Span.ALL);
    }

    public Touchup withStrokes(List<Stroke> value) {
        return new Touchup(id, name, action, strength, target, shown, inverted, value, start, rim, span);
    }

    public Touchup withId(String value) {
        return new Touchup(value, name, action, strength, target, shown, inverted, strokes, start, rim, span);
    }

    public Touchup withStart(Start value) {
        return new Touchup(id, name, action, strength, target, shown, inverted, strokes, value, rim, span);
    }

    public Touchup withSpan(Span value) {
        return new Touchup(id, name, action, strength, target, shown, inverted, strokes, start, rim, value);
    }

    /** What it is at a time of a clip: as strong as it is there. */
    public Touchup at(double seconds) {
        return new Touchup(
                id, name, action, strength * span.at(seconds), target, shown, inverted, strokes, start, rim, Span.ALL);
    }

    /** Whether the result can differ for it. */
    public boolean acts() {
        return shown && strength != 0 && (inverted || !strokes.isEmpty() || !start.isEmpty());
    }

    /** Whether nearness is changed by it, and not only what is shown. */
    public boolean changesDepth() {
        return action != Action.REVEAL;
    }

    /** Whether what it does depends on where the sharp band is now. */
    public boolean readsBand() {
        return action == Action.BLUR || action == Action.FOCUS && !start.kept().isEmpty();
    }

    /**
     * Nearness after the action on a pixel that is painted to the share {@code paint}.
     *
     * <p>A blur is a distance outside the band, whether the pixel was in it, before it or behind it; so it goes along when the
     * band is moved.
     */
    float moved(float nearness, float paint, SharpBand band) {
        return switch (action) {
            case FOCUS ->
                nearness + (float) (paint * strength * ((start.kept().isEmpty() ? target : band.centre()) - nearness));
            case MATCH -> nearness + (float) (paint * strength * (target - nearness));
            case BLUR -> {
                double from = strength > 0 ? Math.min(nearness, band.far()) : Math.max(nearness, band.near());
                yield nearness + (float) (paint * (from - strength - nearness));
            }
            case REVEAL -> nearness;
        };
    }
}
