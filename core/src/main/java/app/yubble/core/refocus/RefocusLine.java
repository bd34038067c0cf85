package app.yubble.core.refocus;

import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthTrim;
import app.yubble.core.depth.Trimming;
import app.yubble.core.focus.DefocusField;
import app.yubble.core.lens.LensRender;
import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;

/** Runs the stages, keeping what the next run can use again. Safe for many threads. */
public final class RefocusLine {
    private static final long MOST_KEPT = 8_000_000;

    private final StageCache cache;

    public RefocusLine(StageCache cache) {
        this.cache = cache;
    }

    /** The decoded picture at {@code size}. */
    public Picture picture(Material material, Size size) {
        return cache.get(pictureKey(material, size), Picture.class, Picture::bytes, () -> {
            Size kept = material.kept(size);
            // Reading a file takes longer than all that follows; the picture of a large one would push the rest out.
            return kept.equals(size) || kept.pixels() > MOST_KEPT
                    ? material.picture(size)
                    : Resample.toSize(picture(material, kept), size);
        });
    }

    private DepthEstimate depth(Material material, DepthChoice.Source source) {
        StageKey key = StageKey.root(material.id()).then("depth", material.depthId(source));
        return cache.get(key, DepthEstimate.class, RefocusLine::bytes, () -> material.depth(source));
    }

    private static long bytes(DepthEstimate depth) {
        return bytes(depth.nearness())
                + (depth.subject() == null ? 0 : bytes(depth.subject().matte()));
    }

    /** Nearness of every pixel of the picture at {@code size}, after the depth trim. */
    public Plane nearness(Material material, DepthChoice depth, Size size) {
        StageKey snapped = pictureKey(material, size)
                .then("snapped", depth.source(), depth.snap(), material.depthId(depth.source()));
        Plane untrimmed = cache.get(
                snapped,
                Plane.class,
                RefocusLine::bytes,
                () -> DepthEdges.follow(depth(material, depth.source()), picture(material, size), depth.snap()));
        return depth.trim().equals(DepthTrim.NONE)
                ? untrimmed
                : cache.get(
                        snapped.then("trim", depth.trim()),
                        Plane.class,
                        RefocusLine::bytes,
                        () -> Trimming.apply(untrimmed, depth.trim()));
    }

    private static long bytes(Plane plane) {
        return plane.size().pixels() * Float.BYTES;
    }

    /** The whole result at {@code size}. */
    public Picture render(Material material, Recipe recipe, Size size, Progress progress) {
        return render(material, recipe, size, Region.all(size), progress);
    }

    /**
     * A part of the result.
     *
     * @param size of the whole picture
     * @param region the part, in pixels of {@code size}
     */
    public Picture render(Material material, Recipe recipe, Size size, Region region, Progress progress) {
        Picture picture = picture(material, size);
        if (recipe.band().coversEverything() || recipe.opacity() == 0) {
            progress.at(1);
            return region.equals(Region.all(size)) ? picture : Resample.crop(picture, region);
        }
        Plane nearness = nearness(material, recipe.depth(), size);
        double radiusPerNearness =
                recipe.aperture().radiusPerNearness(size, recipe.band().centre());
        Plane field = DefocusField.of(nearness, recipe.band(), recipe.gain(), radiusPerNearness);
        progress.at(0.05);
        Plane lift = cache.get(
                pictureKey(material, size).then("glints", recipe.glints()),
                Plane.class,
                RefocusLine::bytes,
                () -> recipe.glints().lift(picture));
        Picture blurred = LensRender.render(picture, field, recipe.disc(), lift, region, progress.part(0.05, 1));
        return recipe.opacity() == 1 ? blurred : mixed(picture, blurred, region, (float) recipe.opacity());
    }

    private static Picture mixed(Picture source, Picture effect, Region region, float opacity) {
        Picture out = Picture.blank(effect.size());
        for (int c = 0; c < 3; c++) {
            float[] from = source.planes().get(c).samples();
            float[] over = effect.planes().get(c).samples();
            float[] to = out.planes().get(c).samples();
            Bands.ofRows(region.height(), (first, last) -> {
                for (int y = first; y < last; y++) {
                    int row = (y + region.y()) * source.width() + region.x();
                    for (int x = 0, i = y * region.width(); x < region.width(); x++, i++) {
                        to[i] = from[row + x] + opacity * (over[i] - from[row + x]);
                    }
                }
            });
        }
        return out;
    }

    private static StageKey pictureKey(Material material, Size size) {
        return StageKey.root(material.id()).then("picture", size);
    }
}
