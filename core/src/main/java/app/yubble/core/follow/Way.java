package app.yubble.core.follow;

import java.util.List;
import java.util.function.IntToDoubleFunction;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/**
 * Where a followed point is over time.
 *
 * @param places where it is seen, in order of time; at least one
 */
public record Way(List<At> places) {
    /**
     * A place at a time.
     *
     * @param seconds from the first frame
     * @param x share of the picture's width
     * @param y share of the picture's height
     */
    public record At(double seconds, double x, double y) {}

    /**
     * The way of a track; null for a point that is never seen.
     *
     * @param points of the frames, in shares of the picture's sides
     * @param seconds of a frame
     */
    public static @Nullable Way of(List<TrackPoint> points, IntToDoubleFunction seconds) {
        List<At> seen = IntStream.range(0, points.size())
                .filter(i -> points.get(i).visible())
                .mapToObj(i -> new At(
                        seconds.applyAsDouble(i),
                        points.get(i).x(),
                        points.get(i).y()))
                .toList();
        return seen.isEmpty() ? null : new Way(seen);
    }

    public Way {
        places = List.copyOf(places);
        if (places.isEmpty()) {
            throw new IllegalArgumentException("a way has at least one place");
        }
    }

    /** Where it is; straight from place to place while it is hidden, and before the first and after the last where those are. */
    public At at(double seconds) {
        int low = 0;
        int high = places.size();
        while (low < high) {
            int middle = (low + high) / 2;
            if (places.get(middle).seconds() < seconds) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        if (low == 0 || low == places.size()) {
            return places.get(Math.max(0, low - 1));
        }
        At from = places.get(low - 1);
        At to = places.get(low);
        double share = (seconds - from.seconds()) / (to.seconds() - from.seconds());
        return new At(seconds, from.x() + share * (to.x() - from.x()), from.y() + share * (to.y() - from.y()));
    }
}
