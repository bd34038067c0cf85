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
 * <p>How: tiles are independent. Each reads itself and a margin of a little more than the largest radius, so memory
 * beyond source and result is a few tiles per core, whatever the size of the picture. Tile corners lie on multiples of
 * {@link #GRID}, so that reduced levels fall on the same pixels in every tile and no seam can appear.
 */
public final class LensRender {
    /** Tile corners and margins are multiples of this; the coarsest level is smaller by at most this factor. */
    static final int GRID = 32;

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
        return render(source, radius, disc, glints, Region.all(source.size()), progress);
    }

    /** As {@link #render(Picture, Plane, Disc, Glints, Progress)}, but only the pixels of {@code region}. */
    public static Picture render(
            Picture source, Plane radius, Disc disc, Glints glints, Region region, Progress progress) {
        if (!radius.size().equals(source.size())) {
            throw new IllegalArgumentException(
                    "picture " + source.size() + " and defocus field " + radius.size() + " must have one size");
        }
        if (!region.within(source.size())) {
            throw new IllegalArgumentException(region + " is not within the picture of " + source.size());
        }
        float largest = largest(radius);
        int margin = roundUp((int) Math.ceil(largest * 1.25) + 6);
        int side = Math.min(MOST_TILE, Math.max(LEAST_TILE, roundUp(margin * 4)));
        int firstX = Math.floorDiv(region.x(), GRID) * GRID;
        int firstY = Math.floorDiv(region.y(), GRID) * GRID;
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
            new LensTile(source, radius, disc, glints, core, margin).renderInto(out, region);
            progress.at((double) finished.incrementAndGet() / (across * down));
        });
        return out;
    }

    private static float largest(Plane radius) {
        float largest = 0;
        for (float r : radius.samples()) {
            if (!(Math.abs(r) < 1e6f)) {
                throw new IllegalArgumentException("blur radius must be a number below a million pixels, found " + r);
            }
            largest = Math.max(largest, Math.abs(r));
        }
        return Math.min(largest, MOST_RADIUS);
    }

    private static int roundUp(int value) {
        return (value + GRID - 1) / GRID * GRID;
    }
}
