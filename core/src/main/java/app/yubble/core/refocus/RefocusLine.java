package app.yubble.core.refocus;

import app.yubble.core.clip.Moment;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.ladder.Footing;
import app.yubble.core.ladder.Ladder;
import app.yubble.core.lens.LensRender;
import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.Course;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.shape.BlurShape;
import app.yubble.core.touchup.Mask;
import app.yubble.core.touchup.Touchup;
import java.util.Arrays;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.Predicate;

/** Runs stills through recipes. Safe for many threads. */
public final class RefocusLine {
    /** In pixels; of a larger picture touch-ups are drawn only around the part that is looked at. */
    private static final long LARGE = 8_000_000;
    /** What is hidden in front is filled from a little farther away than blur reaches. */
    private static final double BEYOND = 1.7;
    /** Share of the time that goes by before the first part of a large picture is made. */
    private static final double BEFORE_PARTS = 0.25;
    /** Parts of large pictures begin and end on multiples of this many pixels, so that small moves find what is known. */
    private static final int PART_STEP = 512;

    private final StageCache cache;
    private final StageStore store;
    private final Results whole;
    /** The same for what is looked at in passing: parts, of whatever size. */
    private final Results inPassing;

    public RefocusLine(StageCache cache) {
        this(cache, StageStore.NONE);
    }

    /** @param store what of the results outlives the cache */
    public RefocusLine(StageCache cache, StageStore store) {
        this.cache = cache;
        this.store = store;
        whole = new WholeResults(cache, store, Progress.NONE);
        inPassing = new WholeResults(cache, store.finding(), Progress.NONE);
    }

    /** The decoded picture at {@code size}; what is shown of it is better kept than that. */
    public Picture picture(Still still, Size size) {
        return inPassing.of(new PictureStage(still, size));
    }

    /** Nearness of every pixel of the picture at {@code size}, after the depth trim and the ladder. */
    public Plane nearness(Still still, DepthChoice depth, Size size) {
        return whole.of(LadderedStage.of(still, depth, size));
    }

    /** How a ladder stands for a still; it has at least one rung. */
    public Ladder ladder(Still still, DepthChoice depth) {
        return LadderedStage.of(still, depth, still.size().fitting(Footing.SIDE))
                .stand(whole);
    }

    /** Nearness of every pixel after the touch-ups; it may leave [0,1] where blur was painted. */
    public Plane nearness(Still still, Recipe recipe, Size size) {
        Region all = Region.all(size);
        TouchupMasks masks = masks(still, recipe.depth(), size, all, new DrawnParts(), Progress.NONE);
        return new PaintedStage(LadderedStage.of(still, recipe.depth(), size), painted(recipe, masks), recipe.band())
                .make(all, whole, Progress.NONE)
                .plane();
    }

    /** What a touch-up paints. */
    public Mask mask(Still still, DepthChoice depth, Touchup touchup, Size size) {
        return masks(still, depth, size, Region.all(size), new DrawnParts(), Progress.NONE)
                .mask(touchup);
    }

    /**
     * Makes and keeps what a first look at a size takes longest for: the picture, its depth on the picture's edges, and its glints. What
     * somebody who looks will change is not made.
     *
     * @param mayStop called before each part of that; throws to stop
     */
    public void prepare(Still still, Recipe recipe, Size size, Progress mayStop) {
        prepare(
                Line.of(still, recipe, size, 1, List.of(), List.of()).result().maker(),
                new WholeResults(cache, store, mayStop));
    }

    private static void prepare(Stage<?> stage, Results whole) {
        if (stage instanceof WholeStage<?>) {
            whole.of(stage);
        } else {
            stage.takes().forEach(each -> prepare(each.maker(), whole));
        }
    }

    /** The result, for somebody who does not look again. */
    public Picture render(Still still, Recipe recipe, View view, Progress progress) {
        return render(new Viewer(), still, recipe, view, progress);
    }

    /** The result at a moment of a shot: its still there, through what the recipe is there. */
    public Picture render(
            Viewer viewer, Material material, Course course, Moment moment, View view, Progress progress) {
        return render(viewer, material.at(moment), course.at(moment), view, progress);
    }

    /** The result, of which only what has changed since {@code viewer} looked last is made anew. */
    public Picture render(Viewer viewer, Still still, Recipe recipe, View view, Progress progress) {
        double radius =
                recipe.aperture().radiusPerNearness(view.size(), recipe.band().centre());
        return render(viewer, still, recipe, view, radius, progress);
    }

    /**
     * The same with a blur that is given instead of the recipe's aperture.
     *
     * @param radiusPerNearness blur radius in pixels of the view's size a unit of nearness outside the band
     */
    public Picture render(
            Viewer viewer, Still still, Recipe recipe, View view, double radiusPerNearness, Progress progress) {
        Region part = paintedPart(view, recipe, radiusPerNearness);
        return viewer.look(
                still,
                view,
                drawn -> {
                    TouchupMasks masks = masks(still, recipe.depth(), view.size(), part, drawn, progress);
                    return Line.of(
                            still,
                            recipe,
                            view.size(),
                            radiusPerNearness,
                            painted(recipe, masks),
                            reveals(recipe, masks));
                },
                view.isWhole() ? whole : inPassing,
                progress);
    }

