package app.yubble.core.clip;

import app.yubble.core.raster.Plane;
import org.jspecify.annotations.Nullable;

/**
 * The mean of maps along motion, taken while they go by: each new map is mixed with the mean so far, fetched along the flow. Where
 * the flow does not agree (things come out from behind others) the mean begins anew.
 *
 * <p>A place remembers how many maps its mean is of, up to a most; so a new thing is steady after a few frames and an old one still
 * follows what slowly changes. Going through a clip in both directions and joining what they give is a mean over the past and
 * the future alike, which keeps up with things that come nearer.
 */
public final class Settling {
    private final float most;
    private @Nullable Plane mean;
    private @Nullable Plane count;

    /** @param most of how many maps a mean is, about */
    public Settling(double most) {
        this.most = (float) most;
    }

    /** A mean so far, and of how many maps it is at each place. */
    public record State(Plane mean, Plane count) {}

    /**
     * The next map.
     *
     * @param toLast from the map's frame to the last one's; anything for the first map
     * @param agreement of that flow
     * @param since how the camera came nearer since the last one
     */
    State add(Plane map, Flow toLast, Plane agreement, Approach since) {
        Plane known = mean;
        Plane counted = count;
        Plane now = map.copy();
        Plane newCount = Plane.filled(map.size(), 1);
        if (known != null && counted != null) {
            Plane before = since.appliedTo(toLast.fetch(known));
            Plane of = toLast.fetch(counted);
            for (int i = 0; i < now.samples().length; i++) {
                float old = Math.min(most - 1, of.samples()[i]) * agreement.samples()[i];
                now.samples()[i] = (now.samples()[i] + old * before.samples()[i]) / (1 + old);
                newCount.samples()[i] = 1 + old;
            }
        }
        mean = now;
        count = newCount;
        return new State(now, newCount);
    }

    /** The means of both directions at one frame, whose own map is in both. */
    public static Plane joined(State past, State future, Plane own) {
        Plane out = new Plane(own.size());
        for (int i = 0; i < out.samples().length; i++) {
            float before = past.count().samples()[i];
            float after = future.count().samples()[i];
            out.samples()[i] = (before * past.mean().samples()[i]
                            + after * future.mean().samples()[i]
                            - own.samples()[i])
                    / (before + after - 1);
        }
        return out;
    }
}
