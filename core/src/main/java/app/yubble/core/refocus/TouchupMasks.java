package app.yubble.core.refocus;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import app.yubble.core.touchup.Mask;
import app.yubble.core.touchup.Painting;
import app.yubble.core.touchup.PickOut;
import app.yubble.core.touchup.PickingOut;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * What the touch-ups of one picture paint at one size. Each stroke is drawn once and the next goes on from there; small sizes
 * all come from one, so that drafts, previews and the plan share it.
 */
final class TouchupMasks {
    /** Longer side of the size from which smaller ones are made: that of the nearness that the Bench shows. */
    private static final int SIDE = 1024;
    /** Every so many strokes the mask is kept, for whoever goes on after a preview that was called off. */
    private static final int KEPT_STROKES = 8;
    /** A part that was drawn before is gone on from when it has as much of the new one; less would be cut into long strips. */
    private static final double MOST_OF_IT = 0.4;

    private static final String MASK = "mask";

    private final StageCache cache;
    private final Ground ground;
    private final Size size;
    private final Region part;
    private final DrawnParts drawnBefore;
    private final Progress progress;

    /** The size at which masks are drawn. */
    private final Size drawn;
    /** Of the ground at that size. */
    private final StageKey key;

    /**
     * @param part in which they are drawn, where the picture is not small
     * @param drawnBefore parts at the same size that were drawn before; modified
     * @param progress asked between strokes whether it should go on
     */
    TouchupMasks(StageCache cache, Ground ground, Size size, Region part, DrawnParts drawnBefore, Progress progress) {
        this.cache = cache;
        this.ground = ground;
        this.size = size;
        this.part = part;
        this.drawnBefore = drawnBefore;
        this.progress = progress;
        Size shared = ground.still().size().fitting(SIDE);
        drawn = size.longSide() < shared.longSide() ? shared : size;
        key = ground.key(drawn);
    }

    /** The mask as depth takes it; see {@link Mask#alongDepth}. */
    Mask alongDepth(Touchup touchup) {
        return cache.get(alongKey(touchup), Mask.class, Mask::bytes, () -> {
            Mask mask = mask(touchup);
            Touchup before = withoutLast(touchup);
            Mask known = before == null ? null : cache.found(alongKey(before), Mask.class);
            return before == null || known == null
                    ? mask.alongDepth(ground.nearness(size))
                    : mask.alongDepth(ground.nearness(size), mask(before), known);
        });
    }

    private StageKey alongKey(Touchup touchup) {
        return wholeKey(key, touchup).then("along", size, part);
    }

    /** As it was before its last stroke; null when it has but one. */
    private static @Nullable Touchup withoutLast(Touchup touchup) {
        int strokes = touchup.strokes().size();
        return strokes < 2 ? null : touchup.withStrokes(touchup.strokes().subList(0, strokes - 1));
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
        Mask known = cache.found(paintedKey(own, touchup), Mask.class);
        Mask mask = known == null ? drawnOn(touchup, within, own) : known;
        if (!within.equals(Region.all(drawn))) {
            drawnBefore.add(within);
        }
        return mask;
    }

    /** From elsewhere, or from the last stroke after which the mask is kept. */
    private Mask drawnOn(Touchup touchup, Region within, StageKey own) {
        Mask elsewhere = fromElsewhere(touchup, within, own);
        if (elsewhere != null) {
            return elsewhere;
        }
        List<Stroke> strokes = touchup.strokes();
        List<StageKey> keys = StageKey.ofEach(MASK, own, startKey(touchup.start()), strokes);
        int done = strokes.size();
        Mask mask = null;
        while (mask == null && done > 0) {
            mask = cache.found(keys.get(done), Mask.class);
            done -= mask == null ? 1 : 0;
        }
        if (mask == null) {
            mask = started(touchup, within, own);
        }
        for (int i = done; i < strokes.size(); i++) {
            progress.at(0);
            Mask before = mask;
            Stroke stroke = strokes.get(i);
            Supplier<Mask> next = () -> Painting.stroke(before, stroke, ground, within);
            boolean kept = i == strokes.size() - 1 || i % KEPT_STROKES == KEPT_STROKES - 1;
            mask = kept ? cache.get(keys.get(i + 1), Mask.class, Mask::bytes, next) : next.get();
        }
        return mask;
    }