    /**
     * The result for somebody who does not look again, part by part, so that it never is in memory as a whole. Neither uses nor fills the
     * cache of a line.
     *
     * @param known where some of what it takes may be found
     */
    public static void renderParts(
            Still still,
            Recipe recipe,
            Size size,
            StageStore known,
            Progress progress,
            BiConsumer<Region, Picture> to) {
        double radius = recipe.aperture().radiusPerNearness(size, recipe.band().centre());
        OnceOver once = new OnceOver(size, known);
        once.prepare(Line.of(still, recipe, size, radius, List.of(), List.of()).result());
        progress.at(BEFORE_PARTS);
        TouchupMasks masks = new TouchupMasks(
                StageCache.keepingNothing(),
                new Ground(still, recipe.depth(), once),
                size,
                Region.all(size),
                new DrawnParts(),
                progress);
        Line line = Line.of(still, recipe, size, radius, painted(recipe, masks), reveals(recipe, masks));
        once.run(line.result(), size, progress.part(BEFORE_PARTS, 1), to);
    }

    /**
     * A result as a layer over the photo.
     *
     * @param refocused what {@link Recipe#everywhere} makes of it
     */
    public Layers layers(Still still, Recipe recipe, Picture refocused) {
        Plane share = new Plane(refocused.size());
        Arrays.fill(share.samples(), (float) recipe.opacity());
        for (Touchup each : acting(recipe, touchup -> touchup.action() == Touchup.Action.REVEAL)) {
            Mask mask = mask(still, recipe.depth(), each, refocused.size());
            Bands.ofRows(share.height(), (first, last) -> {
                for (int y = first; y < last; y++) {
                    for (int x = 0, i = y * share.width(); x < share.width(); x++, i++) {
                        share.samples()[i] *= 1 - (float) each.strength() * mask.at(x, y);
                    }
                }
            });
        }
        return new Layers(picture(still, refocused.size()), refocused, share);
    }

    private TouchupMasks masks(
            Still still, DepthChoice depth, Size size, Region part, DrawnParts drawn, Progress progress) {
        return new TouchupMasks(cache, new Ground(still, depth, whole), size, part, drawn, progress);
    }

    private static List<Painted> painted(Recipe recipe, TouchupMasks masks) {
        return acting(recipe, Touchup::changesDepth).stream()
                .map(each -> new Painted(each, masks.alongDepth(each)))
                .toList();
    }

    private static List<Painted> reveals(Recipe recipe, TouchupMasks masks) {
        return acting(recipe, each -> each.action() == Touchup.Action.REVEAL).stream()
                .map(each -> new Painted(each, masks.mask(each)))
                .toList();
    }

    private static List<Touchup> acting(Recipe recipe, Predicate<Touchup> which) {
        return recipe.touchups().stream()
                .filter(each -> each.acts() && which.test(each))
                .toList();
    }

    /** How much around a part of a large picture touch-ups have to be known: as far as blur reaches into it. */
    private static Region paintedPart(View view, Recipe recipe, double radiusPerNearness) {
        Size size = view.size();
        if (size.pixels() <= LARGE) {
            return Region.all(size);
        }
        SharpBand band = recipe.band();
        double tilt = Math.abs(band.tiltAcross()) + Math.abs(band.tiltDown());
        double painted = acting(recipe, each -> each.action() == Touchup.Action.BLUR).stream()
                .mapToDouble(each -> Math.abs(each.strength()) + tilt)
                .max()
                .orElse(0);
        double most = Math.max(Math.abs(band.outside(1 + tilt)), Math.abs(band.outside(-tilt)));
        double gain = Math.max(recipe.gain().behind(), recipe.gain().front());
        double placed = recipe.shapes().stream()
                .filter(BlurShape::acts)
                .mapToDouble(each -> each.radius(size))
                .max()
                .orElse(0);
        double radius =
                Math.min(LensRender.MOST_RADIUS, Math.max(placed, radiusPerNearness * Math.max(most, painted) * gain));
        Region seen = view.part().grown((int) Math.ceil(BEYOND * radius), size);
        int left = seen.x() / PART_STEP * PART_STEP;
        int top = seen.y() / PART_STEP * PART_STEP;
        int right = Math.min(size.width(), (seen.x() + seen.width() + PART_STEP - 1) / PART_STEP * PART_STEP);
        int bottom = Math.min(size.height(), (seen.y() + seen.height() + PART_STEP - 1) / PART_STEP * PART_STEP);
        return new Region(left, top, right - left, bottom - top);
    }
}
