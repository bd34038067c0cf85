package app.yubble.core.follow;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Places for the frames at which a point is not seen. */
final class Filled {
    private Filled() {}

    /**
     * Between two frames at which it is seen it goes straight; elsewhere what was guessed stays.
     *
     * @param found null for frames that were not looked at
     */
    static List<TrackPoint> of(@Nullable TrackPoint[] found, List<Anchor> anchors) {
        List<TrackPoint> out = new ArrayList<>();
        int seen = -1;
        for (int frame = 0; frame < found.length; frame++) {
            TrackPoint own = found[frame];
            if (own == null) {
                Anchor nearest = nearest(anchors, frame);
                own = TrackPoint.guessed(nearest.x(), nearest.y());
            }
            out.add(own);
            if (own.visible()) {
                if (seen >= 0) {
                    straight(out, seen, frame);
                }
                seen = frame;
            }
        }
        return List.copyOf(out);
    }

    private static Anchor nearest(List<Anchor> anchors, int frame) {
        Anchor best = anchors.get(0);
        for (Anchor each : anchors) {
            if (Math.abs(each.frame() - frame) < Math.abs(best.frame() - frame)) {
                best = each;
            }
        }
        return best;
    }

    private static void straight(List<TrackPoint> all, int from, int to) {
        TrackPoint a = all.get(from);
        TrackPoint b = all.get(to);
        for (int frame = from + 1; frame < to; frame++) {
            double share = (double) (frame - from) / (to - from);
            all.set(frame, TrackPoint.guessed(a.x() + share * (b.x() - a.x()), a.y() + share * (b.y() - a.y())));
        }
    }
}
