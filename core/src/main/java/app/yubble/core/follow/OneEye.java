package app.yubble.core.follow;

import java.util.Comparator;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The eye on which a point was put, to look for it among faces. */
final class OneEye {
    /** Widths of a face within which a point lies on one of its eyes. */
    private static final double ON_IT = 0.15;
    /** Times by which a face may have become larger or smaller while it was hidden. */
    private static final double MOST_GROWTH = 1.8;
    /** Widths of a face within which it is looked for in the first frame. */
    private static final double REACH = 1;
    /** By which that grows with each frame. */
    private static final double GROWS = 0.1;
    /** Frames after which it is looked for everywhere. */
    private static final int EVERYWHERE_AFTER = 36;
    /** Times as far away as the nearest that another face must be so that they are not taken for each other. */
    private static final double APART = 2;

    private final EyeFinder finder;
    private final boolean isOther;
    private final double width;
    /** From the eye that is found to the point, in widths of the face. */
    private final double across;

    private final double down;

    private OneEye(EyeFinder finder, EyeFinder.Eyes face, boolean isOther, Anchor anchor) {
        this.finder = finder;
        this.isOther = isOther;
        width = face.width();
        across = (anchor.x() - face.eye(isOther).x()) / width;
        down = (anchor.y() - face.eye(isOther).y()) / width;
    }

    /** Null when the point lies on no eye. */
    static @Nullable OneEye at(EyeFinder finder, GreyFrame frame, Anchor anchor) {
        OneEye best = null;
        double nearest = ON_IT;
        for (EyeFinder.Eyes face : finder.find(frame)) {
            for (boolean other : new boolean[] {false, true}) {
                double away = face.eye(other).distance(anchor.x(), anchor.y()) / face.width();
                if (away <= nearest) {
                    nearest = away;
                    best = new OneEye(finder, face, other, anchor);
                }
            }
        }
        return best;
    }

    /**
     * Where it is.
     *
     * @param scale against the frame in which the point was put
     * @param sure whether no other face can be meant
     */
    record Hit(double x, double y, double scale, boolean sure) {}

    /**
     * Looks for it.
     *
     * @param expected where it would be, as large as it would be against the frame in which it was put
     * @param hidden frames since it was seen
     */
    @Nullable
    Hit look(GreyFrame frame, Pose expected, int hidden) {
        double likely = width * expected.scale();
        List<EyeFinder.Eyes> faces = finder.find(frame).stream()
                .filter(each -> each.width() < likely * MOST_GROWTH && each.width() > likely / MOST_GROWTH)
                .sorted(Comparator.comparingDouble(each -> away(each, expected)))
                .toList();
        double reach = hidden > EVERYWHERE_AFTER ? Double.MAX_VALUE : likely * (REACH + GROWS * hidden);
        if (faces.isEmpty() || away(faces.get(0), expected) > reach) {
            return null;
        }
        EyeFinder.Eyes face = faces.get(0);
        EyeFinder.At eye = face.eye(isOther);
        boolean alone = faces.size() == 1 || away(faces.get(1), expected) > APART * away(face, expected) + likely;
        return new Hit(eye.x() + across * face.width(), eye.y() + down * face.width(), face.width() / width, alone);
    }

    /** Whether a place lies on the eye that was found. */
    boolean isOn(Hit hit, Pose place) {
        return Math.hypot(hit.x() - place.x(), hit.y() - place.y()) <= ON_IT * width * hit.scale();
    }

    private double away(EyeFinder.Eyes face, Pose expected) {
        return face.eye(isOther).distance(expected.x(), expected.y());
    }
}
