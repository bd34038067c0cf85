package app.yubble.core.follow;

import java.util.List;

/** Finds the eyes of faces, by which an eye that was hidden is found again however its head has turned. */
@FunctionalInterface
public interface EyeFinder {
    List<Eyes> find(GreyFrame frame);

    /**
     * Both eyes of a face, in pixels.
     *
     * @param one always the same of the two
     * @param width of the face
     */
    record Eyes(At one, At other, double width) {
        At eye(boolean isOther) {
            return isOther ? other : one;
        }
    }

    /** A place in a frame. */
    record At(double x, double y) {
        double distance(double otherX, double otherY) {
            return Math.hypot(x - otherX, y - otherY);
        }
    }
}
