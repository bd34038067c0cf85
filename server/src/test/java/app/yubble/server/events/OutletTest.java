package app.yubble.server.events;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.io.IOException;
import java.time.Instant;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

class OutletTest {
    private static final Instant NOW = Instant.parse("2026-11-28T10:00:00Z");

    private final ExecutorService writers = Executors.newCachedThreadPool();

    @AfterEach
    void stop() {
        writers.shutdownNow();
    }

    @Test
    void whoDoesNotReadHoldsNobodyUpAndIsLostAfterAWhile() {
        CountDownLatch read = new CountDownLatch(1);
        Outlet deaf = new Outlet(writers);
        Outlet other = new Outlet(writers);
        AtomicInteger written = new AtomicInteger();

        deaf.begin(NOW, () -> waitFor(read));
        other.begin(NOW, written::incrementAndGet);

        await().until(() -> written.get() == 1 && !other.isBusy());
        assertThat(deaf.isBusy()).isTrue();
        assertThat(deaf.isLost(NOW.plusSeconds(9))).isFalse();
        assertThat(deaf.isLost(NOW.plusSeconds(11))).isTrue();
        assertThat(other.isLost(NOW.plusSeconds(11))).isFalse();
        read.countDown();
        await().until(() -> !deaf.isLost(NOW.plusSeconds(11)));
    }

    @Test
    void whoHasHungUpIsLostAtOnce() {
        Outlet outlet = new Outlet(writers);

        outlet.begin(NOW, () -> {
            throw new IOException("broken pipe");
        });

        await().until(() -> outlet.isLost(NOW));
    }

    private static void waitFor(CountDownLatch latch) {
        try {
            latch.await();
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
    }
}
