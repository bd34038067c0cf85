package app.yubble.core.lens;

import app.yubble.core.raster.Bands;

/**
 * Takes pixels at depth edges apart: such a pixel shows a mixture of the nearer and the farther side.
 *
 * <p>In: a tile's pixels. Out: the same with every mixed pixel given to its farther side, with that side's colour and
 * radius, and the nearer side's share of it as a {@link Pieces piece} on top. So hair and antialiased edges keep their
 * share of the pixel and neither side lends the other its colour.
 *
 * <p>How: around a jump of the radius the two sides' colours F and B are means of unmixed pixels nearby. The share of
 * the nearer side is the place of the pixel's colour C on the line from B to F where the two differ, and the share of
 * its neighbours that the radius puts on the nearer side where they look alike. The two parts always add up to C.
 */
final class EdgeSplit {
    // Neighbours whose radii differ by more than this belong to two things, not to one slope.
    private static final float LEAST_STEP = 2f;
    /** Difference of radius, over the radius, that makes an edge; by the truths of bench lens, as what follows. */
    private static final float STEP_SHARE = 0.25f;
    /** Pixels to each side from which the colours of near and far are taken. */
    private static final int MOST_REACH = 3;
    /** By squared distance. */
    private static final float[] CLOSENESS = new float[2 * MOST_REACH * MOST_REACH + 1];

    static {
        for (int i = 0; i < CLOSENESS.length; i++) {
            CLOSENESS[i] = 1f / (1 + i);
        }
    }

    // A pixel of middle depth with fewer of its like than this around it lies on a soft rise of the depth map, as at
    // hair.
    private static final float SOFT_SHARE = 0.45f;
    // How far the share is from what the depths of the neighbours say, squared.
    private static final float DEPTH_VARIANCE = 0.0625f;
    /** Shares that are tried: tenths, as the noise allows no finer ones. */
    private static final int TRIES = 10;
    /** A float's bits as a whole number grow with its logarithm, nearly (Schraudolph 1999). */
    private static final float LOGARITHM_OF_A_BIT = (float) (Math.log(2) / (1 << 23));
    /** Smaller shares are none. */
    private static final float LEAST_SHARE = 0.02f;
    /** What a mixed pixel counts where a pure one is missing. */
    private static final float MIXED_WEIGHT = 1e-3f;
    /** Variance of linear light in a photo: a fiftieth of white. */
    private static final float NOISE = 4e-4f;
    // Lifted highlights say nothing about the colour of a side.
    private static final float MOST_LIGHT = 1.5f;

    private final TilePixels pixels;
    private final int reach;
    /** By row, a bit for each pixel beside a jump of the radius: it is mixed. */
    private long[][] mixed;

    private EdgeSplit(TilePixels pixels, int spread) {
        this.pixels = pixels;
        this.reach = Math.min(MOST_REACH, spread + 1);
        mixed = new long[pixels.height][(pixels.width + 63) / 64];
    }

    /**
     * Takes the mixed pixels of a tile apart: in {@code pixels} they become what their far side is alone.
     *
     * @param spread how many pixels on either side of a jump are mixed: 1 in a reduced picture, 2 in a camera's own
     * @return their near sides, by band
     */
    static Pieces[] splitInPlace(TilePixels pixels, int spread) {
        EdgeSplit split = new EdgeSplit(pixels, spread);
        int bands = (pixels.height + LayerCut.BAND - 1) / LayerCut.BAND;
        split.markMixed(bands, spread);
        Change[] changes = new Change[bands];
        Pieces[] pieces = new Pieces[bands];
        Bands.ofPieces(bands, band -> {
            changes[band] = new Change();
            pieces[band] = new Pieces();
            Split own = split.new Split(changes[band], pieces[band]);
            int from = band * LayerCut.BAND;
            for (int y = from; y < Math.min(pixels.height, from + LayerCut.BAND); y++) {
                split.splitRow(y, own);
            }
        });
        for (Change change : changes) {
            change.apply(pixels);
        }
        return pieces;
    }

