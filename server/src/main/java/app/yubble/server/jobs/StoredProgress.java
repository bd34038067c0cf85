package app.yubble.server.jobs;

import app.yubble.core.raster.Progress;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicLong;

/** Progress that is stored at most a few times a second, and asks the store whether to go on. */
public final class StoredProgress implements Progress {
    private static final long INTERVAL = 300_000_000L;

    /** Stores how far the work is; returns false when it has been cancelled. */
    @FunctionalInterface
    public interface Store {
        boolean save(double done);
    }

    private final Store store;
    private final AtomicLong next = new AtomicLong(System.nanoTime());

    public StoredProgress(Store store) {
        this.store = store;
    }

    @Override
    public void at(double done) {
        long due = next.get();
        long now = System.nanoTime();
        if (now - due >= 0 && next.compareAndSet(due, now + INTERVAL) && !store.save(done)) {
            throw new CancellationException("cancelled");
        }
    }
}
