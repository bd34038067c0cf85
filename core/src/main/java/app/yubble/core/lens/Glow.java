package app.yubble.core.lens;

import app.yubble.core.raster.Bands;
import java.util.Arrays;
import java.util.function.IntConsumer;
import org.jspecify.annotations.Nullable;

/**
 * The discs of {@link Lamps}, drawn at full size and composed with the layers they belong to: what is nearer covers them.
 *
 * <p>How: each column of a disc is a span; its two ends are noted as steps of brightness, shared between the two pixels
 * at an end, and the sum down the column then gives the even inside at no cost. Only stripes and rows that a disc
 * reaches exist.
 */
final class Glow {
    /** Columns that one worker takes. */
    private static final int STRIPE = 64;

    private final int width;
    private final int height;
    private final Window seen;
    /** By stripe: red, green and blue of each row; null where there is nothing. */
    private final float[][][][] stripes;

    private final int[] tops;
    private final int[] bottoms;
    private boolean empty = true;

    /** @param seen the part that is wanted */
    Glow(int width, int height, Window seen) {
        this.width = width;
        this.height = height;
        this.seen = seen;
        int count = (width + STRIPE - 1) / STRIPE;
        stripes = new float[count][3][][];
        tops = new int[count];
        bottoms = new int[count];
        Arrays.fill(tops, height);
    }

    /**
     * How a layer was laid: on the layer's level, how much it or what is before it hides, and its factor.
     *
     * @param scale null when the layer has no lamps
     */
    record Laid(int level, float[][] hides, float @Nullable [][] scale) {
        void giveBack(Shelf shelf) {
            shelf.takeBack(hides);
            if (scale != null) {
                shelf.takeBack(scale);
            }
        }

        /**
         * Reads a stripe of a full-size row between the cells of the level.
         *
         * @return false when all of it is 0
         */
        boolean fillRow(float[][] from, int y, int x0, float[] to) {
            if (level == 0) {
                System.arraycopy(from[y], x0, to, 0, to.length);
                return true;
            }
            int size = 1 << level;
            float down = (y + 0.5f) / size - 0.5f;
            int above = Math.max(0, (int) Math.floor(down));
            float[] up = from[above];
            float[] low = from[Math.min(from.length - 1, above + 1)];
            float lower = Math.max(0, down - above);
            int last = up.length - 1;
            // From the middle of one cell to that of the next; a stripe may begin anywhere in a cell that is wider than
            // it.
            int cell = Math.floorDiv(x0 - size / 2, size);
            float before = between(up, low, lower, Math.max(0, cell));
            float here = between(up, low, lower, Math.min(last, cell + 1));
            boolean some = before != 0 || here != 0;
            for (int i = 0, part = Math.floorMod(x0 - size / 2, size); i < to.length; i++, part++) {
                if (part == size) {
                    part = 0;
                    cell++;
                    before = here;
                    here = between(up, low, lower, Math.min(last, cell + 1));
                    some |= here != 0;
                }
                to[i] = before + (part + 0.5f) / size * (here - before);
            }
            return some;
        }

        private static float between(float[] up, float[] low, float lower, int cell) {
            return up[cell] + lower * (low[cell] - up[cell]);
        }
    }

    /** Whether how a layer is laid makes a difference. */
    boolean mayChangeBy(Lamps.@Nullable Group lamps, boolean inFront) {
        return lamps != null || !inFront && !empty;
    }

    /** Behind the band a layer and its lamps are laid over what lies farther away, in front of it under what is nearer. */
    void lay(Lamps.@Nullable Group lamps, boolean inFront, DiscCache discs, Laid laid) {
        empty &= lamps == null;
        eachStripe(stripe -> {
            if (!inFront) {
                cover(stripe, laid);
            }
            if (lamps != null && laid.scale != null) {
                new Drawing(stripe, lamps, inFront, discs).add(laid, laid.scale);
            }
        });
    }

    private void eachStripe(IntConsumer work) {
        int first = seen.x0() / STRIPE;
        Bands.ofPieces((seen.x1() - 1) / STRIPE - first + 1, index -> work.accept(first + index));
    }

    private void cover(int stripe, Laid laid) {
        int x0 = stripe * STRIPE;
        float[] hidden = new float[Math.min(STRIPE, width - x0)];
        for (int y = tops[stripe]; y < bottoms[stripe]; y++) {
            if (stripes[stripe][0][y] == null) {
                continue;
            }
            if (laid.fillRow(laid.hides, y, x0, hidden)) {
                for (float[][] channel : stripes[stripe]) {
                    coverRow(channel[y], hidden);
                }
            }
        }
    }

    private static void coverRow(float[] row, float[] hidden) {
        for (int i = 0; i < hidden.length; i++) {
            row[i] *= Math.max(0f, 1f - hidden[i]);
        }
    }

    /** Adds everything to full-size planes. */
    void addTo(Sheet picture) {
        eachStripe(stripe -> {
            int x0 = stripe * STRIPE;
            int count = Math.min(STRIPE, width - x0);
            for (int c = 0; c < 3; c++) {
                for (int y = tops[stripe]; y < bottoms[stripe]; y++) {
                    float[] row = stripes[stripe][c][y];
                    if (row != null) {
                        float[] to = picture.rows[c][y];
                        for (int i = 0; i < count; i++) {
                            to[x0 + i] += row[i];
                        }
                    }
                }
            }
        });
    }

