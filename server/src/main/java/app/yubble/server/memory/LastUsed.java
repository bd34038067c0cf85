package app.yubble.server.memory;

import com.google.common.cache.Cache;
import com.google.common.cache.CacheBuilder;
import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.core.instrument.binder.cache.GuavaCacheMetrics;
import java.time.Duration;
import java.util.function.ToLongFunction;

/**
 * Keeps what was used last, up to so many bytes.
 *
 * <p>Not what was used most: a cache that judges by how often something was used turns away the large picture that was opened
 * just now, in favour of those that somebody worked on for an hour and has left, and every dab on it begins from the file.
 */
public final class LastUsed {
    private static final Duration UNUSED = Duration.ofMinutes(20);

    private LastUsed() {}

    /**
     * What has not been used for twenty minutes goes too.
     *
     * @param bytes of a value, asked when it is put
     * @param name of its figures
     */
    public static <K, V> Cache<K, V> upTo(long mostBytes, ToLongFunction<V> bytes, String name, MeterRegistry meters) {
        Cache<K, V> out = CacheBuilder.newBuilder()
                // One order and one sum for all; a segment of its own for each thread would turn away half of what
                // fits.
                .concurrencyLevel(1)
                .maximumWeight(mostBytes)
                .weigher((K key, V value) -> (int) Math.min(Integer.MAX_VALUE, bytes.applyAsLong(value)))
                .expireAfterAccess(UNUSED)
                .recordStats()
                .build();
        GuavaCacheMetrics.monitor(meters, out, name);
        return out;
    }
}
