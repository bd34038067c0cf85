package app.yubble.core.raster;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicIntegerArray;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class BandsTest {
    @ParameterizedTest
    @ValueSource(ints = {0, 1, 2, 3, 17, 1000})
    void everyPieceRunsOnce(int count) {
        AtomicIntegerArray runs = new AtomicIntegerArray(count + 1);
        Bands.ofPieces(count, runs::incrementAndGet);
        for (int i = 0; i < count; i++) {
            assertThat(runs.get(i)).isEqualTo(1);
        }
        assertThat(runs.get(count)).isZero();
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 15, 16, 33, 5000})
    void rowsAreCoveredWithoutGapOrOverlap(int height) {
        AtomicIntegerArray rows = new AtomicIntegerArray(height);
        Bands.ofRows(height, (from, to) -> {
            for (int y = from; y < to; y++) {
                rows.incrementAndGet(y);
            }
        });
        for (int y = 0; y < height; y++) {
            assertThat(rows.get(y)).isEqualTo(1);
        }
    }

    @RepeatedTest(200)
    void whatHelpersWroteIsThereWhenTheCallReturns() {
        int[] written = new int[64];
        Bands.ofPieces(written.length, i -> written[i] = i + 1);
        for (int i = 0; i < written.length; i++) {
            assertThat(written[i]).isEqualTo(i + 1);
        }
    }

    @Test
    void aFaultStopsTheRestAndIsTheCallersAndNothingRunsOnAfterwards() {
        AtomicInteger started = new AtomicInteger();
        assertThatThrownBy(() -> Bands.ofPieces(100_000, i -> {
                    started.incrementAndGet();
                    if (i == 5) {
                        throw new IllegalStateException("piece 5");
                    }
                }))
                .isInstanceOf(IllegalStateException.class)
                .hasMessage("piece 5");
        int then = started.get();
        assertThat(then).isLessThan(100_000);
        Bands.ofPieces(4, i -> {});
        assertThat(started.get()).isEqualTo(then);
    }

    @Test
    void piecesMayHandOutPiecesOfTheirOwn() {
        AtomicInteger runs = new AtomicInteger();
        Bands.ofPieces(20, outer -> Bands.ofPieces(20, inner -> runs.incrementAndGet()));
        assertThat(runs.get()).isEqualTo(400);
    }

    @Test
    void onlyTheGivenExecutorHelpsAlsoWithPiecesOfPieces() {
        ExecutorService pool = Executors.newFixedThreadPool(2, task -> new Thread(task, "given"));
        Set<String> threads = ConcurrentHashMap.newKeySet();
        try {
            Bands.on(pool, 2, () -> {
                Bands.ofPieces(
                        40,
                        outer -> Bands.ofPieces(40, inner -> {
                            threads.add(Thread.currentThread().getName());
                            Thread.onSpinWait();
                        }));
                return 0;
            });
        } finally {
            pool.shutdown();
        }
        threads.remove(Thread.currentThread().getName());
        assertThat(threads).allMatch("given"::equals);
    }

    @Test
    void withoutHelpersPiecesRunInTheirOrderInTheCallersThread() {
        List<Integer> order = new ArrayList<>();
        Bands.on(
                task -> {
                    throw new AssertionError("nobody is to be asked for help");
                },
                0,
                () -> {
                    Bands.ofPieces(100, order::add);
                    return 0;
                });
        assertThat(order).hasSize(100).isSorted();
    }
}
