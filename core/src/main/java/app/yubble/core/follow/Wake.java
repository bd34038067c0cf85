package app.yubble.core.follow;

import java.util.List;
import java.util.OptionalDouble;

/**
 * The depth under a followed point at the frames of a clip.
 *
 * @param points in the frames' order
 */
public record Wake(List<Under> points) {
    /** Deviations of the smoothing that are looked at. */
    private static final double REACH = 3;
    /** Of the time that depth is averaged over: half of it lies within one deviation to either side. */
    private static final double DEVIATION = 0.5;
    /** What depth counts where it is seen, but not surely the point's. */
    private static final double UNSURE = 0.2;
    /** Seconds; shorter smoothing is none. */
    private static final double SHORTEST = 1e-3;

    /**
     * The depth under a point at a frame.
     *
     * @param seconds from the first frame
     * @param nearness after the depth trim
     * @param weight how much it counts, in [0,1]; 0 where the point is hidden
     */
    public record Under(double seconds, double nearness, double weight) {
        public static Under of(double seconds, double nearness, TrackPoint point) {
            return new Under(seconds, nearness, point.sure() ? 1 : point.visible() ? UNSURE : 0);
        }
    }

    public Wake {
        points = List.copyOf(points);
    }

    /** From when to when frames are needed for {@link #nearnessAt}, before and after, in seconds. */
    public static double reach(Follow follow) {
        return REACH * DEVIATION * follow.smooth();
    }

    /**
     * Nearness around a time, by a Gaussian over what is seen; where the point is hidden for longer it goes straight from where it was
     * seen last to where it is next. Empty when it is never seen.
     */
    public OptionalDouble nearnessAt(double seconds, double smooth) {
        double deviation = Math.max(SHORTEST, DEVIATION * smooth);
        double sum = 0;
        double weights = 0;
        Under before = null;
        Under after = null;
        for (Under each : points) {
            if (each.weight() == 0) {
                continue;
            }
            double away = each.seconds() - seconds;
            if (away <= 0) {
                before = each;
            } else if (after == null) {
                after = each;
            }
            if (Math.abs(away) <= REACH * deviation) {
                double weight = each.weight() * Math.exp(-away * away / (2 * deviation * deviation));
                sum += weight * each.nearness();
                weights += weight;
            }
        }
        if (weights > 0) {
            return OptionalDouble.of(sum / weights);
        }
        if (before == null) {
            return after == null ? OptionalDouble.empty() : OptionalDouble.of(after.nearness());
        }
        if (after == null) {
            return OptionalDouble.of(before.nearness());
        }
        double share = (seconds - before.seconds()) / (after.seconds() - before.seconds());
        return OptionalDouble.of(before.nearness() + share * (after.nearness() - before.nearness()));
    }
}
