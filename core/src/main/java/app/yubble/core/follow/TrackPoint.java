package app.yubble.core.follow;

/**
 * Where a followed point is at a frame.
 *
 * @param visible whether it is seen; its place is guessed when not
 * @param sure whether one may rely on the place
 */
public record TrackPoint(double x, double y, boolean visible, boolean sure) {
    public TrackPoint {
        if (sure && !visible) {
            throw new IllegalArgumentException("what is not seen is not sure");
        }
    }

    static TrackPoint guessed(double x, double y) {
        return new TrackPoint(x, y, false, false);
    }
}
