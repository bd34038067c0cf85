package app.yubble.core.lens;

import app.yubble.core.raster.Bands;

/**
 * The pixels of a tile on one side of the sharp band, by their step of radius, and the layers cut from them.
 *
 * <p>A pixel between two steps belongs to both in proportion. What each layer needs is found through lists of the pixels
 * at each step, so that cutting all layers touches every pixel a few times, not once for each layer.
 */
final class LayerCut {
    /** Rows in one list. */
    static final int BAND = 32;

    private final TilePixels pixels;
    private final RadiusSteps steps;
    private final boolean inFront;
    private final Shelf shelf;
    private final Listed[] whole;
    private final Listed[] parts;
    private final Pieces[] pieces;
    private final Listed[] behind;
    private final Pieces[] hidden;

    /** Share of each cell that lies at or beyond step {@link #gatheredTo}, on level {@link #gatheredLevel}. */
    private float[][] gathered = new float[0][0];

    private int gatheredLevel = -1;
    private int gatheredTo;
    private int gatheredFrom;

    /** Entries of a band ordered by step, row by row within a step. */
    private static final class Listed {
        /** Where the entries of each step start. */
        final int[] starts;
        /** Row in the upper 16 bits, column in the lower; for pieces their number. */
        int[] places = new int[0];
        /** How far each is on the way to the next step, in [0,1]. */
        float[] toNext = new float[0];

        Listed(int count) {
            starts = new int[count + 1];
        }

        /** Turns counts of step j in place j + 1 into starts; the answer is where each step's next entry goes. */
        int[] opened() {
            for (int j = 1; j < starts.length; j++) {
                starts[j] += starts[j - 1];
            }
            places = new int[starts[starts.length - 1]];
            toNext = new float[places.length];
            return starts.clone();
        }
    }

    /**
     * @param pieces what lies over pixels, by band
     * @param hidden whole pixels that lie behind others, by band
     * @param inFront whether the nearer side of the sharp band is cut, where radii are negative
     */
    LayerCut(TilePixels pixels, Pieces[] pieces, Pieces[] hidden, RadiusSteps steps, boolean inFront, Shelf shelf) {
        this.hidden = hidden;
        this.shelf = shelf;
        this.pixels = pixels;
        this.pieces = pieces;
        this.steps = steps;
        this.inFront = inFront;
        int bands = (pixels.height + BAND - 1) / BAND;
        whole = new Listed[bands];
        parts = new Listed[bands];
        behind = new Listed[bands];
        Bands.ofPieces(bands, band -> {
            whole[band] = listPixels(band * BAND, Math.min(pixels.height, (band + 1) * BAND));
            parts[band] = listPieces(pieces[band]);
            behind[band] = listPieces(hidden[band]);
        });
    }

    private Listed listPixels(int from, int to) {
        Listed list = new Listed(steps.count());
        float sign = inFront ? -1 : 1;
        byte[] found = new byte[(to - from) * pixels.width];
        for (int y = from, i = 0; y < to; y++) {
            float[] row = pixels.radius[y];
            for (int x = 0; x < row.length; x++, i++) {
                float radius = sign * row[x];
                if (radius > 0) {
                    int j = steps.at(radius);
                    found[i] = (byte) j;
                    list.starts[j + 1]++;
                }
            }
        }
        int[] next = list.opened();
        if (list.places.length == 0) {
            return list;
        }
        for (int y = from, i = 0; y < to; y++) {
            float[] row = pixels.radius[y];
            for (int x = 0; x < row.length; x++, i++) {
                float radius = sign * row[x];
                if (radius > 0) {
                    int o = next[found[i]]++;
                    list.places[o] = y << 16 | x;
                    list.toNext[o] = steps.toNext(radius, found[i]);
                }
            }
        }
        return list;
    }

    private Listed listPieces(Pieces from) {
        Listed list = new Listed(steps.count());
        for (int i = 0; i < from.count; i++) {
            if (wanted(from.radius[i])) {
                list.starts[steps.at(Math.abs(from.radius[i])) + 1]++;
            }
        }
        int[] next = list.opened();
        for (int i = 0; i < from.count; i++) {
            if (wanted(from.radius[i])) {
                float radius = Math.abs(from.radius[i]);
                int j = steps.at(radius);
                list.places[next[j]] = i;
                list.toNext[next[j]++] = steps.toNext(radius, j);
            }
        }
        return list;
    }

    // Pieces within a pixel of the band are laid over it as they are.
    private boolean wanted(float radius) {
        return inFront ? radius <= -1 : radius >= 1;
    }

    int count() {
        return steps.count();
    }

    boolean isEmpty(int k) {
        for (int band = 0; band < whole.length; band++) {
            if (whole[band].starts[k - 1] < whole[band].starts[k + 1]
                    || parts[band].starts[k - 1] < parts[band].starts[k + 1]
                    || behind[band].starts[k - 1] < behind[band].starts[k + 1]) {
                return false;
            }
        }
        return true;
    }

