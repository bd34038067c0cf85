package app.yubble.server.memory;

import com.google.common.cache.Cache;
import com.google.common.cache.CacheBuilder;
import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.core.instrument.binder.cache.GuavaCacheMetrics;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import java.util.function.ToLongFunction;
import org.springframework.stereotype.Component;

/**
 * Keeps what was used last, up to so many bytes.
 *
 * <p>Not what was used most: a cache that judges by how often something was used turns away the large picture that was opened
 * just now, in favour of those that somebody worked on for an hour and has left, and every dab on it begins from the file.
 */
@Component
public final class LastUsed {
    private static final Duration UNUSED = Duration.ofMinutes(20);
    /** By how much less is kept while a very large picture is worked on. */
    static final int SHORT = 8;
    /** Share of the heap that one cache may hold, whatever it is set to. */
    private static final int SHARE = 4;

    private final MeterRegistry meters;
    private final List<Cache<?, ?>> caches = new CopyOnWriteArrayList<>();
    private final AtomicInteger large = new AtomicInteger();

    LastUsed(MeterRegistry meters) {
        this.meters = meters;
    }

    /**
     * What has not been used for twenty minutes goes too.
     *
     * @param mostBytes at most a quarter of the heap is taken
     * @param bytes of a value, asked when it is put
     * @param name of its figures
     */
    public <K, V> Cache<K, V> upTo(long mostBytes, ToLongFunction<V> bytes, String name) {
        Cache<K, V> out = CacheBuilder.newBuilder()
                // One order and one sum for all; a segment of its own for each thread would turn away half of what
                // fits.
                .concurrencyLevel(1)
                .maximumWeight(Math.min(mostBytes, Runtime.getRuntime().maxMemory() / SHARE))
                .weigher((K key, V value) -> weight(bytes.applyAsLong(value)))
                .expireAfterAccess(UNUSED)
                .recordStats()
                .build();
        caches.add(out);
        GuavaCacheMetrics.monitor(meters, out, name);
        return out;
    }

    /** What two caches that are set to so many bytes hold together within a heap. */
    static long within(long heap, long caches) {
        return Math.min(caches, 2 * heap / SHARE);
    }

    private int weight(long bytes) {
        return (int) Math.min(Integer.MAX_VALUE, large.get() > 0 ? SHORT * bytes : bytes);
    }

    /** Lets go of everything. */
    void clear() {
        caches.forEach(Cache::invalidateAll);
    }

    /** Does work that needs nearly all memory there is: what was kept is let go of, and until it is done little is kept. */
    public <T> T makingRoom(Supplier<T> work) {
        large.incrementAndGet();
        try {
            clear();
            return work.get();
        } finally {
            large.decrementAndGet();
        }
    }
}
