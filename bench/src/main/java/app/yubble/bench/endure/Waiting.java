package app.yubble.bench.endure;

/** Sleeping, where being woken early means that the trial is over. */
final class Waiting {
    private Waiting() {}

    static void millis(long millis) {
        try {
            Thread.sleep(millis);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("interrupted", stopped);
        }
    }
}
