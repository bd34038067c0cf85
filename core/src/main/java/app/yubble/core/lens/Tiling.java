package app.yubble.core.lens;

import app.yubble.core.raster.Region;
import java.util.ArrayList;
import java.util.List;

/**
 * The tiles of a rendering, one column after another: with the least work in their margins that keeps each within the
 * memory of one. Tiles of a column are equally wide with their margins, so that they use each other's memory.
 */
final class Tiling {
    /** Pixels of a tile with its margin, at most, where any side that is tried gives such; 28 MB a plane. */
    private static final long MOST_PIXELS = 7_000_000;
    /** Sides that are tried, in pixels without margins. */
    private static final int[] SIDES = {1024, 1280, 1536, 2048, 3072};

    private final LensRender.Job job;
    private final Region region;
    private final List<Tile> tiles = new ArrayList<>();
    private long pixels;
    private long largest;

    /**
     * @param core what is drawn
     * @param box with the margin; its corners lie on the grid, the first within the picture
     */
    record Tile(Region core, Region box) {}

    private Tiling(LensRender.Job job, Region region, int across, int down) {
        this.job = job;
        this.region = region;
        for (int column = 0; column < across; column++) {
            int left = (int) ((long) region.width() * column / across);
            int right = (int) ((long) region.width() * (column + 1) / across);
            addColumn(region.x() + left, right - left, down);
        }
    }

    static List<Tile> of(LensRender.Job job, Region region) {
        Tiling best = new Tiling(job, region, 1, 1);
        if (best.largest <= MOST_PIXELS) {
            return best.tiles;
        }
        for (int width : SIDES) {
            for (int height : SIDES) {
                Tiling next = new Tiling(job, region, count(region.width(), width), count(region.height(), height));
                if (next.isBetterThan(best)) {
                    best = next;
                }
            }
        }
        return best.tiles;
    }

    private static int count(int length, int side) {
        return (length + side - 1) / side;
    }

    private boolean isBetterThan(Tiling other) {
        boolean fits = largest <= MOST_PIXELS;
        boolean otherFits = other.largest <= MOST_PIXELS;
        return fits && otherFits ? pixels < other.pixels : fits || !otherFits && largest < other.largest;
    }

    private void addColumn(int x, int width, int down) {
        double edge = job.shape().most();
        Region sides = job.reach().into(new Region(x, region.y(), width, region.height()), edge);
        for (int row = 0; row < down; row++) {
            int top = (int) ((long) region.height() * row / down);
            int bottom = (int) ((long) region.height() * (row + 1) / down);
            Region core = new Region(x, region.y() + top, width, bottom - top);
            Region ends = job.reach().into(core, edge);
            Region box = onGrid(new Region(sides.x(), ends.y(), sides.width(), ends.height()));
            tiles.add(new Tile(core, box));
            pixels += box.size().pixels();
            largest = Math.max(largest, box.size().pixels());
        }
    }

    private Region onGrid(Region needed) {
        int grid = job.plan().grid();
        int x0 = Math.max(0, needed.x()) / grid * grid;
        int y0 = Math.max(0, needed.y()) / grid * grid;
        int x1 = Math.min(job.source().width(), needed.x() + needed.width());
        int y1 = Math.min(job.source().height(), needed.y() + needed.height());
        return new Region(x0, y0, (x1 - x0 + grid - 1) / grid * grid, (y1 - y0 + grid - 1) / grid * grid);
    }
}
