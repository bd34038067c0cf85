package app.yubble.core.touchup;

import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;
import java.util.List;
import java.util.stream.Collectors;

/** An object as the user points it out: nothing outside of the box belongs to it. */
public record PickOut(
        @Setting(means = "left edge of the box, as a share of the picture's width", slack = ROUNDING, unit = Unit.SHARE)
        double left,

        @Setting(
                means = "upper edge of the box, as a share of the picture's height",
                slack = ROUNDING,
                unit = Unit.SHARE)
        double top,

        @Setting(
                means = "width of the box, as a share of the picture's",
                usual = 1,
                slack = ROUNDING,
                unit = Unit.SHARE)
        double width,

        @Setting(
                means = "height of the box, as a share of the picture's",
                usual = 1,
                slack = ROUNDING,
                unit = Unit.SHARE)
        double height,

        @Setting(
                means =
                        "strokes on the object; those that erase lie on what does not belong to it. Where marks overlap the"
                                + " later one holds")
        List<Stroke> marks) {
    /** Of a box that reaches to the border. */
    private static final double ROUNDING = 1e-6;

    /** So that a recipe stays within what a request may have. */
    public static final int MOST_MARKS = 500;

    public PickOut {
        if (!(left >= 0
                && top >= 0
                && width > 0
                && height > 0
                && left + width <= 1 + ROUNDING
                && top + height <= 1 + ROUNDING)) {
            throw new IllegalArgumentException("the box of a pick-out must lie in the picture, found " + left + ", "
                    + top + ", " + width + ", " + height);
        }
        if (marks.size() > MOST_MARKS) {
            throw new IllegalArgumentException(
                    "a pick-out has at most " + MOST_MARKS + " marks, found " + marks.size());
        }
        marks = List.copyOf(marks);
    }

    /** Equal pick-outs and only those have equal keys. */
    public String key() {
        return left + " " + top + " " + width + " " + height + " "
                + marks.stream().map(Stroke::key).collect(Collectors.joining());
    }
}