    private void markMixed(int bands, int spread) {
        Bands.ofPieces(
                bands, band -> markJumps(band * LayerCut.BAND, Math.min(pixels.height, (band + 1) * LayerCut.BAND)));
        for (int i = 1; i < spread; i++) {
            long[][] narrow = mixed;
            long[][] wide = new long[narrow.length][];
            Bands.ofRows(narrow.length, (from, to) -> {
                for (int y = from; y < to; y++) {
                    wide[y] = widened(narrow, y);
                }
            });
            mixed = wide;
        }
    }

    private static float tolerance(float radius) {
        return Math.max(LEAST_STEP, STEP_SHARE * Math.abs(radius));
    }

    // A band marks only its own rows; the jump to the row above is looked at from both sides.
    private void markJumps(int from, int to) {
        for (int y = from; y < Math.min(to, pixels.inHeight); y++) {
            float[] row = pixels.radius[y];
            float[] above = pixels.radius[Math.max(0, y - 1)];
            float[] below = pixels.radius[Math.min(pixels.inHeight - 1, y + 1)];
            long[] marks = mixed[y];
            for (int x = 0; x < pixels.inWidth; x++) {
                float own = row[x];
                float step = tolerance(own);
                if (Math.abs(above[x] - own) > step || Math.abs(below[x] - own) > step) {
                    marks[x >> 6] |= 1L << x;
                }
                if (x > 0 && Math.abs(row[x - 1] - own) > step) {
                    marks[x >> 6] |= 1L << x;
                    marks[x - 1 >> 6] |= 1L << x - 1;
                }
            }
        }
    }

    /** One row, each bit also set where a neighbour's is. */
    private static long[] widened(long[][] bits, int y) {
        long[] here = bits[y];
        long[] above = bits[Math.max(0, y - 1)];
        long[] below = bits[Math.min(bits.length - 1, y + 1)];
        long[] out = new long[here.length];
        for (int word = 0; word < here.length; word++) {
            out[word] = here[word] | here[word] << 1 | here[word] >>> 1 | above[word] | below[word];
            out[word] |= word > 0 ? here[word - 1] >>> 63 : 0;
            out[word] |= word < here.length - 1 ? here[word + 1] << 63 : 0;
        }
        return out;
    }

    // Mixed pixels and their neighbours.
    private void splitRow(int y, Split split) {
        if (y >= pixels.inHeight) {
            return;
        }
        long[] wanted = widened(mixed, y);
        for (int word = 0; word < wanted.length; word++) {
            for (long bits = wanted[word]; bits != 0; bits &= bits - 1) {
                int x = (word << 6) + Long.numberOfTrailingZeros(bits);
                if (x < pixels.inWidth) {
                    split.at(x, y);
                }
            }
        }
    }

    /** New values of whole pixels, written when all have been read. */
    private static final class Change {
        private final Pieces values = new Pieces();

        void add(int x, int y, float radius, float r, float g, float b) {
            values.add(x, y, radius, 1, r, g, b);
        }

        void apply(TilePixels to) {
            for (int i = 0; i < values.count; i++) {
                int x = values.places[i] & 0xffff;
                int y = values.places[i] >>> 16;
                to.red[y][x] = values.red[i];
                to.green[y][x] = values.green[i];
                to.blue[y][x] = values.blue[i];
                to.radius[y][x] = values.radius[i];
            }
        }
    }

    /** Mean colours, squares and radii of the pixels on one side; sums of them until they are divided. */
    private static final class Side {
        float weight;
        float r;
        float g;
        float b;
        float squares;
        float radius;

        void divide() {
            float scale = 1 / weight;
            r *= scale;
            g *= scale;
            b *= scale;
            radius *= scale;
            squares *= scale;
        }

        float variance() {
            return Math.max(0, squares - r * r - g * g - b * b);
        }
    }

    /** One pixel after another and what lies around it. */
    private final class Split {
        private final Change change;
        private final Pieces out;
        private final Side near = new Side();
        private final Side far = new Side();
        /** Of what lies around, row by row; 0 for what is lifted. */
        private final float[] weights = new float[(2 * MOST_REACH + 1) * (2 * MOST_REACH + 1)];

        private int x;
        private int y;
        private float own;
        private float lowest;
        private float highest;
        private int likeOwn;
        private int around;
        private float nearerWeight;
        private float fartherWeight;
        private boolean soft;
        /** Radii up to here are the nearer side, from {@link #farFrom} the farther one. */
        private float nearTo;

        private float farFrom;

