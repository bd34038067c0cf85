package app.yubble.core.raster;

import java.util.Arrays;

/** Places by step of cost, for a search in rising order; taking from a step may go on while more are added to it. */
public final class CostBuckets {
    private final int[] heads;
    private int[] places = new int[1024];
    private int[] nexts = new int[1024];
    private int count;

    public CostBuckets(int steps) {
        heads = new int[steps];
        Arrays.fill(heads, -1);
    }

    public void add(int step, int place) {
        if (count == places.length) {
            places = Arrays.copyOf(places, 2 * count);
            nexts = Arrays.copyOf(nexts, 2 * count);
        }
        places[count] = place;
        nexts[count] = heads[step];
        heads[step] = count++;
    }

    /** One of the places, or -1. */
    public int take(int step) {
        int entry = heads[step];
        if (entry < 0) {
            return -1;
        }
        heads[step] = nexts[entry];
        return places[entry];
    }
}
