package app.yubble.server.memory;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.common.cache.Cache;
import io.micrometer.core.instrument.simple.SimpleMeterRegistry;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class LastUsedTest {
    private final Cache<String, Integer> cache =
            new LastUsed(new SimpleMeterRegistry()).upTo(100, Integer::longValue, "test");

    @Test
    void aLargePictureOpenedJustNowIsKeptAlthoughOthersWereUsedOften() {
        for (int round = 0; round < 50; round++) {
            IntStream.range(0, 10).forEach(i -> cache.asMap().merge("before " + i, 10, (kept, fresh) -> kept));
        }
        cache.put("now", 60);
        assertThat(cache.getIfPresent("now")).isEqualTo(60);
        assertThat(cache.asMap()).containsKeys("before 6", "before 9").doesNotContainKey("before 5");
    }

    @Test
    void whatGrowsIsWeighedAnewWhenItIsPutAgain() {
        cache.put("a", 0);
        cache.put("b", 40);
        cache.put("a", 70);
        assertThat(cache.asMap()).containsOnlyKeys("a");
    }

    @Test
    void whatFitsInNoWayIsNotKept() {
        cache.put("b", 40);
        cache.put("a", 101);
        assertThat(cache.asMap()).doesNotContainKey("a");
    }

    @Test
    void roomIsMadeForAVeryLargePicture() {
        LastUsed kept = new LastUsed(new SimpleMeterRegistry());
        Cache<String, Integer> small = kept.upTo(100, Integer::longValue, "small");
        small.put("before", 50);
        kept.makingRoom(() -> {
            assertThat(small.asMap()).isEmpty();
            small.put("tiny", 10);
            small.put("large", 50);
            assertThat(small.asMap()).containsOnlyKeys("tiny");
            return true;
        });
        small.put("after", 50);
        assertThat(small.asMap()).containsKey("after");
    }
}
