package app.yubble.core.lens;

import app.yubble.core.raster.Bands;
import java.util.Arrays;
import java.util.function.IntConsumer;
import org.jspecify.annotations.Nullable;

/**
 * Where one layer after another is laid out on one level, blurred block by block, and laid into the picture so far.
 *
 * <p>Only blocks that a layer reaches are touched: layers are many but most of them are small, so the time goes with the
 * pixels and hardly with the number of layers.
 */
final class LayerSheet {
    /** Channels that are shown: colours and coverage; the one behind tells what is free. */
    private static final int SHOWN = 4;
    /** Pixels that are blurred or skipped together. */
    private static final int BLOCK_WIDTH = 64;
    /** Pixels under one mark of where something is. */
    static final int MARK_WIDTH = 16;
    /** See {@link #MARK_WIDTH}. */
    private static final int MARK_HEIGHT = 4;
    // Below this share of the disc the hidden background is a guess from too few pixels: let it fade out.
    private static final float LEAST_SHOWN = 0.01f;

    private final Sheet sheet;
    private final int level;
    private final int blockHeight;
    private final int blocksAcross;
    private final int blocksDown;
    /** Which patches of 16 x 4 cells hold something. */
    private final boolean[][] marks;

    LayerSheet(int level, int width, int height, Shelf shelf) {
        this.level = level;
        sheet = new Sheet(SHOWN + 1, width, height, shelf);
        // Whole bands of rows; smaller on coarse levels, so that there is work for every core.
        blockHeight = Math.max(8, 32 >> Math.max(0, level - 1));
        blocksAcross = (width + BLOCK_WIDTH - 1) / BLOCK_WIDTH;
        blocksDown = (height + blockHeight - 1) / blockHeight;
        marks = new boolean[(height + MARK_HEIGHT - 1) / MARK_HEIGHT][(width + MARK_WIDTH - 1) / MARK_WIDTH];
    }

    int level() {
        return level;
    }

    float[][] plane(Shelf shelf) {
        return shelf.clearRows(sheet.width, sheet.height);
    }

    /** The first band of full-size rows that lies in a row of blocks. */
    int firstBand(int blockRow) {
        return (blockRow * blockHeight << level) / LayerCut.BAND;
    }

    /**
     * How a layer is laid.
     *
     * @param picture so far
     * @param seen the cells of it that are wanted
     * @param over whether it is laid over the picture, and not under it
     * @param notNearer what counts beside the layer's own cells for what is shown
     * @param partly radii of the pixels of which the layer shows only a part, the rest being sharp; null when it shows whole ones
     * @param cover hides some of it for good; null when nothing does
     * @param laid is told how; null when nobody asks
     */
    record Laying(
            Sheet picture,
            Window seen,
            boolean over,
            KernelField kernels,
            float[][] notNearer,
            float @Nullable [][] partly,
            @Nullable Cover cover,
            Glow.@Nullable Laid laid) {}

    /**
     * Fills a layer as far as it reaches what is seen, blurs it, divides it by what is not nearer, and lays it into the picture.
     *
     * @param fill adds the layer's members in one row of blocks
     */
    void fillAndLay(Laying how, IntConsumer fill) {
        int reach = how.kernels.reach() + 1;
        int top = how.seen.y0() / blockHeight * blockHeight;
        int bottom = ((how.seen.y1() - 1) / blockHeight + 1) * blockHeight;
        int first = Math.max(0, top - reach) / blockHeight;
        int end = Math.min(blocksDown, (bottom + reach - 1) / blockHeight + 1);
        Bands.ofPieces(end - first, row -> fill.accept(first + row));
        lay(how);
    }

    /** Sets each cell to the share of it that lies within the picture. */
    void fillWithPicture(float[][] plane, TilePixels pixels) {
        float[] row = new float[sheet.width];
        for (int x = 0; x < row.length; x++) {
            row[x] = share(x, pixels.inWidth);
        }
        for (int y = 0; y < sheet.height; y++) {
            float down = share(y, pixels.inHeight);
            System.arraycopy(row, 0, plane[y], 0, row.length);
            if (down < 1) {
                for (int x = 0; x < row.length; x++) {
                    plane[y][x] *= down;
                }
            }
        }
    }