    /** One layer's lamps in one stripe. */
    private final class Drawing {
        private final int stripe;
        private final int x0;
        private final int columns;
        private final Lamps.Group lamps;
        private final boolean inFront;
        private final DiscCache discs;
        private int top = height;
        private int bottom;
        private float[][][] steps = new float[0][][];

        Drawing(int stripe, Lamps.Group lamps, boolean inFront, DiscCache discs) {
            this.stripe = stripe;
            this.lamps = lamps;
            this.inFront = inFront;
            this.discs = discs;
            x0 = stripe * STRIPE;
            columns = Math.min(STRIPE, width - x0);
        }

        void add(Laid laid, float[][] factors) {
            for (int i = 0; i < lamps.count(); i++) {
                int reach = discs.reach(lamps.radius(i)) + 1;
                if (meets(i, reach)) {
                    top = Math.min(top, Math.max(seen.y0(), (int) lamps.y(i) - reach));
                    bottom = Math.max(bottom, Math.min(seen.y1(), (int) lamps.y(i) + reach + 2));
                }
            }
            if (top >= bottom) {
                return;
            }
            steps = new float[3][bottom - top + 1][columns];
            for (int i = 0; i < lamps.count(); i++) {
                if (meets(i, discs.reach(lamps.radius(i)) + 1)) {
                    draw(i);
                }
            }
            sumAndLay(laid, factors);
        }

        private boolean meets(int i, int reach) {
            return lamps.x(i) + reach + 1 >= x0 && lamps.x(i) - reach <= x0 + columns;
        }

        private void draw(int i) {
            DiscShape.Kernel kernel = discs.at(lamps.radius(i), inFront, lamps.x(i), lamps.y(i));
            int whole = (int) Math.floor(lamps.x(i));
            float right = lamps.x(i) - whole;
            float middle = lamps.y(i) + 0.5f - top;
            for (DiscShape.Ring ring : kernel.rings()) {
                for (int dx = -kernel.reach(); dx <= kernel.reach(); dx++) {
                    float from = ring.from()[kernel.reach() + dx];
                    float to = ring.to()[kernel.reach() + dx];
                    int x = whole - dx - x0;
                    if (to <= from || x < -1 || x >= columns) {
                        continue;
                    }
                    // The kernel gathers: the disc is its mirror image.
                    if (x >= 0) {
                        span(x, middle - to, middle - from, ring.weight() * (1 - right), i);
                    }
                    if (right > 0 && x + 1 < columns) {
                        span(x + 1, middle - to, middle - from, ring.weight() * right, i);
                    }
                }
            }
        }

        private void span(int x, float from, float to, float weight, int i) {
            end(x, from, weight * lamps.light(i, 0), weight * lamps.light(i, 1), weight * lamps.light(i, 2));
            end(x, to, -weight * lamps.light(i, 0), -weight * lamps.light(i, 1), -weight * lamps.light(i, 2));
        }

        private void end(int x, float at, float r, float g, float b) {
            int last = steps[0].length - 1;
            int row = (int) Math.floor(at);
            float past = at - row;
            if (row >= last) {
                return;
            }
            int first = Math.max(0, row);
            int second = Math.max(0, row + 1);
            steps[0][first][x] += (1 - past) * r;
            steps[1][first][x] += (1 - past) * g;
            steps[2][first][x] += (1 - past) * b;
            steps[0][second][x] += past * r;
            steps[1][second][x] += past * g;
            steps[2][second][x] += past * b;
        }

        private void sumAndLay(Laid laid, float[][] factors) {
            float[] sum = new float[columns];
            float[] scale = new float[columns];
            float[] hidden = new float[columns];
            for (int c = 0; c < 3; c++) {
                if (stripes[stripe][c] == null) {
                    stripes[stripe][c] = new float[height][];
                }
                Arrays.fill(sum, 0);
                for (int y = top; y < bottom; y++) {
                    float[] step = steps[c][y - top];
                    addRow(step, sum);
                    System.arraycopy(sum, 0, step, 0, columns);
                }
            }
            for (int y = top; y < bottom; y++) {
                laid.fillRow(factors, y, x0, scale);
                if (inFront) {
                    laid.fillRow(laid.hides, y, x0, hidden);
                    coverRow(scale, hidden);
                }
                for (int c = 0; c < 3; c++) {
                    if (stripes[stripe][c][y] == null) {
                        stripes[stripe][c][y] = new float[columns];
                    }
                    addScaled(steps[c][y - top], scale, stripes[stripe][c][y]);
                }
            }
            tops[stripe] = Math.min(tops[stripe], top);
            bottoms[stripe] = Math.max(bottoms[stripe], bottom);
        }
    }

    private static void addRow(float[] more, float[] sum) {
        for (int i = 0; i < sum.length; i++) {
            sum[i] += more[i];
        }
    }

    // What rounding leaves outside a disc is not light.
    private static void addScaled(float[] more, float[] scale, float[] sum) {
        for (int i = 0; i < sum.length; i++) {
            sum[i] += Math.max(0f, more[i]) * scale[i];
        }
    }
}
