package app.yubble.core.touchup;

import java.util.List;
import java.util.stream.Collectors;

/**
 * An object as the user points it out.
 *
 * @param left of the box, in shares of the picture's width; nothing outside of the box belongs to the object
 * @param top in shares of the height
 * @param marks strokes on the object; those that erase lie on what does not belong to it. Where marks overlap the later
 *     one holds
 */
public record PickOut(double left, double top, double width, double height, List<Stroke> marks) {
    public static final int MOST_MARKS = 500;

    public PickOut {
        if (!(left >= 0
                && top >= 0
                && width > 0
                && height > 0
                && left + width <= 1 + 1e-6
                && top + height <= 1 + 1e-6)) {
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
