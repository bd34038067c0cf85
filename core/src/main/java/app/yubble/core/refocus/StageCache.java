package app.yubble.core.refocus;

import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.function.Supplier;
import java.util.function.ToLongFunction;
import org.jspecify.annotations.Nullable;

/**
 * Results of stages, bounded by bytes; the least recently used go first.
 *
 * <p>Two callers that want the same result compute it once. A computation that fails or is cancelled leaves nothing
 * behind, and a caller who waited for a cancelled one computes it itself.
 */
public final class StageCache {
    private final long capacity;
    private final Map<StageKey, Entry> entries = new LinkedHashMap<>(16, 0.75f, true);
    private long held;

    private static final class Entry {
        final CompletableFuture<Object> value = new CompletableFuture<>();
        long bytes;
    }

    public StageCache(long capacityBytes) {
        this.capacity = capacityBytes;
    }

    /** The cached result for {@code key}, or the one that {@code compute} returns, which is kept. */
    public <T> T get(StageKey key, Class<T> type, ToLongFunction<T> bytes, Supplier<T> compute) {
        while (true) {
            Entry entry;
            boolean mine = false;
            synchronized (entries) {
                entry = entries.get(key);
                if (entry == null) {
                    entry = new Entry();
                    entries.put(key, entry);
                    mine = true;
                }
            }
            if (mine) {
                return computed(key, entry, bytes, compute);
            }
            try {
                return type.cast(entry.value.join());
            } catch (CompletionException | CancellationException failed) {
                if (!(failed instanceof CancellationException)
                        && !(failed.getCause() instanceof CancellationException)) {
                    if (failed.getCause() instanceof RuntimeException cause) {
                        throw cause;
                    }
                    throw failed;
                }
            }
        }
    }

    /** The finished result for {@code key}, or null. */
    public <T> @Nullable T found(StageKey key, Class<T> type) {
        Entry entry;
        synchronized (entries) {
            entry = entries.get(key);
        }
        return entry == null || !entry.value.isDone() || entry.value.isCompletedExceptionally()
                ? null
                : type.cast(entry.value.join());
    }

    private <T> T computed(StageKey key, Entry entry, ToLongFunction<T> bytes, Supplier<T> compute) {
        try {
            T value = compute.get();
            synchronized (entries) {
                if (entries.get(key) == entry) {
                    entry.bytes = bytes.applyAsLong(value);
                    held += entry.bytes;
                    evict(key);
                }
            }
            entry.value.complete(value);
            return value;
        } catch (Throwable failure) {
            synchronized (entries) {
                entries.remove(key, entry);
            }
            entry.value.completeExceptionally(failure);
            throw failure;
        }
    }

    private void evict(StageKey newest) {
        Iterator<Map.Entry<StageKey, Entry>> oldest = entries.entrySet().iterator();
        while (held > capacity && oldest.hasNext()) {
            Map.Entry<StageKey, Entry> candidate = oldest.next();
            if (candidate.getValue().bytes > 0 && !candidate.getKey().equals(newest)) {
                held -= candidate.getValue().bytes;
                oldest.remove();
            }
        }
    }

    /** Bytes held by finished results. */
    public long heldBytes() {
        synchronized (entries) {
            return held;
        }
    }
}
