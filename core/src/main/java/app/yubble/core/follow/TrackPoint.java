package app.yubble.core.follow;

import app.yubble.core.raster.Size;

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

    /** Of a place in pixels of a frame of this size, in shares of its sides. */
    public TrackPoint inShares(Size size) {
        return new TrackPoint((x + 0.5) / size.width(), (y + 0.5) / size.height(), visible, sure);
    }

    static TrackPoint guessed(double x, double y) {
        return new TrackPoint(x, y, false, false);
    }
}
