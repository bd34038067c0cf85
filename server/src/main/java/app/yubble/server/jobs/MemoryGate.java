package app.yubble.server.jobs;

import app.yubble.server.memory.LastUsed;
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

    /** A whole line at full size holds this many times what a decoded picture takes. */
    private static final int LINE = 3;

    /** Pixels from which a line needs nearly all memory there is. */
    private static final long LARGE = 40_000_000;
    /** So many pixels leave no room for any others. */
    private static final long ALONE = 1_000_000L * PERMITS;

    private final LastUsed kept;
    private final Semaphore permits = new Semaphore(PERMITS, true);
    /** Of whole lines; who waits for it does not stand in the way of those who look at a picture. */
    private final Semaphore lines = new Semaphore(PERMITS, true);

    MemoryGate(LastUsed kept) {
        this.kept = kept;
    }

    /** For what goes through all of the line at full size: of 24 megapixels one at a time, which is no slower, as it uses all cores. */
    public <T> T withLine(long pixels, Supplier<T> work) {
        int wanted = permits(LINE * pixels);
        lines.acquireUninterruptibly(wanted);
        try {
            return pixels < LARGE ? with(pixels, work) : with(ALONE, () -> kept.makingRoom(work));
        } finally {
            lines.release(wanted);
        }
    }

    private static int permits(long pixels) {
        return (int) Math.max(1, Math.min(PERMITS, pixels / 1_000_000));
    }

    public <T> T with(long pixels, Supplier<T> work) {
        int wanted = permits(pixels);
        permits.acquireUninterruptibly(wanted);
        try {
            return work.get();
        } finally {
            permits.release(wanted);
        }
    }
}