    private float share(int cell, int length) {
        return Math.max(0, Math.min(1, (float) (length - (cell << level)) / (1 << level)));
    }

    /** One row of the sheet, to add to. */
    final class Row {
        float[] red = sheet.rows[0][0];
        float[] green = red;
        float[] blue = red;
        float[] covered = red;
        /** Of what is not nearer. */
        float[] free = red;
        /** By patches of a row. */
        boolean[] marked = marks[0];

        private int at = -1;

        void move(int y) {
            at = y;
            red = sheet.rows[0][y];
            green = sheet.rows[1][y];
            blue = sheet.rows[2][y];
            covered = sheet.rows[Sheet.COVERAGE][y];
            free = sheet.rows[SHOWN][y];
            marked = marks[y / MARK_HEIGHT];
        }

        /** Adds to a cell; {@code shown} goes to what is not nearer. */
        void add(int x, int y, float r, float g, float b, float coverage, float shown) {
            if (y != at) {
                move(y);
            }
            red[x] += r;
            green[x] += g;
            blue[x] += b;
            covered[x] += coverage;
            if (shown != 0) {
                free[x] += shown;
            }
            marked[x / MARK_WIDTH] = true;
        }
    }

    private void lay(Laying how) {
        Window seen = how.seen;
        int firstColumn = seen.x0() / BLOCK_WIDTH;
        int firstRow = seen.y0() / blockHeight;
        int across = (seen.x1() - 1) / BLOCK_WIDTH - firstColumn + 1;
        int down = (seen.y1() - 1) / blockHeight - firstRow + 1;
        Bands.ofPieces(across * down, index -> {
            int x = (firstColumn + index % across) * BLOCK_WIDTH;
            int y = (firstRow + index / across) * blockHeight;
            // Whole blocks, so that their sums begin at the same places whatever is seen.
            Window block =
                    new Window(x, y, Math.min(sheet.width, x + BLOCK_WIDTH), Math.min(sheet.height, y + blockHeight));
            Window reached = reached(block, how.kernels.reach());
            if (reached != null && (how.cover == null || !how.cover.hides(block, level))) {
                layBlock(how, reached);
            }
        });
    }

    private void layBlock(Laying how, Window block) {
        float[][][] blurred = new DiscBlur(sheet, how.notNearer, block, how.kernels).result();
        for (int y = block.y0(); y < block.y1(); y++) {
            if (how.partly != null) {
                seeWhole(blurred, y - block.y0(), how.partly[y], block.x0());
            }
            layRow(blurred, y - block.y0(), how.picture, y, block.x0(), how.over, how.laid);
        }
    }

    /**
     * To be told how a layer is laid. Whoever has read it gives it back.
     *
     * @param seen the cells that are looked at
     * @param scaled whether it is to have the layer's factor
     */
    Glow.Laid untoldOver(Sheet picture, Window seen, boolean over, boolean scaled, Shelf shelf) {
        float[][] hides = shelf.rows(sheet.width, sheet.height);
        float[][] scale = scaled ? shelf.rows(sheet.width, sheet.height) : null;
        Bands.ofRows(seen.y1() - seen.y0(), (from, to) -> {
            for (int y = seen.y0() + from; y < seen.y0() + to; y++) {
                if (over) {
                    Arrays.fill(hides[y], 0);
                } else {
                    System.arraycopy(picture.rows[Sheet.COVERAGE][y], 0, hides[y], 0, sheet.width);
                }
                if (scale != null) {
                    Arrays.fill(scale[y], 1);
                }
            }
        });
        return new Glow.Laid(level, hides, scale);
    }

    /** Removes what the layer before has left in one row of blocks. */
    void empty(int blockRow) {
        int last = Math.min(marks.length, (blockRow + 1) * blockHeight / MARK_HEIGHT);
        for (int row = blockRow * blockHeight / MARK_HEIGHT; row < last; row++) {
            for (int column = 0; column < marks[row].length; column++) {
                if (marks[row][column]) {
                    marks[row][column] = false;
                    empty(column * MARK_WIDTH, row * MARK_HEIGHT);
                }
            }
        }
    }

