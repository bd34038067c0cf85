package app.yubble.core.pickout;

import app.yubble.core.raster.Flood;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntPredicate;

/**
 * Finds the object among the open pixels.
 *
 * <p>Rother, Kolmogorov and Blake, "GrabCut: Interactive Foreground Extraction using Iterated Graph Cuts" (SIGGRAPH 2004):
 * colour models of both sides and a cut that follows contrast take turns. Departures: what lies near the marks begins the
 * object's model; depths count by how often each side has them, where the object is held to those at its marks; which side a
 * pixel is reached from more cheaply counts too (Price, Morse and Cohen, "Geodesic Graph Cut for Interactive Image
 * Segmentation", CVPR 2010); pieces apart from the marks are dropped ({@link Joined}) and the
 * smallest holes filled.
 */
public final class ObjectCut {
    /** What is known of a pixel. */
    public static final byte OPEN = 0;

    /** Marked as of the object. */
    public static final byte KEEP = 1;

    /** Marked as not of the object. */
    public static final byte DROP = 2;

    /** Not of the object, without having been marked. */
    public static final byte OUTSIDE = 3;

    /** The same where most is known from another picture. */
    private static final int ROUNDS_AGAIN = 2;
    /** By which a pixel must look more like what is remembered to begin with it, in logarithms of odds. */
    private static final float LIKE_BEFORE = 1;
    /** Of learning and parting; later ones move single pixels. This and what follows by the objects of PickOutTest. */
    private static final int ROUNDS = 4;
    /** Cost of the way from a mark up to which a pixel is taken for the object at first. */
    private static final float SURE_WAY = 0.3f;
    /** What colour alone can say, in logarithms of odds. */
    private static final float MOST_COLOUR = 6;
    /** Cost of the way up to which a pixel looks as the mark does. */
    private static final float AT_MARK = 0.05f;
    /** Of nearness. */
    private static final int BINS = 96;
    // What does not belong to the object may lie at any depth, also at ones that no sure pixel has.
    private static final double ANYWHERE = 0.3;
    /** Keeps the logarithm of a depth finite that one side does not have. */
    private static final double RARE = 1e-4;
    /** Depth says more than its odds: it is one value for many pixels. */
    private static final float DEPTH_TRUST = 1.4f;
    /** Of nearness in the box; with less, depth says nothing. */
    private static final float LEAST_SPAN = 0.01f;
    /** Share of that where the object is known from another picture: estimated depth wanders. */
    private static final float DEPTH_AGAIN = 0.4f;
    /** Cost of a border between two pixels that look alike. */
    private static final float SMOOTH = 10;
    /** What the ways from the marks say, in logarithms of odds. */
    private static final float WAY = 2;
    /** The same where the object is known from another picture: what comes out of hiding is far from all that is sure. */
    private static final float WAY_AGAIN = 0.7f;
    /** A step of nearness counts as much as twice that step of colour. */
    private static final float DEPTH_ON_WAYS = 2;
    /** Cost of a border where the picture has an edge: corners are rare. */
    private static final float LEAST_SMOOTH = 0.3f;
    /** More than all that speaks against it. */
    private static final float SURE = 1e5f;
    /** What depth alone can say. */
    private static final float MOST_LEAN = 8;
    // Marks are few pixels beside all that is open, and count as this many.
    private static final int MARK_WEIGHT = 12;
    /** Share of the object below which a piece apart from it is dropped. */
    private static final double SMALL_PIECE = 0.01;
    /** Share below which a hole is closed. */
    private static final double SMALL_HOLE = 0.0002;

    private final int width;
    private final int height;
    private final float[][] channels;
    private final float[][] colours;
    private final float[] depth;
    private final byte[] hints;
    private final float beta;
    private final float[] toKeep;
    private final float[] toDrop;
    private final boolean marked;
    private final Before before;
    private final boolean[] likeBefore;

    /**
     * What is known of the object from another picture of it.
     *
     * @param lean for each pixel how likely it belongs to it, in logarithms of odds; empty when that is not known
     * @param colours samples of its red, green and blue, rooted
     */
    @SuppressWarnings("ArrayRecordComponent")
    public record Before(float[] lean, float[][] colours) {
        static final Before NOTHING = new Before(new float[0], new float[3][0]);

        int samples() {
            return colours[0].length;
        }
    }

    private ObjectCut(Picture picture, Plane nearness, byte[] hints, Before before) {
        this.before = before;
        width = picture.width();
        height = picture.height();
        float[][] own = {
            picture.red().rooted().samples(),
            picture.green().rooted().samples(),
            picture.blue().rooted().samples()
        };
        colours = followed(own, before.colours());
        depth = spanned(nearness);
        channels = new float[][] {own[0], own[1], own[2], depth};
        this.hints = hints;
        beta = beta();
        float[][] crossed = {own[0], own[1], own[2], times(depth, DEPTH_ON_WAYS)};
        toKeep = Nearby.to(i -> hints[i] == KEEP, crossed, picture.size());
        toDrop = Nearby.to(this::surelyOutside, crossed, picture.size());
        boolean some = false;
        for (byte hint : hints) {
            some |= hint == KEEP;
        }
        marked = some;
        likeBefore = marked || before.samples() == 0 ? new boolean[0] : likeBefore();
    }

