package app.yubble.core.inspect;

import app.yubble.core.raster.Flood;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Places where the subject's matte is neither here nor there over more than the width of an edge: depth is then a mixture of
 * both sides. They should take the depth of the side that they look more like.
 */
final class Undecided {
    /** Between these the matte is undecided. */
    private static final float LOW = 0.2f;
    /** See {@link #LOW}. */
    private static final float HIGH = 0.8f;
    /** Within this of 0 or 1 it is sure. */
    private static final float SURE = 0.05f;
    /** At the inspector's size; hair is thinner and stays out. */
    private static final int LEAST_PIXELS = 60;
    /** Pixels of undecided matte on all sides of a place, for it to be more than an edge or hair. */
    private static final int LEAST_DEPTH = 4;
    // How far around such a place both sides are read.
    private static final int AROUND = 30;

    private final float[][] colours;
    private final float[] depth;
    private final float[] matte;
    private final int width;
    private final int height;

    private Undecided(float[][] colours, Plane nearness, Plane matte) {
        this.colours = colours;
        this.matte = matte.samples();
        depth = nearness.samples();
        width = nearness.width();
        height = nearness.height();
    }

    /** @param matte of the picture's size */
    static List<Suspect> suspects(float[][] colours, Plane nearness, Plane matte) {
        return new Undecided(colours, nearness, matte).suspects();
    }

    private List<Suspect> suspects() {
        boolean[] undecided = new boolean[matte.length];
        for (int i = 0; i < matte.length; i++) {
            undecided[i] = matte[i] > LOW && matte[i] < HIGH;
        }
        int[] depths = Dabs.depths(undecided, width);
        Flood flood = new Flood(new Size(width, height));
        List<Suspect> out = new ArrayList<>();
        for (int i = 0; i < matte.length; i++) {
            if (undecided[i] && !flood.isTaken(i)) {
                int[] piece = flood.from(i, false, (from, to) -> undecided[to]);
                boolean wide = Arrays.stream(piece).anyMatch(place -> depths[place] >= 3 * LEAST_DEPTH);
                Suspect suspect = wide && piece.length >= LEAST_PIXELS ? suspect(piece) : null;
                if (suspect != null) {
                    out.add(suspect);
                }
            }
        }
        return out;
    }

    /** What a side near a piece looks like and how deep it lies: red, green, blue, nearness and the number of pixels. */
    private double[] side(int[] piece, boolean subject) {
        int x0 = width;
        int x1 = 0;
        int y0 = height;
        int y1 = 0;
        for (int i : piece) {
            x0 = Math.min(x0, i % width - AROUND);
            x1 = Math.max(x1, i % width + AROUND);
            y0 = Math.min(y0, i / width - AROUND);
            y1 = Math.max(y1, i / width + AROUND);
        }
        double[] out = new double[5];
        for (int y = Math.max(0, y0); y < Math.min(height, y1); y++) {
            for (int x = Math.max(0, x0); x < Math.min(width, x1); x++) {
                int i = y * width + x;
                if (subject ? matte[i] > 1 - SURE : matte[i] < SURE) {
                    add(out, i);
                }
            }
        }
        return out;
    }

    private void add(double[] sums, int i) {
        for (int c = 0; c < 3; c++) {
            sums[c] += colours[c][i];
        }
        sums[3] += depth[i];
        sums[4]++;
    }

    private @Nullable Suspect suspect(int[] piece) {
        double[] subject = side(piece, true);
        double[] ground = side(piece, false);
        if (subject[4] < LEAST_PIXELS || ground[4] < LEAST_PIXELS) {
            return null;
        }
        double[] own = new double[5];
        for (int i : piece) {
            add(own, i);
        }
        double[] like = unlikeness(own, subject) < unlikeness(own, ground) ? subject : ground;
        double length = Math.sqrt(piece.length) * 4;
        Arrays.sort(piece);
        return new Suspect(piece, own[3] / own[4], like[3] / like[4], length, length, 0, length, 0);
    }

    private static double unlikeness(double[] a, double[] b) {
        double sum = 0;
        for (int c = 0; c < 3; c++) {
            double d = a[c] / a[4] - b[c] / b[4];
            sum += d * d;
        }
        return sum;
    }
}