    /** Opens layer {@code k} on {@code sheet}'s level; layers must come in falling order. */
    void open(int k, LayerSheet sheet) {
        if (sheet.level() != gatheredLevel) {
            gathered = sheet.plane(shelf);
            if (inFront) {
                sheet.fillWithPicture(gathered, pixels);
            }
            gatheredLevel = sheet.level();
            gatheredTo = steps.count() - 1;
        }
        gatheredFrom = gatheredTo;
        gatheredTo = Math.min(gatheredTo, inFront ? k + 1 : k);
    }

    /** Brings what is not nearer than the opened layer up to date in one row of blocks. */
    void gather(LayerSheet sheet, int blockRow) {
        int level = sheet.level();
        float share = (inFront ? -1f : 1f) / (1 << 2 * level);
        for (int band = sheet.firstBand(blockRow);
                band < Math.min(whole.length, sheet.firstBand(blockRow + 1));
                band++) {
            Listed list = whole[band];
            for (int o = list.starts[gatheredTo]; o < list.starts[gatheredFrom]; o++) {
                int place = list.places[o];
                gathered[place >>> 16 + level][(place & 0xffff) >> level] += share;
            }
        }
    }

    float[][] gathered() {
        return gathered;
    }

    /** Adds the members of layer {@code k} that lie in one row of blocks. */
    void addMembers(int k, LayerSheet sheet, int blockRow) {
        for (int band = sheet.firstBand(blockRow);
                band < Math.min(whole.length, sheet.firstBand(blockRow + 1));
                band++) {
            addPixels(whole[band], k - 1, false, sheet);
            addPixels(whole[band], k, true, sheet);
            addPieces(parts[band], pieces[band], false, k - 1, false, sheet);
            addPieces(parts[band], pieces[band], false, k, true, sheet);
            addPieces(behind[band], hidden[band], true, k - 1, false, sheet);
            addPieces(behind[band], hidden[band], true, k, true, sheet);
        }
    }

    private void addPixels(Listed list, int j, boolean own, LayerSheet sheet) {
        if (list.starts[j] == list.starts[j + 1]) {
            return;
        }
        LayerSheet.Row to = sheet.new Row();
        float share = 1f / (1 << 2 * sheet.level());
        // Behind the band the upper step also shows those on their way to it; in front those already past are nearer.
        float shown = inFront ? (own ? -share : 0) : (own ? 0 : share);
        Shares shares = new Shares(own ? share : 0, own ? -share : share, shown);
        int end = list.starts[j + 1];
        int o = list.starts[j];
        while (o < end) {
            int y = list.places[o] >>> 16;
            int first = o;
            while (o < end && list.places[o] >>> 16 == y) {
                o++;
            }
            to.move(y >> sheet.level());
            addRun(list, first, o, shares, to);
        }
    }

    /**
     * What a pixel adds to a layer.
     *
     * @param base coverage when it lies on its step
     * @param slope more of that on the whole way to the next
     * @param shown what it adds to what is not nearer on that way
     */
    private record Shares(float base, float slope, float shown) {}

    /** Entries of one row, from {@code first} (inclusive) to {@code end} (exclusive). Over local arrays: a preview is a tenth quicker. */
    private void addRun(Listed list, int first, int end, Shares shares, LayerSheet.Row to) {
        float base = shares.base();
        float slope = shares.slope();
        float shown = shares.shown();
        int level = to.level();
        int y = list.places[first] >>> 16;
        int[] places = list.places;
        float[] toNext = list.toNext;
        float[] red = pixels.red[y];
        float[] green = pixels.green[y];
        float[] blue = pixels.blue[y];
        float[] toRed = to.red;
        float[] toGreen = to.green;
        float[] toBlue = to.blue;
        float[] covered = to.covered;
        float[] free = to.free;
        boolean[] marked = to.marked;
        for (int o = first; o < end; o++) {
            float next = toNext[o];
            float coverage = base + slope * next;
            float more = shown * next;
            if (coverage != 0 || more != 0) {
                int x = places[o] & 0xffff;
                int at = x >> level;
                toRed[at] += coverage * red[x];
                toGreen[at] += coverage * green[x];
                toBlue[at] += coverage * blue[x];
                covered[at] += coverage;
                free[at] += more;
                marked[at / LayerSheet.MARK_WIDTH] = true;
            }
        }
    }

    // A piece lies over a whole pixel of its farther side, so it hides nothing; but of its own two parts the
    // nearer hides the farther. A hidden pixel is to count as shown, though something nearer has been taken for
    // hiding it.
    private void addPieces(Listed list, Pieces from, boolean fromBehind, int j, boolean own, LayerSheet sheet) {
        if (list.starts[j] == list.starts[j + 1]) {
            return;
        }
        LayerSheet.Row to = sheet.new Row();
        int level = sheet.level();
        float share = 1f / (1 << 2 * level);
        boolean farther = own == inFront;
        for (int o = list.starts[j]; o < list.starts[j + 1]; o++) {
            int i = list.places[o];
            float part = share * (own ? 1 - list.toNext[o] : list.toNext[o]);
            to.add(
                    (from.places[i] & 0xffff) >> level,
                    (from.places[i] >>> 16) >> level,
                    part * from.red[i],
                    part * from.green[i],
                    part * from.blue[i],
                    part * from.coverage[i],
                    fromBehind ? (farther ? part : share) : farther ? (part - share) * from.coverage[i] : 0);
        }
    }
}