    /**
     * From what was drawn for a part beside or around this one, which has most of it: after a small move of the view only what
     * came into sight is drawn.
     */
    private @Nullable Mask fromElsewhere(Touchup touchup, Region within, StageKey own) {
        for (Region known : drawnBefore.newestFirst()) {
            Region both = known.meet(within);
            if (both == null
                    || both.size().pixels() < MOST_OF_IT * within.size().pixels()) {
                continue;
            }
            Mask there = cache.found(paintedKey(key.then("part", known), touchup), Mask.class);
            if (there != null) {
                Mask mask = there.within(both);
                for (Region piece : within.without(both)) {
                    mask = mask.beside(painted(touchup, piece));
                }
                Mask whole = mask;
                return cache.get(paintedKey(own, touchup), Mask.class, Mask::bytes, () -> whole);
            }
        }
        return null;
    }

    /** A small part, of which nothing is kept. */
    private Mask painted(Touchup touchup, Region piece) {
        Mask mask = started(touchup, piece, key.then("part", piece));
        for (Stroke stroke : touchup.strokes()) {
            progress.at(0);
            mask = Painting.stroke(mask, stroke, ground, piece);
        }
        // A mask file is read as a whole.
        return mask.within(piece);
    }

    private Mask started(Touchup touchup, Region within, StageKey own) {
        Touchup.Start start = touchup.start();
        PickOut pickOut = start.pickOut();
        String file = start.file();
        boolean kept = ground.still().keptId(start.kept()) != null;
        if (file == null && pickOut == null && !kept) {
            return Mask.empty(drawn);
        }
        return cache.get(
                own.then("start", startKey(start)),
                Mask.class,
                Mask::bytes,
                () -> pickOut != null
                        ? pickedOut(pickOut, within)
                        : file != null
                                ? Mask.of(ground.still().mask(file), drawn)
                                : PickingOut.fine(ground.still().kept(start.kept()), ground.picture(drawn), within));
    }

    /** A kept subject's mask becomes known after it was asked for. */
    private String startKey(Touchup.Start start) {
        return start.kept().isEmpty()
                ? start.key()
                : String.valueOf(ground.still().keptId(start.kept()));
    }

    private Mask pickedOut(PickOut pickOut, Region within) {
        Size from = PickingOut.solvedFrom(pickOut, ground.still().size());
        Plane solved = cache.get(
                ground.key(from).then("solved", pickOut.key()),
                Plane.class,
                Plane::bytes,
                () -> PickingOut.solved(pickOut, ground.picture(from), ground.nearness(from)));
        return PickingOut.mask(pickOut, solved, ground.picture(drawn), within);
    }

    /** Of all that a touch-up paints, finished. */
    private StageKey wholeKey(StageKey before, Touchup touchup) {
        StageKey painted = paintedKey(before, touchup);
        return isPlain(touchup) ? painted : painted.then("finished", touchup.rim(), touchup.inverted());
    }

    private static boolean isPlain(Touchup touchup) {
        return !touchup.inverted() && touchup.rim().equals(Touchup.Rim.PLAIN);
    }

    /** Of all strokes; the last of the keys of its beginnings. */
    private StageKey paintedKey(StageKey before, Touchup touchup) {
        List<Object> reads = new ArrayList<>(touchup.strokes().size() + 1);
        reads.add(startKey(touchup.start()));
        reads.addAll(touchup.strokes());
        return StageKey.of(MASK, List.of(before), reads);
    }
}
