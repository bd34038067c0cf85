package app.yubble.server.memory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.yubble.server.problem.RefusedException;
import com.google.common.cache.Cache;
import io.micrometer.core.instrument.simple.SimpleMeterRegistry;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

class MemoryGateTest {
    private static final long MEGA = 1_000_000;
    private static final long THREE_GB = 3_221_000_000L;

    private final LastUsed kept = new LastUsed(new SimpleMeterRegistry());
    private final Cache<String, Integer> cache = kept.upTo(1000, Integer::longValue, "test");
    private final MemoryGate gate = new MemoryGate(kept, THREE_GB, 1_200 * MEGA, new SimpleMeterRegistry());

    @Test
    void asManyWorkAtOnceAsFitInMemory() throws Exception {
        assertThat(mostAtOnce(8, 24 * MEGA, false)).isEqualTo(4);
        assertThat(mostAtOnce(8, 24 * MEGA, true)).isEqualTo(2);
        assertThat(mostAtOnce(3, 80 * MEGA, false)).isEqualTo(1);
    }

    @Test
    void whatNeedsNearlyAllMemoryEmptiesTheCaches() {
        cache.put("kept", 10);
        gate.decoding(100 * MEGA, false, () -> null);
        assertThat(cache.getIfPresent("kept"))
                .as("1.6 GB fit beside full caches")
                .isEqualTo(10);
        gate.withLine(100 * MEGA, () -> null);
        assertThat(cache.getIfPresent("kept")).isNull();
    }

    @Test
    void whatTheServerCanNeverDoIsRefusedWithTheLimit() {
        MemoryGate small = new MemoryGate(kept, 1_073_000_000, 1_200 * MEGA, new SimpleMeterRegistry());
        assertThat(small.<String>decoding(24 * MEGA, false, () -> "done")).isEqualTo("done");
        assertThatThrownBy(() -> small.decoding(100 * MEGA, false, () -> "done"))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("1.6 GB")
                .hasMessageContaining("0.7 GB");
        assertThat(small.<String>decoding(24 * MEGA, false, () -> "done")).isEqualTo("done");
    }

    private int mostAtOnce(int count, long pixels, boolean deep) throws Exception {
        AtomicInteger now = new AtomicInteger();
        AtomicInteger most = new AtomicInteger();
        ExecutorService people = Executors.newFixedThreadPool(count);
        List<Future<?>> all = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            all.add(people.submit(() -> gate.decoding(pixels, deep, () -> {
                most.accumulateAndGet(now.incrementAndGet(), Math::max);
                try {
                    Thread.sleep(60);
                } catch (InterruptedException e) {
                    throw new IllegalStateException(e);
                }
                return now.decrementAndGet();
            })));
        }
        for (Future<?> each : all) {
            each.get(10, TimeUnit.SECONDS);
        }
        people.shutdown();
        return most.get();
    }
}