    private void empty(int x0, int y0) {
        for (float[][] channel : sheet.rows) {
            for (int y = y0; y < Math.min(sheet.height, y0 + MARK_HEIGHT); y++) {
                Arrays.fill(channel[y], x0, Math.min(sheet.width, x0 + MARK_WIDTH), 0);
            }
        }
    }

    /** The part of a block that lies within {@code reach} of anything; null when none does. */
    private @Nullable Window reached(Window block, int reach) {
        int firstColumn = Math.max(0, (block.x0() - reach) / MARK_WIDTH);
        int lastColumn = Math.min(marks[0].length - 1, (block.x1() - 1 + reach) / MARK_WIDTH);
        int left = Integer.MAX_VALUE;
        int right = -1;
        int top = Integer.MAX_VALUE;
        int bottom = -1;
        for (int row = Math.max(0, (block.y0() - reach) / MARK_HEIGHT);
                row <= Math.min(marks.length - 1, (block.y1() - 1 + reach) / MARK_HEIGHT);
                row++) {
            boolean[] line = marks[row];
            for (int column = firstColumn; column <= lastColumn; column++) {
                if (line[column]) {
                    left = Math.min(left, column);
                    right = Math.max(right, column);
                    top = Math.min(top, row);
                    bottom = row;
                }
            }
        }
        if (right < 0) {
            return null;
        }
        int bx0 = Math.max(block.x0(), left * MARK_WIDTH - reach);
        int bx1 = Math.min(block.x1(), (right + 1) * MARK_WIDTH + reach);
        int by0 = Math.max(block.y0(), top * MARK_HEIGHT - reach);
        int by1 = Math.min(block.y1(), (bottom + 1) * MARK_HEIGHT + reach);
        return bx0 < bx1 && by0 < by1 ? new Window(bx0, by0, bx1, by1) : null;
    }

    // Seen from a pixel that is itself partly sharp, neighbours like it are whole: what is sharp of them hides
    // what lies behind, too.
    private static void seeWhole(float[][][] blurred, int row, float[] radius, int x0) {
        float[] covered = blurred[Sheet.COVERAGE][row];
        float[] shown = blurred[SHOWN][row];
        for (int i = 0; i < shown.length; i++) {
            float own = radius[x0 + i];
            if (own > 0 && own < 1) {
                shown[i] = covered[i] + own * own * Math.max(0, shown[i] - covered[i]);
            }
        }
    }

    private static void layRow(
            float[][][] blurred, int row, Sheet picture, int y, int x0, boolean over, Glow.@Nullable Laid laid) {
        int width = blurred[0][row].length;
        float[] scale = new float[width];
        scaleRow(blurred[SHOWN][row], scale);
        for (int c = 0; c <= Sheet.COVERAGE; c++) {
            Sheet.multiplyRow(blurred[c][row], scale);
        }
        if (laid != null) {
            if (laid.scale() != null) {
                System.arraycopy(scale, 0, laid.scale()[y], x0, width);
            }
            if (over) {
                System.arraycopy(blurred[Sheet.COVERAGE][row], 0, laid.hides()[y], x0, width);
            }
        }
        float[] before = new float[width];
        float[] alpha = over ? blurred[Sheet.COVERAGE][row] : new float[width];
        if (!over) {
            System.arraycopy(picture.rows[Sheet.COVERAGE][y], x0, alpha, 0, width);
        }
        for (int c = 0; c <= Sheet.COVERAGE; c++) {
            System.arraycopy(picture.rows[c][y], x0, before, 0, width);
            if (over) {
                Sheet.overRow(blurred[c][row], alpha, before);
            } else {
                underRow(blurred[c][row], alpha, before);
            }
            System.arraycopy(before, 0, picture.rows[c][y], x0, width);
        }
    }

    private static void scaleRow(float[] shown, float[] scale) {
        for (int i = 0; i < scale.length; i++) {
            scale[i] = Math.min(1f, shown[i] * (1 / LEAST_SHOWN)) / Math.max(1e-5f, shown[i]);
        }
    }

    private static void underRow(float[] below, float[] alpha, float[] up) {
        for (int i = 0; i < up.length; i++) {
            up[i] = up[i] + Math.max(0f, 1f - alpha[i]) * below[i];
        }
    }
}
