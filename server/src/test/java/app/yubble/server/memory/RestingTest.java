package app.yubble.server.memory;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.common.cache.Cache;
import io.micrometer.core.instrument.simple.SimpleMeterRegistry;
import java.time.Duration;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockFilterChain;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;

class RestingTest {
    private final LastUsed kept = new LastUsed(new SimpleMeterRegistry());
    private final Cache<String, Integer> cache = kept.upTo(100, Integer::longValue, "test");

    @Test
    void whatWasKeptIsLetGoOfWhenNobodyHasAskedForAnything() throws Exception {
        Resting resting = new Resting(kept, Duration.ofSeconds(1));
        cache.put("a", 10);
        resting.look();
        assertThat(cache.asMap()).containsKey("a");
        Thread.sleep(1100);
        resting.doFilter(new MockHttpServletRequest(), new MockHttpServletResponse(), new MockFilterChain());
        resting.look();
        assertThat(cache.asMap()).containsKey("a");
        Thread.sleep(1100);
        resting.look();
        assertThat(cache.asMap()).isEmpty();
        // Once is enough: what comes meanwhile, as of a job, stays.
        cache.put("b", 10);
        resting.look();
        assertThat(cache.asMap()).containsKey("b");
    }
}
