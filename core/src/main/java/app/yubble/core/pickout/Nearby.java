package app.yubble.core.pickout;

import app.yubble.core.raster.CostBuckets;
import java.util.Arrays;
import java.util.function.IntPredicate;

/**
 * The cheapest way from each place to the nearest of some sources, where every step costs what changes on it (geodesic
 * distance; Bai and Sapiro, "A Geodesic Framework for Fast Interactive Image and Video Segmentation and Matting", 2007).
 */
final class Nearby {
    private static final int STEPS = 2048;
    private static final float FARTHEST = 4;
    private static final float PER_STEP = 0.003f;
    private static final float GRAIN = 0.01f;

    private final int width;
    private final float[][] channels;
    private final float[] cost;
    private final CostBuckets buckets = new CostBuckets(STEPS);

    private Nearby(float[][] channels, int width) {
        this.width = width;
        this.channels = channels;
        cost = new float[channels[0].length];
        Arrays.fill(cost, FARTHEST);
    }

    /** @param source whether ways begin at a place */
    static float[] to(IntPredicate source, float[][] channels, int width) {
        Nearby out = new Nearby(channels, width);
        for (int i = 0; i < out.cost.length; i++) {
            if (source.test(i)) {
                out.reach(i, 0);
            }
        }
        out.spread();
        return out.cost;
    }

    private static int step(float value) {
        return (int) (value / FARTHEST * (STEPS - 1));
    }

    private void reach(int place, float value) {
        if (value < cost[place]) {
            cost[place] = value;
            buckets.add(step(value), place);
        }
    }

    private void spread() {
        for (int step = 0; step < STEPS; step++) {
            for (int place = buckets.take(step); place >= 0; place = buckets.take(step)) {
                float own = cost[place];
                if (step(own) < step) {
                    continue;
                }
                int x = place % width;
                if (x > 0) {
                    go(place, place - 1, own);
                }
                if (x < width - 1) {
                    go(place, place + 1, own);
                }
                if (place >= width) {
                    go(place, place - width, own);
                }
                if (place + width < cost.length) {
                    go(place, place + width, own);
                }
            }
        }
    }

    private void go(int from, int to, float own) {
        float sum = 0;
        for (float[] channel : channels) {
            float d = channel[from] - channel[to];
            sum += d * d;
        }
        reach(to, own + PER_STEP + Math.max(0, (float) Math.sqrt(sum) - GRAIN));
    }
}
