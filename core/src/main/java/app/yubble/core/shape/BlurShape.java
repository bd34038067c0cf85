package app.yubble.core.shape;

import app.yubble.core.clip.Mark;
import app.yubble.core.follow.Way;
import app.yubble.core.lens.Aperture;
import app.yubble.core.raster.Size;
import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unfolded;
import app.yubble.core.setting.Unit;
import app.yubble.core.touchup.Span;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** An area that is blurred on its own, besides the depth. */
public record BlurShape(
        @Setting(means = "tells blur shapes of a recipe apart; at most " + LONGEST_NAME + " characters")
        String id,

        @Setting(means = "as the user calls it; at most " + LONGEST_NAME + " characters")
        String name,

        @Setting(means = "its outline; a line goes on without end to both sides")
        Form form,

        @Unfolded Place place,

        @Setting(
                called = "Corners",
                means = "how round the corners of a rectangle are: 1 is half of its shorter side",
                usual = 0.3,
                unit = Unit.SHARE)
        double corners,

        @Setting(
                called = "Soft border",
                means = "over how much its blur grows from a tenth to nine tenths, across the outline",
                most = 0.5,
                usual = USUAL_SOFT,
                unit = Unit.SIDE)
        double soft,

        @Setting(
                called = "Strength",
                means = "of its blur; 100 is a radius of 6 % of the picture's diagonal",
                most = 100,
                usual = USUAL_STRENGTH,
                unit = Unit.PERCENT)
        double strength,

        @Setting(called = "Outside", means = "blurs what lies outside of it")
        boolean outside,

        @Setting(called = "Shown", means = "acts at all", usual = 1)
        boolean shown,

        @Unfolded Cover cover,
        @Unfolded Tie tie,

        @Setting(means = "where it lies at moments of a clip, in order; at most " + MOST_MARKS)
        List<ShapeMark> marks,

        @Unfolded Span span) {
    /** An outline. */
    public enum Form {
        ELLIPSE,
        RECTANGLE,
        LINE
    }

    private static final Declared<BlurShape> SETTINGS = Declared.of(BlurShape.class);
    /** Characters. */
    private static final int LONGEST_NAME = 80;
    /** Whoever needs more ties it to a follow. */
    private static final int MOST_MARKS = 500;
    /** Of the longer side. */
    private static final double USUAL_SOFT = 0.02;
    /** Per cent; what lies under it is no longer made out in a portrait. */
    private static final double USUAL_STRENGTH = 15;

    public BlurShape {
        SETTINGS.check(id, name, form, place, corners, soft, strength, outside, shown, cover, tie, marks, span);
        if (id.isBlank() || id.length() > LONGEST_NAME || name.length() > LONGEST_NAME) {
            throw new IllegalArgumentException(
                    "a blur shape needs an id of at most " + LONGEST_NAME + " characters, and its name has no more");
        }
        if (tie.follow().length() > LONGEST_NAME) {
            throw new IllegalArgumentException("a follow's id has at most " + LONGEST_NAME + " characters");
        }
        if (marks.size() > MOST_MARKS) {
            throw new IllegalArgumentException(
                    "a blur shape has at most " + MOST_MARKS + " marks, found " + marks.size());
        }
        Mark.requireOrder(marks, "a blur shape");
        marks = List.copyOf(marks);
    }

    /** Over everything, at the usual strength. */
    public static BlurShape of(String id, Form form, Place place) {
        return new BlurShape(
                id,
                "",
                form,
                place,
                0,
                USUAL_SOFT,
                USUAL_STRENGTH,
                false,
                true,
                Cover.ALL,
                Tie.NONE,
                List.of(),
                Span.ALL);
    }

    public boolean acts() {
        return shown && strength > 0;
    }

    /** Blur radius in pixels of a picture. */
    public double radius(Size size) {
        return Aperture.DEFAULT.withFree(strength).radiusPerNearness(size, 1);
    }

    /**
     * What it is at a time of a clip.
     *
     * @param way of the point it is tied to; null when that is not known
     */
    public BlurShape at(double seconds, @Nullable Way way) {
        Place now = marks.isEmpty() ? place : Mark.valueAt(marks, seconds, ShapeMark::place, Place::between);
        if (way != null) {
            Way.At here = way.at(seconds);
            Way.At there = way.at(tie.tiedAt());
            now = now.moved(here.x() - there.x(), here.y() - there.y());
        }
        return new BlurShape(
                id,
                name,
                form,
                now,
                corners,
                soft,
                strength * span.at(seconds),
                outside,
                shown,
                cover,
                Tie.NONE,
                List.of(),
                Span.ALL);
    }
}
