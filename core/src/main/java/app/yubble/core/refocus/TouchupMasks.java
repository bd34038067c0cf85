package app.yubble.core.refocus;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.touchup.Canvas;
import app.yubble.core.touchup.Mask;
import app.yubble.core.touchup.Painting;
import app.yubble.core.touchup.PickOut;
import app.yubble.core.touchup.PickingOut;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import java.util.function.Supplier;
import java.util.stream.Collectors;

/**
 * What the touch-ups of one picture paint at one size. Each stroke is drawn once and the next goes on from there; small sizes
 * all come from one, so that drafts, previews and the plan share it.
 */
final class TouchupMasks {
    private static final int SIDE = 1024;
    private static final int KEPT_STROKES = 8;

    private final StageCache cache;
    private final RefocusLine line;
    private final Material material;
    private final DepthChoice depth;
    private final Size size;
    private final Region part;
    private final Progress progress;

    private final Size drawn;
    /** Of the nearness at the size at which masks are drawn. */
    private final StageKey key;

    /**
     * @param part in which they are drawn, where the picture is not small
     * @param progress asked between strokes whether it should go on
     */
    TouchupMasks(
            StageCache cache,
            RefocusLine line,
            Material material,
            DepthChoice depth,
            Size size,
            Region part,
            Progress progress) {
        this.cache = cache;
        this.line = line;
        this.material = material;
        this.depth = depth;
        this.size = size;
        this.part = part;
        this.progress = progress;
        Size shared = material.size().fitting(SIDE);
        drawn = size.longSide() < shared.longSide() ? shared : size;
        key = RefocusLine.nearnessKey(material, depth, drawn);
    }

    /** The mask as depth takes it; see {@link Mask#alongDepth}. */
    Mask alongDepth(Touchup touchup) {
        return cache.get(
                wholeKey(key, touchup).then("along", size, part),
                Mask.class,
                Mask::bytes,
                () -> mask(touchup).alongDepth(line.nearness(material, depth, size)));
    }

    Mask mask(Touchup touchup) {
        if (drawn.equals(size)) {
            // What moves or fades an edge looks at what is around.
            return drawn(touchup, part.grown(touchup.rim().reach(size), size));
        }
        return cache.get(
                wholeKey(key, touchup).then("at", size),
                Mask.class,
                Mask::bytes,
                () -> drawn(touchup, Region.all(drawn)).resized(size));
    }

    private Mask drawn(Touchup touchup, Region within) {
        StageKey own = within.equals(Region.all(drawn)) ? key : key.then("part", within);
        Mask painted = painted(touchup, within, own);
        if (isPlain(touchup)) {
            return painted;
        }
        return cache.get(wholeKey(own, touchup), Mask.class, Mask::bytes, () -> {
            Mask rimmed = painted.rimmed(touchup.rim());
            return touchup.inverted() ? rimmed.inverted() : rimmed;
        });
    }

    private Mask painted(Touchup touchup, Region within, StageKey own) {
        int count = touchup.strokes().size();
        int done = count;
        Mask mask = null;
        while (mask == null && done > 0) {
            mask = cache.found(maskKey(own, touchup, done), Mask.class);
            done -= mask == null ? 1 : 0;
        }
        if (mask == null) {
            mask = started(touchup, within, own);
        }
        for (int i = done; i < count; i++) {
            progress.at(0);
            Mask before = mask;
            Stroke stroke = touchup.strokes().get(i);
            Supplier<Mask> next = () -> Painting.stroke(before, stroke, canvas(), within);
            // Some on the way too: who comes after a preview that was called off goes on from there.
            boolean kept = i == count - 1 || i % KEPT_STROKES == KEPT_STROKES - 1;
            mask = kept ? cache.get(maskKey(own, touchup, i + 1), Mask.class, Mask::bytes, next) : next.get();
        }
        return mask;
    }

    private Canvas canvas() {
        return new Canvas() {
            @Override
            public Picture picture(Size wanted) {
                return line.picture(material, wanted);
            }

            @Override
            public Plane nearness(Size wanted) {
                return line.nearness(material, depth, wanted);
            }
        };
    }

    private Mask started(Touchup touchup, Region within, StageKey own) {
        PickOut pickOut = touchup.start().pickOut();
        String file = touchup.start().file();
        if (file == null && pickOut == null) {
            return Mask.empty(drawn);
        }
        return cache.get(own.then("start", touchup.start().key()), Mask.class, Mask::bytes, () -> {
            if (pickOut == null) {
                return Mask.of(material.mask(file), drawn);
            }
            Size from = PickingOut.solvedFrom(pickOut, material.size());
            Plane solved = cache.get(
                    RefocusLine.nearnessKey(material, depth, from).then("solved", pickOut.key()),
                    Plane.class,
                    RefocusLine::bytes,
                    () -> PickingOut.solved(
                            pickOut, line.picture(material, from), line.nearness(material, depth, from)));
            return PickingOut.mask(pickOut, solved, line.picture(material, drawn), within);
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
}
