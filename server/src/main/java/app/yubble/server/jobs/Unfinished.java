package app.yubble.server.jobs;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.UUID;

/** Things that wait for a job to finish them. */
public interface Unfinished {
    /** So long after it was asked for it is begun again; what still has not come to an end may be what brings servers down. */
    Duration TRIED_FOR = Duration.ofHours(1);

    /** Those that nothing has happened to since {@code moment}, at most some hundred. */
    List<UUID> untouchedSince(Instant moment);

    /**
     * Takes one on for this node: false when something has happened to it since {@code moment}, or it is over. One that was asked for
     * longer ago than {@link #TRIED_FOR} fails instead, and its owner is told.
     */
    boolean claim(UUID id, Instant moment);

    /** Gives it a job again. */
    void resume(UUID id);
}
