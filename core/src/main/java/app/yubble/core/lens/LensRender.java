package app.yubble.core.lens;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;

/**
 * Renders lens blur from a defocus field, as specified in the package documentation.
 *
 * <p>How: tile by tile, each with a margin as wide as blur reaches into it and all cores at work on it, so memory beyond
 * source and result is that of one tile, whatever the size of the picture; a preview is a single tile. Tile corners lie
 * on multiples of a power of two that is at least as coarse as the coarsest level, so that reduced levels fall on the
 * same pixels in every tile and no seam can appear.
 */
public final class LensRender {
    /** Larger radii are drawn with this one: it bounds a tile's margin and so the memory. */
    public static final float MOST_RADIUS = 400;

    // From this length on pictures are a camera's own, whose edges are two pixels wide, and not reduced ones.
    private static final int WIDE_EDGES = 2800;
    /** Side of a tile in pixels; bounds the memory of its sheets. */
    private static final int TILE = 1536;

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
        return render(source, new RadiusField(radius), disc, lift, region, progress);
    }

    /** The same from a field that is kept. */
    public static Picture render(
            Picture source, RadiusField field, Disc disc, Plane lift, Region region, Progress progress) {
        Plane radius = field.radii();
        if (!radius.size().equals(source.size())) {
            throw new IllegalArgumentException(
                    "picture " + source.size() + " and defocus field " + radius.size() + " must have one size");
        }
        if (!region.within(source.size())) {
            throw new IllegalArgumentException(region + " is not within the picture of " + source.size());
        }
        Reach reach = field.reach();
        Job job = new Job(source, radius, lift, reach, new DiscShape(disc), Plan.of(reach.overall(), source.size()));
        int across = (region.width() + TILE - 1) / TILE;
        int down = (region.height() + TILE - 1) / TILE;
        Picture out = Picture.blank(region.size());
        try (Shelf shelf = Shelf.open()) {
            for (int index = 0; index < across * down; index++) {
                double done = (double) index / (across * down);
                progress.at(done);
                int x = region.x() + index % across * TILE;
                int y = region.y() + index / across * TILE;
                Region core = new Region(
                        x,
                        y,
                        Math.min(TILE, region.x() + region.width() - x),
                        Math.min(TILE, region.y() + region.height() - y));
                int margin = reach.into(core, job.shape.most());
                new LensTile(job, core, job.box(core, margin), shelf, () -> progress.at(done)).renderInto(out, region);
                shelf.takeBack();
            }
        }
        progress.at(1);
        return out;
    }

    /** What all tiles of one rendering share. */
    record Job(Picture source, Plane radius, Plane lift, Reach reach, DiscShape shape, Plan plan) {
        /** The tile with its margin, its corners on the grid, beginning within the picture. */
        Region box(Region core, int margin) {
            int grid = plan.grid();
            int x0 = Math.max(0, core.x() - margin) / grid * grid;
            int y0 = Math.max(0, core.y() - margin) / grid * grid;
            int x1 = Math.min(source.width(), core.x() + core.width() + margin);
            int y1 = Math.min(source.height(), core.y() + core.height() + margin);
            return new Region(x0, y0, (x1 - x0 + grid - 1) / grid * grid, (y1 - y0 + grid - 1) / grid * grid);
        }
    }

    /**
     * @param steps of radius up to the largest in the whole picture, so that every tile has the same
     * @param spread how many pixels on either side of a depth edge are mixed
     * @param grid tile corners lie on its multiples; a power of two, at least half the largest radius
     */
    record Plan(RadiusSteps steps, int spread, int grid) {
        static Plan of(float largest, Size size) {
            int grid = 4;
            while (grid < largest / 2) {
                grid *= 2;
            }
            return new Plan(new RadiusSteps(largest), size.longSide() > WIDE_EDGES ? 2 : 1, grid);
        }
    }
}
