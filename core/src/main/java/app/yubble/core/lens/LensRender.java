package app.yubble.core.lens;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * Renders lens blur from a defocus field, as specified in the package documentation.
 *
 * <p>How: tiles are independent. Each reads itself and a margin as wide as blur reaches into it, so memory
 * beyond source and result is a few tiles per core, whatever the size of the picture. Tile corners lie on multiples of
 * a power of two that is at least as coarse as the coarsest level, so that reduced levels fall on the same pixels in every tile and no seam can appear.
 */
public final class LensRender {
    /** Larger radii are drawn with this one: it bounds a tile's margin and so the memory. */
    public static final float MOST_RADIUS = 400;

    private static final int LEAST_TILE = 256;
    private static final int MOST_TILE = 1024;

    private LensRender() {}

    /**
     * @param source linear light
     * @param radius signed blur radius in pixels, same size, finite
     */
    public static Picture render(Picture source, Plane radius, Disc disc, Glints glints, Progress progress) {
        return render(source, radius, disc, glints.lift(source), Region.all(source.size()), progress);
    }

    /**
     * As {@link #render(Picture, Plane, Disc, Glints, Progress)}, but only the pixels of {@code region}.
     *
     * @param lift as {@link Glints#lift} returns it
     */
    public static Picture render(
            Picture source, Plane radius, Disc disc, Plane lift, Region region, Progress progress) {
        if (!radius.size().equals(source.size())) {
            throw new IllegalArgumentException(
                    "picture " + source.size() + " and defocus field " + radius.size() + " must have one size");
        }
        if (!region.within(source.size())) {
            throw new IllegalArgumentException(region + " is not within the picture of " + source.size());
        }
        Reach reach = new Reach(radius);
        TilePlan plan = TilePlan.of(reach.overall());
        int side = Math.min(MOST_TILE, Math.max(LEAST_TILE, plan.roundedUp((int) reach.overall()) * 3));
        int firstX = Math.floorDiv(region.x(), plan.grid()) * plan.grid();
        int firstY = Math.floorDiv(region.y(), plan.grid()) * plan.grid();
        int across = (region.x() + region.width() - firstX + side - 1) / side;
        int down = (region.y() + region.height() - firstY + side - 1) / side;
        Picture out = Picture.blank(region.size());
        AtomicInteger finished = new AtomicInteger();
        Bands.ofPieces(across * down, index -> {
            progress.at((double) finished.get() / (across * down));
            int x0 = Math.max(region.x(), firstX + index % across * side);
            int y0 = Math.max(region.y(), firstY + index / across * side);
            int x1 = Math.min(region.x() + region.width(), firstX + (index % across + 1) * side);
            int y1 = Math.min(region.y() + region.height(), firstY + (index / across + 1) * side);
            Region core = new Region(x0, y0, x1 - x0, y1 - y0);
            int margin = plan.roundedUp(reach.into(core));
            new LensTile(source, radius, disc, lift, core, plan, margin).renderInto(out, region);
            progress.at((double) finished.incrementAndGet() / (across * down));
        });
        return out;
    }

    /**
     * What all tiles of one rendering share.
     *
     * @param largest radius in the whole picture; the last step of the layers, so that every tile has the same steps
     * @param grid tile corners lie on its multiples; a power of two, at least half the largest radius
     */
    record TilePlan(float largest, int grid) {
        static TilePlan of(float largest) {
            int grid = 4;
            while (grid < largest / 2) {
                grid *= 2;
            }
            return new TilePlan(largest, grid);
        }

        int roundedUp(int length) {
            return (length + grid - 1) / grid * grid;
        }
    }
}
