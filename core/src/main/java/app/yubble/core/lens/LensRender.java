package app.yubble.core.lens;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.List;

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

    private LensRender() {}

    /**
     * @param source linear light
     * @param radius signed blur radius in pixels, same size, finite
     */
    public static Picture render(Picture source, Plane radius, Disc disc, Glints glints, Progress progress) {
        return render(source, radius, disc, Lift.of(glints.lift(source)), Region.all(source.size()), progress);
    }

    /**
     * As {@link #render(Picture, Plane, Disc, Glints, Progress)}, but only the pixels of {@code region}.
     *
     * @param lift of the glints
     */
    public static Picture render(Picture source, Plane radius, Disc disc, Lift lift, Region region, Progress progress) {
        return render(source, new RadiusField(radius), disc, lift, region, progress);
    }

    /** The same from a field that is kept. */
    public static Picture render(
            Picture source, RadiusField field, Disc disc, Lift lift, Region region, Progress progress) {
        if (!field.size().equals(source.size())) {
            throw new IllegalArgumentException(
                    "picture " + source.size() + " and defocus field " + field.size() + " must have one size");
        }
        if (!region.within(source.size())) {
            throw new IllegalArgumentException(region + " is not within the picture of " + source.size());
        }
        Reach reach = field.reach();
        Job job = new Job(source, field, lift, reach, new DiscShape(disc), Plan.of(reach.overall(), source.size()));
        Picture out = Picture.blank(region.size());
        List<Tiling.Tile> tiles = Tiling.of(job, region);
        try (Shelf shelf = Shelf.open()) {
            for (int index = 0; index < tiles.size(); index++) {
                double done = (double) index / tiles.size();
                progress.at(done);
                if (index > 0) {
                    shelf.takeBack();
                }
                Tiling.Tile tile = tiles.get(index);
                new LensTile(job, tile.core(), tile.box(), shelf, () -> progress.at(done)).renderInto(out, region);
            }
        }
        progress.at(1);
        return out;
    }

    /** Renders parts of one large picture, which use each other's memory, however much it is. */
    public static void inSeries(Runnable renderings) {
        Shelf.beginSeries();
        try {
            renderings.run();
        } finally {
            Shelf.endSeries();
        }
    }

    /** What all tiles of one rendering share. */
    record Job(Picture source, RadiusField field, Lift lift, Reach reach, DiscShape shape, Plan plan) {}

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
            return new Plan(
                    new RadiusSteps(largest, Integer.numberOfTrailingZeros(grid)),
                    size.longSide() > WIDE_EDGES ? 2 : 1,
                    grid);
        }
    }
}
