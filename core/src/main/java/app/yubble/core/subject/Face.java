package app.yubble.core.subject;

/**
 * A face in a picture; everything in shares of the picture's width and height.
 *
 * @param left border of the box around it
 * @param top likewise
 * @param one an eye
 * @param other the other eye; in profile it may lie where it would be seen
 * @param sure how sure the finder is, in [0,1]
 */
public record Face(double left, double top, double width, double height, Point one, Point other, double sure) {
    /** A place in shares of width and height. */
    public record Point(double x, double y) {}

    /** How large it looks, in shares of the picture. */
    public double area() {
        return width * height;
    }

    public Point middle() {
        return new Point(left + width / 2, top + height / 2);
    }
}
