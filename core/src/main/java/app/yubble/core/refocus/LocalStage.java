package app.yubble.core.refocus;

import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A step that a change in one place changes only around that place. Regions are in pixels of the whole picture.
 *
 * @param <T> what it makes: of the whole picture, or of the part that is looked at
 */
interface LocalStage<T> extends Stage<T> {
    /** Of the whole picture. */
    Size size();

    /** Whether it makes the whole picture's result whatever part is looked at. */
    boolean isOfWholePicture();

    /**
     * Where its result differs from that of {@code before} as far as its own part of the recipe goes; null for nowhere. Everywhere,
     * unless the stage knows better. What the stages before it have changed is asked for by {@link #reach}.
     *
     * @param before of the same kind
     */
    default @Nullable Region differs(LocalStage<T> before) {
        return reads().equals(before.reads()) ? null : Region.all(size());
    }

    /**
     * Where its result may change when the result of a local stage that it takes changes in {@code changed}. Asked with the
     * results from before that change and again with those from after it; what either says holds.
     */
    default Region reach(Region changed, Results taken) {
        return changed;
    }

    /** What all of its result depends on beside the recipe: when this is another value, everything is made anew. */
    default Object everywhere(Results taken) {
        return true;
    }

    /** The result for {@code part}. */
    T make(Region part, Results taken, Progress progress);

    /**
     * The result for the whole picture, for somebody who is short of memory.
     *
     * @param spare what the stage takes and nobody else takes any more: it may be modified and be the result
     */
    default T makeOf(Set<Stage<?>> spare, Results taken) {
        return make(Region.all(size()), taken, Progress.NONE);
    }

    /**
     * A result whose part {@code stale} no longer holds, with that made anew.
     *
     * @param own the result for {@code part}; may be modified and returned unless results are handed out
     */
    T renewed(T own, Region part, Region stale, Results taken, Progress progress);
}