    /** Samples of a picture, and behind them those that are remembered. */
    private static float[][] followed(float[][] own, float[][] remembered) {
        float[][] out = new float[own.length][];
        for (int c = 0; c < out.length; c++) {
            out[c] = Arrays.copyOf(own[c], own[c].length + remembered[c].length);
            System.arraycopy(remembered[c], 0, out[c], own[c].length, remembered[c].length);
        }
        return out;
    }

    /** Open pixels that look more like the object did than like what surely is not of it. */
    private boolean[] likeBefore() {
        boolean[] out = new boolean[hints.length];
        int[] around = places(this::surelyOutside, DROP);
        if (around.length > 0) {
            Mixture rest = Mixture.of(colours, around);
            Mixture object = Mixture.of(colours, places(i -> false, KEEP));
            for (int i = 0; i < out.length; i++) {
                out[i] = hints[i] == OPEN && rest.cost(colours, i) - object.cost(colours, i) > LIKE_BEFORE;
            }
        }
        return out;
    }

    /** Nearness with its usual range drawn out to that of a colour; all zero where there is hardly any. */
    private static float[] spanned(Plane nearness) {
        float[] sorted = nearness.samples().clone();
        Arrays.sort(sorted);
        float low = sorted[sorted.length / 50];
        float high = sorted[sorted.length - 1 - sorted.length / 50];
        float[] out = new float[sorted.length];
        if (high - low > LEAST_SPAN) {
            for (int i = 0; i < out.length; i++) {
                out[i] = Math.max(0, Math.min(1, (nearness.samples()[i] - low) / (high - low)));
            }
        }
        return out;
    }

    private static float[] times(float[] values, float factor) {
        float[] out = new float[values.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = factor * values[i];
        }
        return out;
    }

    /**
     * @param picture linear light, some hundred pixels wide
     * @param nearness of the same size
     * @param hints {@link #OPEN}, {@link #KEEP}, {@link #DROP} or {@link #OUTSIDE} for each pixel, row by row
     * @return 1 on the object, 0 elsewhere
     */
    public static Plane of(Picture picture, Plane nearness, byte[] hints) {
        return new ObjectCut(picture, nearness, hints, Before.NOTHING).solved(ROUNDS);
    }

    /** The same for an object that is known from another picture. */
    public static Plane of(Picture picture, Plane nearness, byte[] hints, Before before) {
        return new ObjectCut(picture, nearness, hints, before).solved(ROUNDS_AGAIN);
    }

    private Plane solved(int rounds) {
        boolean[] inside = new boolean[hints.length];
        for (int round = 0; round < rounds; round++) {
            boolean[] last = inside;
            boolean first = round == 0;
            int[] of = places(first ? this::surelyInside : i -> last[i], KEEP);
            int[] around = places(first ? this::surelyOutside : i -> !last[i], DROP);
            if (of.length == 0 || around.length == 0) {
                break;
            }
            boolean[] next = cut(of, around);
            boolean settled = Arrays.equals(next, inside);
            inside = next;
            if (settled) {
                break;
            }
        }
        if (marked) {
            Joined.leaveOnly(inside, depth, i -> hints[i] == KEEP, i -> hints[i] == DROP, new Size(width, height));
        }
        tidy(inside, true, SMALL_PIECE);
        tidy(inside, false, SMALL_HOLE);
        float[] out = new float[inside.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = inside[i] ? 1 : 0;
        }
        return new Plane(width, height, out);
    }

    /** What is much more cheaply reached from the marks; without a mark all that is open. */
    private boolean surelyInside(int i) {
        if (likeBefore.length > 0) {
            return likeBefore[i];
        }
        return hints[i] == KEEP || hints[i] == OPEN && (!marked || toKeep[i] < SURE_WAY && toKeep[i] < toDrop[i] / 2);
    }

    private boolean surelyOutside(int i) {
        return hints[i] == DROP || hints[i] == OUTSIDE;
    }

    private float way(int i) {
        return marked
                ? (before.samples() > 0 ? WAY_AGAIN : WAY) * (toDrop[i] - toKeep[i]) / (toDrop[i] + toKeep[i] + 0.05f)
                : 0;
    }

