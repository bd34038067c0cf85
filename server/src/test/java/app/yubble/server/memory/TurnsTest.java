package app.yubble.server.memory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.yubble.core.raster.Progress;
import app.yubble.server.problem.TooOftenException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

@Timeout(20)
class TurnsTest {
    private final UUID greedy = UUID.randomUUID();
    private final UUID modest = UUID.randomUUID();
    private final ExecutorService people = Executors.newCachedThreadPool();
    private final CountDownLatch open = new CountDownLatch(1);
    private final List<String> done = Collections.synchronizedList(new ArrayList<>());
    private final AtomicInteger asked = new AtomicInteger();

    private Turns turns;

    @BeforeEach
    void occupyTheOnlyPlace() throws Exception {
        turns = new Turns(1, 4, 6);
        CountDownLatch inside = new CountDownLatch(1);
        people.submit(() -> turns.in(greedy, Progress.NONE, () -> {
            inside.countDown();
            await(open);
            return null;
        }));
        inside.await();
    }

    @AfterEach
    void letEveryoneGo() {
        open.countDown();
        people.shutdownNow();
    }

    @Test
    void whoAsksForMuchDoesNotKeepOthersWaiting() throws Exception {
        List<Future<?>> all = new ArrayList<>();
        for (int i = 1; i <= 3; i++) {
            all.add(ask(greedy, "greedy " + i));
        }
        all.add(ask(modest, "modest"));
        open.countDown();
        for (Future<?> each : all) {
            each.get(5, TimeUnit.SECONDS);
        }
        assertThat(done).containsExactly("greedy 1", "modest", "greedy 2", "greedy 3");
    }

    @Test
    void whatIsNoLongerWantedLeavesTheQueueAtOnce() throws Exception {
        AtomicBoolean unwanted = new AtomicBoolean();
        Future<?> left = people.submit(() -> turns.in(
                modest,
                share -> {
                    asked.incrementAndGet();
                    if (unwanted.get()) {
                        throw new CancellationException();
                    }
                },
                () -> done.add("left")));
        until(1);
        Future<?> other = ask(greedy, "other");
        unwanted.set(true);
        assertThatThrownBy(() -> left.get(5, TimeUnit.SECONDS)).hasRootCauseInstanceOf(CancellationException.class);
        open.countDown();
        other.get(5, TimeUnit.SECONDS);
        assertThat(done).containsExactly("other");
    }

    @Test
    void moreThanSoMuchIsRefused() throws Exception {
        List<Future<?>> waiting = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            waiting.add(ask(greedy, "greedy"));
        }
        assertThatThrownBy(() -> turns.in(greedy, Progress.NONE, () -> null)).isInstanceOf(TooOftenException.class);
        waiting.add(ask(modest, "modest"));
        waiting.add(ask(modest, "modest"));
        UUID third = UUID.randomUUID();
        assertThatThrownBy(() -> turns.in(third, Progress.NONE, () -> null)).isInstanceOf(TooOftenException.class);
        open.countDown();
        for (Future<?> each : waiting) {
            each.get(5, TimeUnit.SECONDS);
        }
        assertThat(turns.<String>in(third, Progress.NONE, () -> "served")).isEqualTo("served");
    }

    private Future<?> ask(UUID person, String name) throws InterruptedException {
        int before = asked.get();
        AtomicBoolean waits = new AtomicBoolean();
        Future<?> out = people.submit(() -> turns.in(
                person,
                share -> {
                    if (!waits.getAndSet(true)) {
                        asked.incrementAndGet();
                    }
                },
                () -> done.add(name)));
        until(before + 1);
        return out;
    }

    private void until(int count) throws InterruptedException {
        while (asked.get() < count) {
            Thread.sleep(2);
        }
    }

    private static void await(CountDownLatch latch) {
        try {
            latch.await();
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
    }
}
