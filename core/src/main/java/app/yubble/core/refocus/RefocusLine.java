package app.yubble.core.refocus;

import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthTrim;
import app.yubble.core.depth.Trimming;
import app.yubble.core.focus.SharpBand;
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
import app.yubble.core.touchup.Mask;
import app.yubble.core.touchup.Painting;
import app.yubble.core.touchup.Touchup;
import java.util.List;

/** Runs the stages, keeping what the next run can use again. Safe for many threads. */
public final class RefocusLine {
    private static final long MOST_KEPT = 8_000_000;
    // What is hidden in front is filled from a little farther away than blur reaches.
    private static final double BEYOND = 1.7;
    private static final int PART_STEP = 512;

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

    /** Nearness of every pixel after the touch-ups; it may leave [0,1] where blur was painted. */
    public Plane nearness(Material material, Recipe recipe, Size size) {
        Plane before = nearness(material, recipe.depth(), size);
        if (recipe.touchups().stream().noneMatch(each -> each.acts() && each.changesDepth())) {
            return before;
        }
        LivePicture live = live(material, size);
        TouchupMasks masks = masks(material, recipe.depth(), size, Region.all(size), Progress.NONE);
        List<LivePicture.Painted> painted = painted(recipe, masks);
        synchronized (live) {
            return live.nearness(before, painted, recipe.band()).copy();
        }
    }

    private LivePicture live(Material material, Size size) {
        return cache.get(
                pictureKey(material, size).then("live"),
                LivePicture.class,
                LivePicture::bytes,
                () -> new LivePicture(size));
    }

    private List<LivePicture.Painted> painted(Recipe recipe, TouchupMasks masks) {
        return recipe.touchups().stream()
                .filter(each -> each.acts() && each.changesDepth())
                .map(each -> new LivePicture.Painted(each, masks.alongDepth(each)))
                .toList();
    }

    private TouchupMasks masks(Material material, DepthChoice depth, Size size, Region part, Progress progress) {
        return new TouchupMasks(cache, this, material, depth, size, part, progress);
    }

    /** What a touch-up paints. */
    public Mask mask(Material material, DepthChoice depth, Touchup touchup, Size size) {
        return masks(material, depth, size, Region.all(size), Progress.NONE).mask(touchup);
    }

    /** How much around a region of a large picture touch-ups have to be known: as far as blur reaches into it. */
    private static Region paintedPart(Size size, Region region, Recipe recipe, double radiusPerNearness) {
        if (size.pixels() <= MOST_KEPT) {
            return Region.all(size);
        }
        SharpBand band = recipe.band();
        double tilt = Math.abs(band.tiltAcross()) + Math.abs(band.tiltDown());
        double painted = recipe.touchups().stream()
                .filter(each -> each.acts() && each.action() == Touchup.Action.BLUR)
                .mapToDouble(each -> Math.abs(each.strength()) + tilt)
                .max()
                .orElse(0);
        double most = Math.max(Math.abs(band.outside(1 + tilt)), Math.abs(band.outside(-tilt)));
        double gain = Math.max(recipe.gain().behind(), recipe.gain().front());
        double radius = Math.min(LensRender.MOST_RADIUS, radiusPerNearness * Math.max(most, painted) * gain);
        // Over steps, so that small moves find what is known.
        Region seen = region.grown((int) Math.ceil(BEYOND * radius), size);
        int left = seen.x() / PART_STEP * PART_STEP;
        int top = seen.y() / PART_STEP * PART_STEP;
        int right = Math.min(size.width(), (seen.x() + seen.width() + PART_STEP - 1) / PART_STEP * PART_STEP);
        int bottom = Math.min(size.height(), (seen.y() + seen.height() + PART_STEP - 1) / PART_STEP * PART_STEP);
        return new Region(left, top, right - left, bottom - top);
    }

    static StageKey nearnessKey(Material material, DepthChoice depth, Size size) {
        return pictureKey(material, size)
                .then("snapped", depth.source(), depth.snap(), material.depthId(depth.source()))
                .then("trim", depth.trim());
    }

    static long bytes(Plane plane) {
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
        double radius = recipe.aperture().radiusPerNearness(size, recipe.band().centre());
        return render(material, recipe, size, region, radius, progress);
    }

    /**
     * The same with a blur that is given instead of the recipe's aperture.
     *
     * @param radiusPerNearness blur radius in pixels of {@code size} a unit of nearness outside the band
     */
    public Picture render(
            Material material, Recipe recipe, Size size, Region region, double radiusPerNearness, Progress progress) {
        Picture picture = picture(material, size);
        boolean blurPainted =
                recipe.touchups().stream().anyMatch(each -> each.acts() && each.action() == Touchup.Action.BLUR);
        if (recipe.band().coversEverything() && !blurPainted || recipe.opacity() == 0) {
            progress.at(1);
            return region.equals(Region.all(size)) ? picture : Resample.crop(picture, region);
        }
        Plane before = nearness(material, recipe.depth(), size);
        Region part = paintedPart(size, region, recipe, radiusPerNearness);
        TouchupMasks masks = masks(material, recipe.depth(), size, part, progress);
        List<LivePicture.Painted> painted = painted(recipe, masks);
        Plane lift = cache.get(
                pictureKey(material, size).then("glints", recipe.glints()),
                Plane.class,
                RefocusLine::bytes,
                () -> recipe.glints().lift(picture));
        LivePicture live = live(material, size);
        Picture out;
        synchronized (live) {
            progress.at(0.05);
            live.nearness(before, painted, recipe.band());
            out = live.rendered(
                    new LivePicture.Blur(recipe.band(), recipe.gain(), radiusPerNearness),
                    new LivePicture.Light(picture, lift, recipe.disc()),
                    region,
                    progress.part(0.05, 1));
        }
        List<Touchup> reveals = recipe.touchups().stream()
                .filter(each -> each.acts() && each.action() == Touchup.Action.REVEAL)
                .toList();
        if (!reveals.isEmpty()) {
            out = out.copy();
            for (Touchup each : reveals) {
                Painting.reveal(out, picture, region, each, masks.mask(each));
            }
        }
        return recipe.opacity() == 1 ? out : mixed(picture, out, region, (float) recipe.opacity());
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
