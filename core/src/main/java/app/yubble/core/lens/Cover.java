package app.yubble.core.lens;

import app.yubble.core.raster.Bands;

/** Where what stands in front hides all that is behind it, so that nothing needs to be drawn there. */
final class Cover {
    /** Pixels on a side of which it is known. */
    private static final int BLOCK = 32;
    /** What is left of white behind black is then a third of a step of 8 bits. */
    private static final float OPAQUE = 1 - 1e-4f;
    /** Cells around a block: enlarging mixes them into what lies beside it. */
    private static final int BESIDE = 2;

    private final Window seen;
    private final boolean[][] open;

    private Cover(Window seen) {
        this.seen = seen;
        open = new boolean[(seen.y1() - 1) / BLOCK + 1][(seen.x1() - 1) / BLOCK + 1];
    }

    /** @param front of a tile, at full size */
    static Cover of(Sheet front, Window seen) {
        Cover cover = new Cover(seen);
        Bands.ofPieces(cover.open.length, row -> {
            int last = Math.min(seen.y1(), (row + 1) * BLOCK);
            for (int y = Math.max(seen.y0(), row * BLOCK); y < last; y++) {
                cover.look(front.rows[Sheet.COVERAGE][y], cover.open[row]);
            }
        });
        return cover;
    }

    private void look(float[] coverage, boolean[] blocks) {
        for (int block = seen.x0() / BLOCK; block < blocks.length; block++) {
            int last = Math.min(seen.x1(), (block + 1) * BLOCK);
            for (int x = Math.max(seen.x0(), block * BLOCK); x < last && !blocks[block]; x++) {
                blocks[block] = coverage[x] < OPAQUE;
            }
        }
    }

    /** Whether nothing can be seen of a block of cells. */
    boolean hides(Window cells, int level) {
        int firstRow = Math.max(seen.y0(), cells.y0() - BESIDE << level) / BLOCK;
        int lastRow = Math.min(seen.y1() - 1, (cells.y1() + BESIDE << level) - 1) / BLOCK;
        int firstColumn = Math.max(seen.x0(), cells.x0() - BESIDE << level) / BLOCK;
        int lastColumn = Math.min(seen.x1() - 1, (cells.x1() + BESIDE << level) - 1) / BLOCK;
        for (int row = firstRow; row <= lastRow; row++) {
            for (int column = firstColumn; column <= lastColumn; column++) {
                if (open[row][column]) {
                    return false;
                }
            }
        }
        return true;
    }
}
