package app.yubble.core.lens;

/**
 * The radii at which layers are blurred: 0, then 1 px apart while small, then growing by a third.
 *
 * <p>Between two steps a pixel belongs to both in proportion, so that a slope shows no steps. Growing by a third instead
 * of a fifth left the distance to the ray-traced truth of the crossing at 35.0 dB and saved a tenth of the time.
 */
final class RadiusSteps {
    /** From one layer's radius to the next: between them two discs are blended. By eye on lamps. */
    private static final double GROWTH = 1.32;
    /** Up to here a disc has no shape to lose and the full level costs most; beyond, a level is reduced. */
    static final float MOST_AT_FULL_SIZE = 2.5f;
    /**
     * Larger discs are drawn at a reduced size, where they have at most this radius; by eye round enough to be
     * enlarged. A disc's edge is then soft by about a pixel of its level.
     */
    private static final float MOST_ON_LEVEL = 5;
    /** Steps of the table in one pixel of radius. */
    private static final int FINE = 4;
    /** Leaves an eighth of the way at either end to one layer, where steps are wide. */
    private static final double STRETCH = 4.0 / 3;

    private final float[] radii;
    /** By step: the way to the next is a linear function of the squared radius. */
    private final float[] slope;

    private final float[] base;
    /** The step at or below each quarter of a pixel. */
    private final byte[] below;
    /** At which each step is drawn, as powers of two. */
    private final byte[] levels;

    /**
     * Steps from 0; the last is {@code largest} itself.
     *
     * @param mostLevel of reduction
     */
    RadiusSteps(float largest, int mostLevel) {
        int count = 1;
        double step = 0;
        while (step < largest) {
            step = next(step);
            count++;
        }
        radii = new float[count];
        step = 0;
        for (int i = 1; i < count; i++) {
            step = next(step);
            radii[i] = (float) step;
        }
        radii[count - 1] = largest;
        slope = new float[count - 1];
        base = new float[count - 1];
        for (int i = 0; i < count - 1; i++) {
            prepare(i);
        }
        levels = new byte[count];
        for (int i = 0; i < count; i++) {
            levels[i] = (byte) levelOf(radii[i], mostLevel);
        }
        below = new byte[(int) (largest * FINE) + 2];
        int j = 0;
        for (int i = 0; i < below.length; i++) {
            while (j < count - 2 && radii[j + 1] <= (float) i / FINE) {
                j++;
            }
            below[i] = (byte) j;
        }
    }

    private static double next(double step) {
        return Math.max(step + 1, step * GROWTH);
    }

    int count() {
        return radii.length;
    }

    float radius(int step) {
        return radii[step];
    }

    private static int levelOf(float radius, int most) {
        if (radius <= MOST_AT_FULL_SIZE) {
            return 0;
        }
        int level = 1;
        while (level < most && radius / (1 << level) > MOST_ON_LEVEL) {
            level++;
        }
        return level;
    }

    /** How often the picture is halved where this step is drawn; never falls from one step to the next. */
    int level(int step) {
        return levels[step];
    }

    /**
     * The step at or below {@code radius}, never the last.
     *
     * @param radius in [0, the largest]
     */
    int at(float radius) {
        int j = below[(int) (radius * FINE)];
        return j < radii.length - 2 && radii[j + 1] <= radius ? j + 1 : j;
    }

    /**
     * How far {@code radius} is on the way from {@code step} to the next, in [0,1]: by the squares, so that the mixture of
     * two discs spreads light as far as the disc between them. Where steps are wider than a pixel it is 0 and 1 up to an
     * eighth of the way from either, so that a quarter of those pixels belong to one layer only.
     */
    float toNext(float radius, int step) {
        return Math.max(0, Math.min(1, radius * radius * slope[step] + base[step]));
    }

    private void prepare(int step) {
        double low = radii[step];
        double high = radii[step + 1];
        double stretch = high - low > 1 ? STRETCH : 1;
        double perSquare = stretch / (high * high - low * low);
        slope[step] = (float) perSquare;
        base[step] = (float) ((1 - stretch) / 2 - low * low * perSquare);
    }
}
