package app.yubble.server.editing;

import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import io.micrometer.core.instrument.MeterRegistry;
import java.util.UUID;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;

/** People who have something drawn that does not end until they are let go. */
public final class Crowd implements AutoCloseable {
    private static final Size SMALL = new Size(300, 200);
    private static final int PLACES = 2;

    private final Drawing drawing;
    private final MeterRegistry meters;
    private final ExecutorService threads = Executors.newCachedThreadPool();
    private final CountDownLatch first = new CountDownLatch(1);
    private final CountDownLatch others = new CountDownLatch(1);

    /** Takes all places there are. */
    public Crowd(Drawing drawing, MeterRegistry meters) {
        this.drawing = drawing;
        this.meters = meters;
        come(first, PLACES);
    }

    /** So many people wait behind whoever waits already. */
    public void grow(int people) {
        come(others, people);
    }

    private void come(CountDownLatch until, int people) {
        double before = used();
        for (int i = 0; i < people; i++) {
            threads.execute(() -> drawing.inTurn(UUID.randomUUID(), SMALL, Progress.NONE, () -> {
                try {
                    until.await();
                } catch (InterruptedException stopped) {
                    Thread.currentThread().interrupt();
                }
                return 0;
            }));
        }
        awaitUsed((int) before + people);
    }

    private double used() {
        return meters.get("yubble.drawing").tag("kind", "fitted").gauge().value();
    }

    /** Until so many work or wait. */
    public void awaitUsed(int number) {
        while (used() < number) {
            Thread.onSpinWait();
        }
    }

    /** Those who were here first are done. */
    public void letFirstGo() {
        first.countDown();
    }

    @Override
    public void close() {
        first.countDown();
        others.countDown();
        threads.shutdown();
    }
}
