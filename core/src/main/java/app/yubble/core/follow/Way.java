package app.yubble.core.follow;

import java.util.List;

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
