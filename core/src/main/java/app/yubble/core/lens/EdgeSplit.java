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
    // A pixel of middle depth with fewer of its like than this around it lies on a soft rise of the depth map, as at
    // hair.
    private static final float SOFT_SHARE = 0.45f;
    // How far the share is from what the depths of the neighbours say, squared.
    private static final float DEPTH_VARIANCE = 0.0625f;
    /** Shares that are tried: tenths, as the noise allows no finer ones. */
    private static final float[] TRIES = new float[11];

    static {
        for (int i = 0; i < TRIES.length; i++) {
            TRIES[i] = i / 10f;
        }
    }

    /** A float's bits as a whole number grow with its logarithm, nearly (Schraudolph 1999). */
    private static final float LOGARITHM_OF_A_BIT = (float) (Math.log(2) / (1 << 23));
    /** Smaller shares are none. */
    private static final float LEAST_SHARE = 0.02f;
    /** Variance of linear light in a photo: a fiftieth of white. */
    private static final float NOISE = 4e-4f;
    // Lifted highlights say nothing about the colour of a side.
    private static final float MOST_LIGHT = 1.5f;

    private final TilePixels pixels;
    private final int reach;
    /** A pixel with fewer of its like around it may lie on a soft rise. */
    private final float softest;
    /** By row, a bit for each pixel beside a jump of the radius: it is mixed. */
    private long[][] mixed;

    private EdgeSplit(TilePixels pixels, int spread) {
        this.pixels = pixels;
        this.reach = Math.min(MOST_REACH, spread + 1);
        softest = SOFT_SHARE * (2 * reach + 1) * (2 * reach + 1);
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
            for (int y = from; y < Math.min(pixels.inHeight, from + LayerCut.BAND); y++) {
                split.splitRow(y, own);
            }
            own.finish();
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
        float[] jump = new float[pixels.width];
        float[] across = new float[pixels.width];
        float[] before = new float[pixels.width];
        for (int y = from; y < Math.min(to, pixels.inHeight); y++) {
            float[] row = pixels.radius[y];
            System.arraycopy(row, 0, before, 1, row.length - 1);
            before[0] = row[0];
            jumps(
                    row,
                    pixels.radius[Math.max(0, y - 1)],
                    pixels.radius[Math.min(pixels.inHeight - 1, y + 1)],
                    before,
                    jump,
                    across);
            long[] marks = mixed[y];
            for (int x = 0; x < pixels.inWidth; x++) {
                if (jump[x] > 0) {
                    marks[x >> 6] |= 1L << x;
                    if (across[x] > 0) {
                        marks[x - 1 >> 6] |= 1L << x - 1;
                    }
                }
            }
        }
    }

    /**
     * How far each pixel jumps more than its tolerance.
     *
     * @param jump from any neighbour but that to the right
     * @param across from the one to the left
     */
    private static void jumps(float[] row, float[] above, float[] below, float[] before, float[] jump, float[] across) {
        for (int i = 0; i < row.length; i++) {
            float own = row[i];
            float step = Math.max(LEAST_STEP, STEP_SHARE * Math.abs(own));
            float left = Math.abs(before[i] - own);
            across[i] = left - step;
            jump[i] = Math.max(left, Math.max(Math.abs(above[i] - own), Math.abs(below[i] - own))) - step;
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

    /** Adds mixed pixels and their neighbours, in runs. */
    private void splitRow(int y, Split split) {
        long[] wanted = widened(mixed, y);
        int x = 0;
        while (true) {
            x = next(wanted, x, true);
            if (x >= pixels.inWidth) {
                return;
            }
            int end = Math.min(pixels.inWidth, next(wanted, x, false));
            split.add(x, y, end - x);
            x = end;
        }
    }

    /** The first place from {@code x} on whose bit is set, or is not. */
    private static int next(long[] bits, int x, boolean set) {
        int word = x >> 6;
        long rest = word == bits.length ? 0 : (set ? bits[word] : ~bits[word]) & -1L << x;
        while (rest == 0) {
            word++;
            if (word >= bits.length) {
                return bits.length << 6;
            }
            rest = set ? bits[word] : ~bits[word];
        }
        return (word << 6) + Long.numberOfTrailingZeros(rest);
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

    /** The pixels of a band, many at a time, and what lies around them. */
    private final class Split {
        private final EdgeWindows windows = new EdgeWindows(pixels, mixed, MOST_LIGHT, reach);
        private final Change change;
        private final Pieces out;
        private final EdgeWindows.Side near = new EdgeWindows.Side();
        private final EdgeWindows.Side far = new EdgeWindows.Side();
        /** By lane: whether there are two sides, and whether the pixel lies on a soft rise between them. */
        private final boolean[] twoSides = new boolean[EdgeWindows.LANES];

        private final boolean[] soft = new boolean[EdgeWindows.LANES];
        /** By lane: radii up to here are the nearer side, from {@link #farFrom} the farther one. */
        private final float[] nearTo = new float[EdgeWindows.LANES];

        private final float[] farFrom = new float[EdgeWindows.LANES];

        Split(Change change, Pieces out) {
            this.change = change;
            this.out = out;
        }

        void add(int x, int y, int count) {
            int done = 0;
            while (done < count) {
                int more = Math.min(windows.room(), count - done);
                windows.add(x + done, y, more);
                done += more;
                if (windows.room() == 0) {
                    finish();
                }
            }
        }

        /** Takes apart what has been added. */
        void finish() {
            if (windows.lanes() == 0) {
                return;
            }
            windows.measure(LEAST_STEP, STEP_SHARE);
            for (int lane = 0; lane < windows.lanes(); lane++) {
                twoSides[lane] = windows.isWanted(lane) && findSides(lane);
            }
            windows.sum();
            for (int lane = 0; lane < windows.lanes(); lane++) {
                if (twoSides[lane]) {
                    takeApart(lane);
                }
            }
            windows.clear();
        }

        private void takeApart(int lane) {
            int x = windows.x(lane);
            int y = windows.y(lane);
            float r = pixels.red[y][x];
            float g = pixels.green[y][x];
            float b = pixels.blue[y][x];
            windows.read(lane, near, far);
            if (Math.max(r, Math.max(g, b)) > MOST_LIGHT || near.weight == 0 || far.weight == 0) {
                return;
            }
            float own = windows.own[lane];
            float share = share(r, g, b, byDepth(lane));
            boolean ownNear = own <= nearTo[lane];
            boolean ownFar = own >= farFrom[lane];
            if (share < LEAST_SHARE && ownFar || share > 1 - LEAST_SHARE && ownNear) {
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
            change.add(x, y, ownFar ? own : far.radius, br, bg, bb);
            if (share >= LEAST_SHARE) {
                out.add(x, y, ownNear ? own : near.radius, share, fr, fg, fb);
            }
        }

        private boolean findSides(int lane) {
            float own = windows.own[lane];
            float low = windows.lowest[lane];
            float high = windows.highest[lane];
            float step = tolerance(own);
            if (Math.max(Math.abs(low), Math.abs(high)) < 1 || high - low <= step) {
                return false;
            }
            float quarter = 0.25f * (high - low);
            soft[lane] = own > low + quarter && own < high - quarter && windows.like[lane] < softest;
            // Weights fall with the distance, so the heavier side is the closer one.
            if (soft[lane]) {
                setSides(lane, low + quarter, high - quarter);
                windows.setApart(lane, low + quarter, high - quarter);
            } else if (windows.nearer[lane] > windows.farther[lane]) {
                setSides(lane, own - step, own - step / 2);
                windows.setFartherLike(lane);
            } else {
                setSides(lane, own + step / 2, own + step);
                windows.setNearerLike(lane);
            }
            return true;
        }

        private void setSides(int lane, float near, float far) {
            nearTo[lane] = near;
            farFrom[lane] = far;
            windows.setNearTo(lane, near);
        }

        // The most probable share: a pixel that looks like one side belongs to it, however varied the other side is.
        private float share(float r, float g, float b, float byDepth) {
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
            float best = byDepth;
            float least = Float.MAX_VALUE;
            for (float share : TRIES) {
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

        private float byDepth(int lane) {
            if (!soft[lane]) {
                return windows.byDepth(lane);
            }
            float low = windows.lowest[lane];
            float high = windows.highest[lane];
            return Math.max(0, Math.min(1, (high - windows.own[lane]) / (high - low)));
        }
    }
}