    /** Places that a side has now; its sure ones many times. Of the object also what is remembered. */
    private int[] places(IntPredicate side, byte sure) {
        int[] out = new int[1024];
        int count = 0;
        // Where the object is known from another picture, sure pixels are many, and must not drown what is remembered.
        int weight = before.samples() > 0 ? 1 : MARK_WEIGHT;
        for (int i = 0; i < hints.length; i++) {
            int times = hints[i] == sure ? weight : side.test(i) ? 1 : 0;
            if (count + times > out.length) {
                out = Arrays.copyOf(out, 2 * out.length);
            }
            for (int k = 0; k < times; k++) {
                out[count++] = i;
            }
        }
        int remembered = sure == KEEP ? before.samples() : 0;
        int[] all = Arrays.copyOf(out, count + remembered);
        for (int k = 0; k < remembered; k++) {
            all[count + k] = hints.length + k;
        }
        return all;
    }

    private boolean[] cut(int[] of, int[] around) {
        Mixture object = Mixture.of(colours, of);
        Mixture rest = Mixture.of(colours, around);
        float[] near = leans(
                marked ? places(i -> hints[i] == KEEP || toKeep[i] < AT_MARK && hints[i] == OPEN, KEEP) : of, around);
        GridCut cut = new GridCut(width, height);
        for (int i = 0; i < hints.length; i++) {
            if (hints[i] == OPEN) {
                float lean = rest.cost(colours, i) - object.cost(colours, i);
                float known = before.lean().length > 0 ? before.lean()[i] : 0;
                cut.lean(
                        i,
                        Math.max(-MOST_COLOUR, Math.min(MOST_COLOUR, lean))
                                + (before.samples() > 0 ? DEPTH_AGAIN : 1) * near[bin(i)]
                                + way(i)
                                + known);
            } else {
                cut.lean(i, hints[i] == KEEP ? SURE : -SURE);
            }
        }
        // To the right, and to the three below.
        for (int d = 4; d < 8; d++) {
            int dx = GridCut.DX[d];
            int dy = GridCut.DY[d];
            float share = (float) (1 / Math.hypot(dx, dy));
            for (int y = 0; y + dy < height; y++) {
                for (int x = Math.max(0, -dx); x + Math.max(0, dx) < width; x++) {
                    int i = y * width + x;
                    float like = (float) Math.exp(-distance(i, i + dy * width + dx) * beta);
                    cut.link(i, d, share * (LEAST_SMOOTH + SMOOTH * like));
                }
            }
        }
        return cut.cut();
    }

    private int bin(int i) {
        return (int) (depth[i] * (BINS - 1));
    }

    /** How much each depth tells for the object, from how often both sides have it. */
    private float[] leans(int[] of, int[] around) {
        double[] mine = histogram(of);
        double[] other = histogram(around);
        float[] out = new float[BINS];
        for (int k = 0; k < BINS; k++) {
            double lean = DEPTH_TRUST * Math.log((mine[k] + RARE) / ((1 - ANYWHERE) * other[k] + ANYWHERE / BINS));
            out[k] = (float) Math.max(-MOST_LEAN, Math.min(MOST_LEAN, lean));
        }
        return out;
    }

    private double[] histogram(int[] places) {
        double[] counts = new double[BINS];
        for (int i : places) {
            // What is remembered has colours only.
            if (i < hints.length) {
                counts[bin(i)] += 1.0 / places.length;
            }
        }
        for (int pass = 0; pass < 5; pass++) {
            double[] smooth = new double[BINS];
            for (int k = 0; k < BINS; k++) {
                smooth[k] = (counts[Math.max(0, k - 1)] + counts[k] + counts[Math.min(BINS - 1, k + 1)]) / 3;
            }
            counts = smooth;
        }
        return counts;
    }

    private float distance(int a, int b) {
        float sum = 0;
        for (float[] channel : channels) {
            float d = channel[a] - channel[b];
            sum += d * d;
        }
        return sum;
    }

    /** One over twice the mean squared distance between a pixel and the one below it. */
    private float beta() {
        double sum = 0;
        int count = width * (height - 1);
        for (int i = 0; i < count; i++) {
            sum += distance(i, i + width);
        }
        return (float) (1 / (2 * sum / Math.max(1, count) + 1e-6));
    }

    /** Turns small connected pieces of a side over, where no pixel of them is sure. */
    private void tidy(boolean[] inside, boolean side, double share) {
        Flood flood = new Flood(new Size(width, height));
        List<int[]> pieces = new ArrayList<>();
        long whole = 0;
        for (int i = 0; i < inside.length; i++) {
            if (inside[i] == side && !flood.isTaken(i)) {
                int[] piece = flood.from(i, false, (from, to) -> inside[to] == side);
                pieces.add(piece);
                whole += piece.length;
            }
        }
        for (int[] piece : pieces) {
            boolean small = piece.length < share * whole;
            if (small && Arrays.stream(piece).noneMatch(i -> hints[i] != OPEN)) {
                for (int i : piece) {
                    inside[i] = !side;
                }
            }
        }
    }
}
