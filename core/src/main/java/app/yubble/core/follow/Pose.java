package app.yubble.core.follow;

/**
 * Where a patch lies in a frame: its middle, and how it is turned and enlarged, as the complex number {@code across + i down} by which
 * places in the patch are multiplied.
 */
record Pose(double x, double y, double across, double down) {
    static Pose at(double x, double y) {
        return new Pose(x, y, 1, 0);
    }

    double scale() {
        return Math.hypot(across, down);
    }

    /** In radians. */
    double turn() {
        return Math.atan2(down, across);
    }

    /** Of a place (u, v) of the patch. */
    double xOf(double u, double v) {
        return x + across * u - down * v;
    }

    double yOf(double u, double v) {
        return y + down * u + across * v;
    }

    Pose movedTo(double newX, double newY) {
        return new Pose(newX, newY, across, down);
    }

    Pose enlarged(double factor) {
        return new Pose(x, y, across * factor, down * factor);
    }

    /** How this is turned and enlarged against another, put at this place. */
    Pose against(Pose other) {
        double squared = other.across * other.across + other.down * other.down;
        return new Pose(
                x,
                y,
                (across * other.across + down * other.down) / squared,
                (down * other.across - across * other.down) / squared);
    }

    /** Turned and enlarged by another as well, at this place. */
    Pose times(Pose other) {
        return new Pose(x, y, across * other.across - down * other.down, across * other.down + down * other.across);
    }

    double distance(Pose other) {
        return Math.hypot(x - other.x, y - other.y);
    }
}