        Split(Change change, Pieces out) {
            this.change = change;
            this.out = out;
        }

        void at(int column, int row) {
            x = column;
            y = row;
            own = pixels.radius[y][x];
            float r = pixels.red[y][x];
            float g = pixels.green[y][x];
            float b = pixels.blue[y][x];
            if (Math.max(r, Math.max(g, b)) > MOST_LIGHT || !twoSides() || near.weight == 0 || far.weight == 0) {
                return;
            }
            near.divide();
            far.divide();
            float share = share(r, g, b);
            boolean ownNear = own <= nearTo;
            if (share < LEAST_SHARE && own >= farFrom || share > 1 - LEAST_SHARE && ownNear) {
                return;
            }
            float fr;
            float fg;
            float fb;
            float br;
            float bg;
            float bb;
            if (share < 0.5f) {
                fr = Math.min(r, share * near.r);
                fg = Math.min(g, share * near.g);
                fb = Math.min(b, share * near.b);
                br = (r - fr) / (1 - share);
                bg = (g - fg) / (1 - share);
                bb = (b - fb) / (1 - share);
            } else {
                br = far.r;
                bg = far.g;
                bb = far.b;
                fr = Math.max(0, r - (1 - share) * br);
                fg = Math.max(0, g - (1 - share) * bg);
                fb = Math.max(0, b - (1 - share) * bb);
            }
            change.add(x, y, own >= farFrom ? own : far.radius, br, bg, bb);
            if (share >= LEAST_SHARE) {
                out.add(x, y, ownNear ? own : near.radius, share, fr, fg, fb);
            }
        }

        private boolean twoSides() {
            float step = tolerance(own);
            float below = own - step;
            float above = own + step;
            measure(below, above);
            if (Math.max(Math.abs(lowest), Math.abs(highest)) < 1 || highest - lowest <= step) {
                return false;
            }
            nearTo = lowest + 0.25f * (highest - lowest);
            farFrom = highest - 0.25f * (highest - lowest);
            soft = own > nearTo && own < farFrom && likeOwn < SOFT_SHARE * around;
            // Weights fall with the distance, so the heavier side is the closer one.
            if (soft) {
                sum(Float.NEGATIVE_INFINITY, Math.nextDown(nearTo), Math.nextUp(farFrom), Float.POSITIVE_INFINITY);
            } else if (nearerWeight > fartherWeight) {
                nearTo = below;
                farFrom = own - step / 2;
                sum(Float.NEGATIVE_INFINITY, Math.nextDown(below), below, above);
            } else {
                nearTo = own + step / 2;
                farFrom = above;
                sum(below, above, Math.nextUp(above), Float.POSITIVE_INFINITY);
            }
            return true;
        }

        /** Weighs what lies around, and what of it lies nearer than {@code below} and farther than {@code above}. */
        private void measure(float below, float above) {
            int x0 = Math.max(0, x - reach);
            int x1 = Math.min(pixels.inWidth - 1, x + reach);
            float low = own;
            float high = own;
            float nearer = 0;
            float farther = 0;
            int like = 0;
            int k = 0;
            for (int py = Math.max(0, y - reach); py <= Math.min(pixels.inHeight - 1, y + reach); py++) {
                float[] radius = pixels.radius[py];
                float[] red = pixels.red[py];
                float[] green = pixels.green[py];
                float[] blue = pixels.blue[py];
                long[] marks = mixed[py];
                int down = (py - y) * (py - y);
                for (int px = x0; px <= x1; px++, k++) {
                    float blur = radius[px];
                    boolean unlifted = red[px] <= MOST_LIGHT && green[px] <= MOST_LIGHT && blue[px] <= MOST_LIGHT;
                    // Mixed pixels hardly count, unless a side has no others, as a wire.
                    float weight = CLOSENESS[down + (px - x) * (px - x)];
                    weight = (marks[px >> 6] & 1L << px) == 0 ? weight : weight * MIXED_WEIGHT;
                    weight = unlifted ? weight : 0;
                    weights[k] = weight;
                    low = blur < low ? blur : low;
                    high = blur > high ? blur : high;
                    nearer += blur < below ? weight : 0;
                    farther += blur > above ? weight : 0;
                    like += blur < below || blur > above ? 0 : 1;
                }
            }
            lowest = low;
            highest = high;
            nearerWeight = nearer;
            fartherWeight = farther;
            likeOwn = like;
            around = k;
        }

