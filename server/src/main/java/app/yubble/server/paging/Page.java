package app.yubble.server.paging;

import java.util.List;
import java.util.UUID;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * A part of a list.
 *
 * @param next goes into the request for the part after this one; null when this is the last
 */
public record Page<T>(List<T> items, @Nullable UUID next) {
    /** A page of at most {@code count}, of a list that was asked for one more than that. */
    public static <T> Page<T> of(List<T> oneMore, int count, Function<T, UUID> id) {
        if (oneMore.size() <= count) {
            return new Page<>(oneMore, null);
        }
        List<T> items = oneMore.subList(0, count);
        return new Page<>(items, id.apply(items.get(count - 1)));
    }

    public <R> Page<R> map(Function<T, R> view) {
        return new Page<>(items.stream().map(view).toList(), next);
    }
}
