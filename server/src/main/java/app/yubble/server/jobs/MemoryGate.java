package app.yubble.server.jobs;

import java.util.concurrent.Semaphore;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;

/**
 * Lets only so many megapixels be worked on at full size at a time; whoever comes later waits. A picture of the size
 * limit fits alone.
 */
@Component
public class MemoryGate {
    private static final int PERMITS = 120;

    private final Semaphore permits = new Semaphore(PERMITS, true);

    /** Made by the framework. */
    MemoryGate() {}

    public <T> T with(long pixels, Supplier<T> work) {
        int wanted = (int) Math.max(1, Math.min(PERMITS, pixels / 1_000_000));
        permits.acquireUninterruptibly(wanted);
        try {
            return work.get();
        } finally {
            permits.release(wanted);
        }
    }
}
