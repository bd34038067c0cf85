package app.yubble.server.editing;

import java.util.StringJoiner;

/** How long the parts of an answer took, in milliseconds, as the header {@code Server-Timing} tells it (a W3C recommendation). */
final class ServerTiming {
    private final long start = System.nanoTime();
    private final StringJoiner parts = new StringJoiner(", ");
    private long last = start;

    /** A part is done, which began where the one before ended. */
    void done(String part) {
        long now = System.nanoTime();
        add(part, now - last);
        last = now;
    }

    private void add(String part, long nanos) {
        parts.add(part + ";dur=" + nanos / 1_000_000);
    }

    /** Since the request began. */
    long nanos() {
        return System.nanoTime() - start;
    }

    /** All parts, and the whole under {@code name} behind them. */
    String header(String name) {
        add(name, nanos());
        return parts.toString();
    }
}
