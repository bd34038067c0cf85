package app.yubble.core.follow;

/** Where the point was put by hand. */
public record Anchor(int frame, double x, double y) {
    public Anchor {
        if (frame < 0 || !Double.isFinite(x) || !Double.isFinite(y)) {
            throw new IllegalArgumentException(
                    "a followed point is put on a frame and a place, found frame " + frame + ", " + x + ", " + y);
        }
    }
}