        /**
         * Sums up both sides; bounds of radius are inclusive. Both in one go and without a branch: which side a pixel is on cannot
         * be foreseen, and adding nothing costs less than a wrong guess.
         */
        private void sum(float nearFirst, float nearLast, float farFirst, float farLast) {
            int x0 = Math.max(0, x - reach);
            int x1 = Math.min(pixels.inWidth - 1, x + reach);
            float nearWeight = 0;
            float nr = 0;
            float ng = 0;
            float nb = 0;
            float nearSquares = 0;
            float nearRadius = 0;
            float farWeight = 0;
            float fr = 0;
            float fg = 0;
            float fb = 0;
            float farSquares = 0;
            float farRadius = 0;
            int k = 0;
            for (int py = Math.max(0, y - reach); py <= Math.min(pixels.inHeight - 1, y + reach); py++) {
                float[] radius = pixels.radius[py];
                float[] red = pixels.red[py];
                float[] green = pixels.green[py];
                float[] blue = pixels.blue[py];
                for (int px = x0; px <= x1; px++, k++) {
                    float blur = radius[px];
                    float weight = weights[k];
                    float n = blur >= nearFirst && blur <= nearLast ? weight : 0;
                    float f = blur >= farFirst && blur <= farLast ? weight : 0;
                    float r = red[px];
                    float g = green[px];
                    float b = blue[px];
                    float square = r * r + g * g + b * b;
                    nearWeight += n;
                    nr += n * r;
                    ng += n * g;
                    nb += n * b;
                    nearSquares += n * square;
                    nearRadius += n * blur;
                    farWeight += f;
                    fr += f * r;
                    fg += f * g;
                    fb += f * b;
                    farSquares += f * square;
                    farRadius += f * blur;
                }
            }
            near.weight = nearWeight;
            near.r = nr;
            near.g = ng;
            near.b = nb;
            near.squares = nearSquares;
            near.radius = nearRadius;
            far.weight = farWeight;
            far.r = fr;
            far.g = fg;
            far.b = fb;
            far.squares = farSquares;
            far.radius = farRadius;
        }

        // The most probable share: a pixel that looks like one side belongs to it, however varied the other side is.
        private float share(float r, float g, float b) {
            float vr = near.r - far.r;
            float vg = near.g - far.g;
            float vb = near.b - far.b;
            float dr = r - far.r;
            float dg = g - far.g;
            float db = b - far.b;
            float square = dr * dr + dg * dg + db * db;
            float along = dr * vr + dg * vg + db * vb;
            float length = vr * vr + vg * vg + vb * vb;
            float nearVariance = near.variance();
            float farVariance = far.variance();
            float byDepth = byDepth();
            float best = byDepth;
            float least = Float.MAX_VALUE;
            for (int i = 0; i <= TRIES; i++) {
                float share = (float) i / TRIES;
                float rest = 1 - share;
                float distance = square - 2 * share * along + share * share * length;
                float variance = NOISE + share * share * nearVariance + rest * rest * farVariance;
                float off = share - byDepth;
                float cost = distance / variance + logarithm(variance) + off * off * (1 / DEPTH_VARIANCE);
                if (cost < least) {
                    least = cost;
                    best = share;
                }
            }
            return best;
        }

        // Within 0.06: the exponent, and the mantissa as a straight line between powers of two.
        private float logarithm(float value) {
            return Float.floatToRawIntBits(value) * LOGARITHM_OF_A_BIT;
        }

        private float byDepth() {
            if (soft) {
                return Math.max(0, Math.min(1, (highest - own) / (highest - lowest)));
            }
            float sum = 0;
            float weights = 0;
            for (int py = Math.max(0, y - 1); py <= Math.min(pixels.inHeight - 1, y + 1); py++) {
                float[] radius = pixels.radius[py];
                for (int px = Math.max(0, x - 1); px <= Math.min(pixels.inWidth - 1, x + 1); px++) {
                    float weight = (px == x ? 2 : 1) * (py == y ? 2 : 1);
                    weights += weight;
                    sum += radius[px] <= nearTo ? weight : 0;
                }
            }
            return sum / weights;
        }
    }
}
