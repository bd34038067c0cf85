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
    /** By band, then level of cells. */
    private final Listed[][] whole;

    private final Listed[] parts;
    private final Pieces[] pieces;
    /** By level of cells. */
    private final Colours[] colours;

    private final Listed[] behind;
    private final Pieces[] hidden;

    /** Share of each cell that lies at or beyond step {@link #gatheredTo}, on level {@link #gatheredLevel}. */
    private float[][] gathered = new float[0][0];

    private int gatheredLevel = -1;
    private int gatheredTo;
    private int gatheredFrom;

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
        whole = new Listed[bands][];
        colours = Colours.byLevel(pixels, CellList.LEVELS, shelf);
        parts = new Listed[bands];
        behind = new Listed[bands];
        Bands.ofPieces(bands, band -> {
            whole[band] = CellList.of(pixels, steps, inFront, band * BAND, Math.min(pixels.height, (band + 1) * BAND));
            parts[band] = listPieces(pieces[band]);
            behind[band] = listPieces(hidden[band]);
        });
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
            for (Listed list : whole[band]) {
                if (list.has(k - 1) || list.has(k)) {
                    return false;
                }
            }
            if (parts[band].has(k - 1) || parts[band].has(k) || behind[band].has(k - 1) || behind[band].has(k)) {
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
        for (int band = sheet.firstBand(blockRow);
                band < Math.min(whole.length, sheet.firstBand(blockRow + 1));
                band++) {
            for (int cells = 0; cells < whole[band].length; cells++) {
                gather(whole[band][cells], cells, sheet.level());
            }
        }
    }

    /** @param cells level of them */
    private void gather(Listed list, int cells, int level) {
        int coarser = Math.max(0, level - cells);
        int side = 1 << Math.max(0, cells - level);
        float share = (inFront ? -1f : 1f) / (1 << 2 * coarser);
        for (int o = list.starts[gatheredTo]; o < list.starts[gatheredFrom]; o++) {
            int place = list.places[o];
            int x = (place & 0xffff) * side >> coarser;
            int y = (place >>> 16) * side >> coarser;
            for (int row = y; row < y + side; row++) {
                for (int column = x; column < x + side; column++) {
                    gathered[row][column] += share;
                }
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
            for (int cells = 0; cells < whole[band].length; cells++) {
                addCells(whole[band][cells], cells, k - 1, false, sheet);
                addCells(whole[band][cells], cells, k, true, sheet);
            }
            addPieces(parts[band], pieces[band], false, k - 1, false, sheet);
            addPieces(parts[band], pieces[band], false, k, true, sheet);
            addPieces(behind[band], hidden[band], true, k - 1, false, sheet);
            addPieces(behind[band], hidden[band], true, k, true, sheet);
        }
    }

    /** @param cells level of them, at most that of the sheet */
    private void addCells(Listed list, int cells, int j, boolean own, LayerSheet sheet) {
        if (!list.has(j)) {
            return;
        }
        LayerSheet.Row to = sheet.new Row();
        int coarser = sheet.level() - cells;
        float share = 1f / (1 << 2 * coarser);
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
            to.move(y >> coarser);
            addRun(list, first, o, shares, colours[cells], coarser, to);
        }
    }

    /**
     * What a cell adds to a layer.
     *
     * @param base coverage when it lies on its step
     * @param slope more of that on the whole way to the next
     * @param shown what it adds to what is not nearer on that way
     */
    private record Shares(float base, float slope, float shown) {}

    /** Entries of one row, from {@code first} (inclusive) to {@code end} (exclusive). Over local arrays: a preview is a tenth quicker. */
    private static void addRun(
            Listed list, int first, int end, Shares shares, Colours from, int coarser, LayerSheet.Row to) {
        float base = shares.base();
        float slope = shares.slope();
        float shown = shares.shown();
        int y = list.places[first] >>> 16;
        int[] places = list.places;
        float[] toNext = list.toNext;
        float[] red = from.red()[y];
        float[] green = from.green()[y];
        float[] blue = from.blue()[y];
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
                int at = x >> coarser;
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
        if (!list.has(j)) {
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
