package app.yubble.core.follow;

import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unfolded;
import app.yubble.core.setting.Unit;
import app.yubble.core.touchup.Span;
import java.util.List;

/** A point tracked through a clip, to which the sharp band can be tied. */
public record Follow(
        @Setting(means = "tells follows of a recipe apart; at most " + LONGEST_NAME + " characters")
        String id,

        @Setting(means = "as the user calls it; at most " + LONGEST_NAME + " characters")
        String name,

        @Setting(means = "where the point was put by hand, in order of time; at least one, at most " + MOST_PUTS)
        List<Put> puts,

        @Setting(means = "it is an eye, which is found again by the face around it")
        boolean eye,

        @Setting(called = "Focus follows", means = "the sharp band keeps to what is under the point", usual = 1)
        boolean focus,

        @Setting(
                called = "Band width",
                means = "width of the band around that depth",
                usual = USUAL_WIDTH,
                unit = Unit.NEARNESS)
        double width,

        @Setting(
                called = "Lead",
                means = "the band is where the point will be after this time; when negative, where it was",
                least = -5,
                most = 5,
                unit = Unit.SECONDS)
        double lead,

        @Setting(
                called = "Smooth",
                means = "over how much time the depth under the point is averaged",
                most = 5,
                usual = USUAL_SMOOTH,
                unit = Unit.SECONDS)
        double smooth,

        @Unfolded Span span) {
    private static final Declared<Follow> SETTINGS = Declared.of(Follow.class);
    /** Of the band, in nearness. */
    public static final double USUAL_WIDTH = 0.08;
    /** Characters. */
    private static final int LONGEST_NAME = 80;
    /** Seconds; steps of estimated depth from frame to frame are gone, and who walks is not left behind. */
    public static final double USUAL_SMOOTH = 0.4;
    /** Whoever corrects more often than that sets marks instead. */
    private static final int MOST_PUTS = 200;

    public Follow {
        SETTINGS.check(id, name, puts, eye, focus, width, lead, smooth, span);
        if (id.isBlank() || id.length() > LONGEST_NAME || name.length() > LONGEST_NAME) {
            throw new IllegalArgumentException(
                    "a follow needs an id of at most " + LONGEST_NAME + " characters, and its name has no more");
        }
        if (puts.isEmpty() || puts.size() > MOST_PUTS) {
            throw new IllegalArgumentException(
                    "a follow is put by hand at 1 to " + MOST_PUTS + " moments, found " + puts.size());
        }
        for (int i = 1; i < puts.size(); i++) {
            if (puts.get(i).at() <= puts.get(i - 1).at()) {
                throw new IllegalArgumentException("the moments at which a follow is put must follow each other");
            }
        }
        puts = List.copyOf(puts);
    }
}
