package app.yubble.core.raster;

import java.util.Arrays;

/**
 * The cheapest way from any of some places to every other one, over the four neighbours (geodesic distance).
 *
 * <p>Places wait in buckets by a {@value #STEPS}th of the largest cost instead of in exact order, which is faster than a heap
 * and off by less than a bucket. More starts can be given after a spread; it goes on from there.
 */
public abstract class CostSpread {
    /** Buckets for the largest cost. */
    private static final int STEPS = 1024;

    private final int width;
    private final float most;
    private final float[] costs;
    private final int[] heads = new int[STEPS];
    private int[] places = new int[1024];
    private int[] nexts = new int[1024];
    private int count;

    /** @param most ways that cost as much are not gone; they have this cost */
    protected CostSpread(Size size, float most) {
        width = size.width();
        this.most = most;
        costs = new float[size.width() * size.height()];
        Arrays.fill(costs, most);
        Arrays.fill(heads, -1);
    }

    /** What a step from a place to its neighbour costs; not negative. */
    protected abstract float step(int from, int to);

    /** Whether ways may lead over a place. */
    protected boolean isOpen(int place) {
        return true;
    }

    /** A way that begins here. */
    public final void start(int place) {
        reach(place, 0);
    }

    /** The cost of the way to a place. */
    public final float cost(int place) {
        return costs[place];
    }

    /** All costs, row by row; the backing array. */
    public final float[] costs() {
        return costs;
    }

    /** Goes on from all starts. */
    public final void spread() {
        for (int step = 0; step < STEPS; step++) {
            for (int place = take(step); place >= 0; place = take(step)) {
                float own = costs[place];
                if (bucket(own) < step) {
                    continue;
                }
                int x = place % width;
                if (x > 0) {
                    reach(place - 1, own + step(place, place - 1));
                }
                if (x < width - 1) {
                    reach(place + 1, own + step(place, place + 1));
                }
                if (place >= width) {
                    reach(place - width, own + step(place, place - width));
                }
                if (place + width < costs.length) {
                    reach(place + width, own + step(place, place + width));
                }
            }
        }
    }

    private int bucket(float cost) {
        return (int) (cost / most * (STEPS - 1));
    }

    private void reach(int place, float cost) {
        if (cost < costs[place] && isOpen(place)) {
            costs[place] = cost;
            add(bucket(cost), place);
        }
    }

    private void add(int step, int place) {
        if (count == places.length) {
            places = Arrays.copyOf(places, 2 * count);
            nexts = Arrays.copyOf(nexts, 2 * count);
        }
        places[count] = place;
        nexts[count] = heads[step];
        heads[step] = count++;
    }

    /** One of the places of a bucket, or -1; more may be added to it meanwhile. */
    private int take(int step) {
        int entry = heads[step];
        if (entry < 0) {
            return -1;
        }
        heads[step] = nexts[entry];
        return places[entry];
    }
}
