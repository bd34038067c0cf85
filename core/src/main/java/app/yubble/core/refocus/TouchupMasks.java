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
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * What the touch-ups of one picture paint at one size. Each stroke is drawn once and the next goes on from there; small sizes
 * all come from one, so that drafts, previews and the plan share it.
 */
final class TouchupMasks {
    private static final int SIDE = 1024;
    private static final int KEPT_STROKES = 8;
    private static final double MOST_OF_IT = 0.4;

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
            mask = fromElsewhere(touchup, within, own);
            done = mask == null ? 0 : count;
        }
        if (mask == null) {
            mask = started(touchup, within, own);
        }
        remember(touchup, within);
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

    /**
     * From what was drawn for a part beside or around this one, which has most of it: after a small move of the view only what
     * came into sight is drawn.
     */
    private @Nullable Mask fromElsewhere(Touchup touchup, Region within, StageKey own) {
        for (Region known : parts(touchup).newestFirst()) {
            Region both = known.meet(within);
            Mask there = both == null
                            || both.size().pixels() < MOST_OF_IT * within.size().pixels()
                    ? null
                    : cache.found(
                            maskKey(
                                    key.then("part", known),
                                    touchup,
                                    touchup.strokes().size()),
                            Mask.class);
            if (there != null) {
                Mask mask = there.within(both);
                for (Region piece : within.without(both)) {
                    mask = mask.beside(painted(touchup, piece));
                }
                Mask whole = mask;
                return cache.get(maskKey(own, touchup, touchup.strokes().size()), Mask.class, Mask::bytes, () -> whole);
            }
        }
        return null;
    }

    /** A small part, of which nothing is kept. */
    private Mask painted(Touchup touchup, Region piece) {
        Mask mask = started(touchup, piece, key.then("part", piece));
        for (Stroke stroke : touchup.strokes()) {
            progress.at(0);
            mask = Painting.stroke(mask, stroke, canvas(), piece);
        }
        // A mask file is read as a whole.
        return mask.within(piece);
    }

    private void remember(Touchup touchup, Region within) {
        if (!within.equals(Region.all(drawn))) {
            parts(touchup).add(within);
        }
    }

    private Parts parts(Touchup touchup) {
        return cache.get(
                maskKey(key, touchup, touchup.strokes().size()).then("parts"), Parts.class, Parts::bytes, Parts::new);
    }

    /** For which parts of the picture something was drawn. */
    private static final class Parts {
        private static final int MOST = 4;

        private final Deque<Region> all = new ArrayDeque<>();

        synchronized void add(Region part) {
            all.remove(part);
            all.addFirst(part);
            if (all.size() > MOST) {
                all.removeLast();
            }
        }

        synchronized List<Region> newestFirst() {
            return List.copyOf(all);
        }

        long bytes() {
            return 64 * MOST;
        }
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
