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
import app.yubble.core.touchup.Canvas;
import app.yubble.core.touchup.Mask;
import app.yubble.core.touchup.Painting;
import app.yubble.core.touchup.PickOut;
import app.yubble.core.touchup.PickingOut;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import java.util.List;
import java.util.function.Supplier;
import java.util.stream.Collectors;

/** Runs the stages, keeping what the next run can use again. Safe for many threads. */
public final class RefocusLine {
    private static final int MASK_SIDE = 1024;
    private static final long MOST_KEPT = 8_000_000;
    // What is hidden in front is filled from a little farther away than blur reaches.
    private static final double BEYOND = 1.7;
    private static final int PART_STEP = 512;
    private static final int KEPT_STROKES = 8;

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
        List<LivePicture.Painted> painted = painted(material, recipe, size, Region.all(size), Progress.NONE);
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

    private List<LivePicture.Painted> painted(
            Material material, Recipe recipe, Size size, Region part, Progress progress) {
        DepthChoice depth = recipe.depth();
        StageKey key = nearnessKey(material, depth, maskSize(material, size));
        Plane before = nearness(material, depth, size);
        return recipe.touchups().stream()
                .filter(each -> each.acts() && each.changesDepth())
                .map(each -> new LivePicture.Painted(
                        each,
                        cache.get(
                                wholeKey(key, each).then("along", size, part),
                                Mask.class,
                                Mask::bytes,
                                () -> mask(material, depth, each, size, part, key, progress)
                                        .alongDepth(before))))
                .toList();
    }

    /**
     * What a touch-up's strokes paint; each stroke is drawn once and the next goes on from there. Small sizes all come from one,
     * so that drafts, previews and the plan share it.
     */
    public Mask mask(Material material, DepthChoice depth, Touchup touchup, Size size) {
        return mask(material, depth, touchup, size, Region.all(size));
    }

    private Mask mask(Material material, DepthChoice depth, Touchup touchup, Size size, Region part) {
        StageKey key = nearnessKey(material, depth, maskSize(material, size));
        return mask(material, depth, touchup, size, part, key, Progress.NONE);
    }

    /**
     * @param part in which it is drawn; all where that is little
     * @param key of the nearness at the size at which it is drawn
     * @param progress asked between strokes whether it should go on
     */
    private Mask mask(
            Material material,
            DepthChoice depth,
            Touchup touchup,
            Size size,
            Region part,
            StageKey key,
            Progress progress) {
        Size drawn = maskSize(material, size);
        if (drawn.equals(size)) {
            boolean whole = part.equals(Region.all(size));
            return drawn(material, depth, touchup, size, part, whole ? key : key.then("part", part), progress);
        }
        return cache.get(
                wholeKey(key, touchup).then("at", size),
                Mask.class,
                Mask::bytes,
                () -> drawn(material, depth, touchup, drawn, Region.all(drawn), key, progress)
                        .resized(size));
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

    private static Size maskSize(Material material, Size size) {
        Size shared = material.size().fitting(MASK_SIDE);
        return size.longSide() < shared.longSide() ? shared : size;
    }

    private Mask drawn(
            Material material,
            DepthChoice depth,
            Touchup touchup,
            Size size,
            Region wanted,
            StageKey key,
            Progress progress) {
        int done = touchup.strokes().size();
        Mask mask = null;
        while (mask == null && done > 0) {
            mask = cache.found(maskKey(key, touchup, done), Mask.class);
            done -= mask == null ? 1 : 0;
        }
        // What moves or fades an edge looks at what is around.
        Region part = wanted.grown(touchup.rim().reach(size), size);
        if (mask == null) {
            mask = started(material, depth, touchup, size, part, key);
        }
        Canvas canvas = canvas(material, depth);
        for (int i = done; i < touchup.strokes().size(); i++) {
            progress.at(0);
            Mask before = mask;
            Stroke stroke = touchup.strokes().get(i);
            Supplier<Mask> next = () -> Painting.stroke(before, stroke, canvas, part);
            // Some on the way too: who comes after a preview that was called off goes on from there.
            boolean kept = i == touchup.strokes().size() - 1 || i % KEPT_STROKES == KEPT_STROKES - 1;
            mask = kept ? cache.get(maskKey(key, touchup, i + 1), Mask.class, Mask::bytes, next) : next.get();
        }
        if (isPlain(touchup)) {
            return mask;
        }
        Mask painted = mask;
        return cache.get(wholeKey(key, touchup), Mask.class, Mask::bytes, () -> {
            Mask rimmed = painted.rimmed(touchup.rim());
            return touchup.inverted() ? rimmed.inverted() : rimmed;
        });
    }

    private Canvas canvas(Material material, DepthChoice depth) {
        return new Canvas() {
            @Override
            public Picture picture(Size size) {
                return RefocusLine.this.picture(material, size);
            }

            @Override
            public Plane nearness(Size size) {
                return RefocusLine.this.nearness(material, depth, size);
            }
        };
    }

    private Mask started(
            Material material, DepthChoice depth, Touchup touchup, Size size, Region part, StageKey drawn) {
        PickOut pickOut = touchup.start().pickOut();
        String file = touchup.start().file();
        if (file == null && pickOut == null) {
            return Mask.empty(size);
        }
        StageKey key = drawn.then("start", touchup.start().key(), touchup.rim().reach(size));
        return cache.get(key, Mask.class, Mask::bytes, () -> {
            if (pickOut == null) {
                return Mask.of(material.mask(file), size);
            }
            Size from = PickingOut.solvedFrom(pickOut, material.size());
            Plane solved = cache.get(
                    nearnessKey(material, depth, from).then("solved", pickOut.key()),
                    Plane.class,
                    RefocusLine::bytes,
                    () -> PickingOut.solved(pickOut, picture(material, from), nearness(material, depth, from)));
            return PickingOut.mask(pickOut, solved, picture(material, size), part);
        });
    }

    /** Of all that a touch-up paints, finished. */
    private static StageKey wholeKey(StageKey before, Touchup touchup) {
        StageKey painted = maskKey(before, touchup, touchup.strokes().size());
        return isPlain(touchup) ? painted : painted.then("finished", touchup.rim(), touchup.inverted());
    }

    private static boolean isPlain(Touchup touchup) {
        return !touchup.inverted() && touchup.rim().equals(Touchup.Rim.PLAIN);
    }

    private static StageKey maskKey(StageKey before, Touchup touchup, int strokes) {
        return before.then(
                "mask",
                touchup.start().key(),
                touchup.strokes().subList(0, strokes).stream().map(Stroke::key).collect(Collectors.joining()));
    }

    private static StageKey nearnessKey(Material material, DepthChoice depth, Size size) {
        return pictureKey(material, size)
                .then("snapped", depth.source(), depth.snap(), material.depthId(depth.source()))
                .then("trim", depth.trim());
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
        List<LivePicture.Painted> painted = painted(material, recipe, size, part, progress);
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
                Painting.reveal(out, picture, region, each, mask(material, recipe.depth(), each, size, part));
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
