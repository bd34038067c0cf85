package app.yubble.core.lens;

import app.yubble.core.raster.BlockRanges;
import app.yubble.core.raster.Region;

/** How far blur reaches into a tile from outside: most tiles need much less margin than the largest radius. */
final class Reach {
    /** Pixels on a side of which the largest radius is known. */
    private static final int BLOCK = BlockRanges.SIDE;
    /** Pixels beside what blur reaches, for depth edges. */
    private static final int AROUND = 4;
    /** Beyond any radius: marks blocks without pixels. */
    private static final float MOST = 1e6f;

    /** Largest radius behind the band in each block, and in front of it. */
    private final float[] behind;

    private final float[] front;
    private final int across;
    private final int down;
    private float overall;

    /** Refuses what is no number. */
    Reach(BlockRanges radii) {
        across = radii.low().width();
        down = radii.low().height();
        behind = new float[across * down];
        front = new float[across * down];
        for (int block = 0; block < behind.length; block++) {
            float low = radii.low().samples()[block];
            float high = radii.high().samples()[block];
            if (!(high < MOST && low > -MOST)) {
                throw new IllegalArgumentException(
                        "blur radius must be a number below a million pixels, found " + (high < MOST ? low : high));
            }
            behind[block] = Math.max(0, Math.min(high, LensRender.MOST_RADIUS));
            front[block] = Math.max(0, Math.min(-low, LensRender.MOST_RADIUS));
            overall = Math.max(overall, Math.max(behind[block], front[block]));
        }
    }

    /** The largest radius there is. */
    float overall() {
        return overall;
    }

    /** The largest radius of the blocks that {@code box} touches. */
    float within(Region box) {
        float most = 0;
        for (int by = box.y() / BLOCK; by <= (box.y() + box.height() - 1) / BLOCK; by++) {
            for (int bx = box.x() / BLOCK; bx <= (box.x() + box.width() - 1) / BLOCK; bx++) {
                most = Math.max(most, Math.max(behind[by * across + bx], front[by * across + bx]));
            }
        }
        return most;
    }

    /**
     * What has to be known for {@code tile}: it, what is blurred into it, and what lies around the edges of what blurs in
     * front of it, with which the hidden is filled.
     *
     * @param mostEdge of the disc, for a radius of 1
     * @return it may reach beyond the picture
     */
    Region into(Region tile, double mostEdge) {
        int all = (int) Math.ceil(overall * mostEdge + AROUND);
        int firstColumn = Math.max(0, tile.x() - all) / BLOCK;
        int lastColumn = Math.min(across - 1, (tile.x() + tile.width() + all) / BLOCK);
        int firstRow = Math.max(0, tile.y() - all) / BLOCK;
        int lastRow = Math.min(down - 1, (tile.y() + tile.height() + all) / BLOCK);
        Edges edges = new Edges(tile);
        for (int by = firstRow; by <= lastRow; by++) {
            for (int bx = firstColumn; bx <= lastColumn; bx++) {
                int block = by * across + bx;
                double shown = front[block] > 0 ? front[block] * mostEdge + AROUND : 0;
                edges.include(bx * BLOCK, by * BLOCK, behind[block] * mostEdge + AROUND, 0);
                edges.include(bx * BLOCK, by * BLOCK, shown, shown);
            }
        }
        return edges.around();
    }

    /** Grows around a tile to hold what is known of blocks that reach it. */
    private static final class Edges {
        private final Region tile;
        private double left;
        private double top;
        private double right;
        private double bottom;

        Edges(Region tile) {
            this.tile = tile;
            left = tile.x();
            top = tile.y();
            right = left + tile.width();
            bottom = top + tile.height();
        }

        /**
         * @param x of a block
         * @param radius how far it reaches
         * @param beside how much around it is needed, too
         */
        void include(int x, int y, double radius, double beside) {
            double dx = Math.max(0, Math.max(tile.x() - x - BLOCK, x - tile.x() - tile.width()));
            double dy = Math.max(0, Math.max(tile.y() - y - BLOCK, y - tile.y() - tile.height()));
            if (radius >= Math.max(dx, dy)) {
                left = Math.min(left, Math.max(x - beside, tile.x() - radius));
                top = Math.min(top, Math.max(y - beside, tile.y() - radius));
                right = Math.max(right, Math.min(x + BLOCK + beside, tile.x() + tile.width() + radius));
                bottom = Math.max(bottom, Math.min(y + BLOCK + beside, tile.y() + tile.height() + radius));
            }
        }

        Region around() {
            int x = (int) Math.floor(left);
            int y = (int) Math.floor(top);
            return new Region(x, y, (int) Math.ceil(right) - x, (int) Math.ceil(bottom) - y);
        }
    }

    /** Whether anything in {@code box} is blurred in front of the band. */
    boolean hasFront(Region box) {
        return any(front, box);
    }

    /** Whether anything in {@code box} is blurred behind the band. */
    boolean hasBehind(Region box) {
        return any(behind, box);
    }

    private boolean any(float[] values, Region box) {
        int lastRow = Math.min(down, (box.y() + box.height() + BLOCK - 1) / BLOCK);
        int lastColumn = Math.min(across, (box.x() + box.width() + BLOCK - 1) / BLOCK);
        for (int by = box.y() / BLOCK; by < lastRow; by++) {
            for (int bx = box.x() / BLOCK; bx < lastColumn; bx++) {
                if (values[by * across + bx] > 0) {
                    return true;
                }
            }
        }
        return false;
    }
}
