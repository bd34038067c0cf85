package app.yubble.server.events;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.Executor;
import org.jspecify.annotations.Nullable;

/**
 * Where events for one page go. Writing to somebody who does not read waits, sometimes for ever: it is done by a thread of the
 * outlet's own, one writing at a time, so that nobody else waits along.
 */
final class Outlet {
    /** Whoever has not read for so long does not read any more. */
    static final Duration PATIENCE = Duration.ofSeconds(10);

    private final Executor writers;
    /** When the writing under way began; null when there is none. */
    private volatile @Nullable Instant since;

    private volatile boolean broken;

    /** @param writers a thread for each outlet that is written to */
    Outlet(Executor writers) {
        this.writers = writers;
    }

    /** Writes some events. */
    @FunctionalInterface
    interface Writing {
        void write() throws IOException;
    }

    boolean isBusy() {
        return since != null;
    }

    /** Whether nobody reads at its other end. */
    boolean isLost(Instant now) {
        Instant began = since;
        return broken || began != null && began.plus(PATIENCE).isBefore(now);
    }

    /** Begins to write; only when it is not busy. */
    void begin(Instant now, Writing events) {
        since = now;
        writers.execute(() -> {
            try {
                events.write();
                since = null;
            } catch (IOException | IllegalStateException gone) {
                broken = true;
            }
        });
    }
}
