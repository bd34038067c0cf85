package app.yubble.core.refocus;

import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentMap;
import java.util.function.Supplier;
import java.util.function.ToLongFunction;
import org.jspecify.annotations.Nullable;

/**
 * Results of stages by what they depend on. Nothing in it is ever modified. Safe for many threads.
 *
 * <p>Two callers that want the same result compute it once. A computation that fails or is cancelled leaves nothing behind, and a
 * caller who waited for a cancelled one computes it itself. What is kept, and for how long, is up to the map that it is given.
 */
public final class StageCache {
    /**
     * A result and the memory that it takes.
     *
     * @param bytes what an owner of bounded memory counts
     */
    public record Kept(Object value, long bytes) {}

    private final ConcurrentMap<StageKey, CompletableFuture<Kept>> results;
    private final boolean keeps;

    private StageCache(ConcurrentMap<StageKey, CompletableFuture<Kept>> results, boolean keeps) {
        this.results = results;
        this.keeps = keeps;
    }

    /** @param results may drop any result that is complete at any time */
    public StageCache(ConcurrentMap<StageKey, CompletableFuture<Kept>> results) {
        this(results, true);
    }

    /** One that keeps everything as long as it lives. */
    public static StageCache keepingAll() {
        return new StageCache(new ConcurrentHashMap<>());
    }

    /** One that keeps nothing: for somebody who does not ask twice and is short of memory. */
    static StageCache keepingNothing() {
        return new StageCache(new ConcurrentHashMap<>(), false);
    }

    /** One that begins with what this one has and keeps everything. */
    StageCache copy() {
        return new StageCache(new ConcurrentHashMap<>(results));
    }

    /** Lets go of a result. */
    void forget(StageKey key) {
        results.remove(key);
    }

    /** The cached result for {@code key}, or the one that {@code compute} returns, which is kept. */
    <T> T get(StageKey key, Class<T> type, ToLongFunction<T> bytes, Supplier<T> compute) {
        while (true) {
            CompletableFuture<Kept> own = new CompletableFuture<>();
            CompletableFuture<Kept> known = results.putIfAbsent(key, own);
            if (known == null) {
                return computed(key, own, bytes, compute);
            }
            try {
                return type.cast(known.join().value());
            } catch (CancellationException cancelled) {
                // It was somebody else who no longer wanted it.
                results.remove(key, known);
            } catch (CompletionException failed) {
                if (!(failed.getCause() instanceof CancellationException)) {
                    throw failed.getCause() instanceof RuntimeException cause ? cause : failed;
                }
                results.remove(key, known);
            }
        }
    }

    private <T> T computed(StageKey key, CompletableFuture<Kept> own, ToLongFunction<T> bytes, Supplier<T> compute) {
        try {
            T value = compute.get();
            own.complete(new Kept(value, bytes.applyAsLong(value)));
            if (keeps) {
                // A map that weighs what it holds weighs it only now.
                results.replace(key, own, own);
            } else {
                results.remove(key, own);
            }
            return value;
        } catch (Throwable failure) {
            results.remove(key, own);
            own.completeExceptionally(failure);
            throw failure;
        }
    }

    /** The finished result for {@code key}, or null. */
    <T> @Nullable T found(StageKey key, Class<T> type) {
        CompletableFuture<Kept> known = results.get(key);
        return known == null || !known.isDone() || known.isCompletedExceptionally()
                ? null
                : type.cast(known.join().value());
    }
}
