package app.yubble.bench.endure;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;

/** Kills the application or its database at random moments while somebody is busy. */
final class KillTrial {
    private static final int LEAST_MILLIS = 300;
    private static final int MOST_MILLIS = 4000;

    private static final int REST = 200;

    private final Host host;
    private final Random random;
    private final Busy busy;

    KillTrial(Host host, long seed) throws IOException {
        this.host = host;
        random = new Random(seed);
        busy = new Busy(new Client(host.port()).signedUp("survivor"), REST);
    }

    /** What it came to; without faults it was stood. */
    record Report(int rounds, Busy.Done done, long secondsToSettle, List<String> faults) {
        @Override
        public String toString() {
            return String.format(
                    Locale.ROOT,
                    "%d times killed; acknowledged: %s; all at an end %d s after the last start%s",
                    rounds,
                    done,
                    secondsToSettle,
                    faults.isEmpty() ? "; nothing lost" : "; LOST: " + String.join("; ", faults));
        }
    }

    Report run(int rounds) throws IOException, InterruptedException {
        for (int round = 1; round <= rounds; round++) {
            busy.begin(640 + round, 480);
            Waiting.millis(LEAST_MILLIS + random.nextInt(MOST_MILLIS - LEAST_MILLIS));
            if (random.nextInt(2) == 0) {
                host.killDatabase();
                host.awaitReady();
            } else {
                host.kill();
                busy.pause();
                host.startAgain();
            }
            busy.end();
        }
        long seconds = busy.settle();
        List<String> faults = new ArrayList<>(busy.faults());
        String verified = host.verified();
        if (!verified.isEmpty()) {
            faults.add("files: " + verified);
        }
        return new Report(rounds, busy.done(), seconds, faults);
    }
}
