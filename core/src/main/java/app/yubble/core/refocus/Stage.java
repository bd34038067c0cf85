package app.yubble.core.refocus;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One step of the line. It is a value: two that are equal make the same result.
 *
 * <p>A stage is a record of exactly what its result depends on: the stages before it whose results it takes, and its part of the
 * recipe. Its key is derived from these and from nothing else. There are two kinds. {@link WholeStage} makes its result at once,
 * and the result is kept in the {@link StageCache}. {@link LocalStage} makes parts of it, and a {@link Viewer} keeps what was last
 * looked at.
 *
 * @param <T> what it makes
 */
interface Stage<T> {
    /** What it makes, in a word of its own. */
    String name();

    /** The stages whose results it takes. */
    List<Stage<?>> takes();

    /** Its part of the recipe, and whatever else its result depends on; values are told apart by their {@code toString}. */
    List<?> reads();

    /** The stage before whose result this one passes on as it is, because it has nothing to do; null when it has. */
    default @Nullable Stage<T> passes() {
        return null;
    }

    /** How much memory a result takes. */
    long bytes(T result);

    /** The stage that really makes the result. */
    default Stage<T> maker() {
        Stage<T> before = passes();
        return before == null ? this : before.maker();
    }

    /** Names the result for good: equal keys stand for equal results. */
    default StageKey key() {
        Stage<T> before = passes();
        return before == null
                ? StageKey.of(name(), takes().stream().map(Stage::key).toList(), reads())
                : before.key();
    }
}
