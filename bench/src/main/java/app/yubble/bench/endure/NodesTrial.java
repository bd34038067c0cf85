package app.yubble.bench.endure;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/**
 * Several nodes over one database and one store, while somebody is busy whose requests go round among them. At random a node is killed,
 * or what they share is gone for some seconds.
 */
final class NodesTrial implements AutoCloseable {
    private static final int LEAST_MILLIS = 1500;
    private static final int MOST_MILLIS = 6000;
    private static final int AWAY_MILLIS = 8000;
    /** What a lost node had in hand is done by another after that at the latest. */
    private static final long MOST_SECONDS = 60;
    /** Large enough that a delivery takes a while. */
    private static final int WIDTH = 1600;

    private static final int HEIGHT = 1200;
    /** All nodes share this machine's cores. */
    private static final int REST = 2500;

    private static final Pattern DELIVERED = Pattern.compile("delivery of .*Trial (\\d+)\\.jpg in \\d+ ms");

    private final Path folder;
    private final Random random;
    private final Site site;
    private final List<Host> nodes = new ArrayList<>();
    private final Client client;
    private final Map<String, Integer> misfortunes = new TreeMap<>();
    private final List<String> faults = Collections.synchronizedList(new ArrayList<>());
    private long slowest;

    /**
     * @param program starts a node
     * @param before starts a node of the version before, which is there first and goes on beside the others; null for none
     * @param store a jar that speaks S3; null for a folder that all share, as a node of the version before does
     */
    NodesTrial(
            List<String> program,
            @Nullable List<String> before,
            int count,
            @Nullable Path store,
            Path folder,
            long seed)
            throws IOException {
        this.folder = folder;
        random = new Random(seed);
        site = new Site(folder.resolve("site"), store);
        try {
            for (int i = 0; i < count; i++) {
                String name = "n" + i;
                nodes.add(new Host(
                        i == 0 && before != null ? before : program,
                        folder.resolve(site.hasStore() ? name : "shared"),
                        site.settings(name)));
            }
            client = new Client(nodes.stream().mapToInt(Host::port).toArray()).signedUp("survivor");
        } catch (IOException | RuntimeException fault) {
            close();
            throw fault;
        }
    }

    /** What it came to; without faults it was stood. */
    record Report(
            int nodes,
            Map<String, Integer> misfortunes,
            Busy.Done done,
            long slowest,
            long secondsToSettle,
            List<String> faults) {
        @Override
        public String toString() {
            return String.format(
                    Locale.ROOT,
                    "%d nodes; %s; acknowledged: %s; what a lost node had in hand was done after %d s at most;"
                            + " all at an end after %d s%s",
                    nodes,
                    misfortunes,
                    done,
                    slowest,
                    secondsToSettle,
                    faults.isEmpty() ? "; nothing lost, nothing made twice" : "; WRONG: " + String.join("; ", faults));
        }
    }

    Report run(int rounds) throws IOException, InterruptedException {
        Busy busy = new Busy(client, REST);
        for (int round = 1; round <= rounds; round++) {
            busy.begin(WIDTH + round, HEIGHT);
            Waiting.millis(LEAST_MILLIS + random.nextInt(MOST_MILLIS - LEAST_MILLIS));
            meet(busy);
            busy.end();
        }
        long seconds = busy.settle();
        faults.addAll(busy.faults());
        checkMadeOnce(busy);
        return new Report(nodes.size(), misfortunes, busy.done(), slowest, seconds, List.copyOf(faults));
    }

    private void meet(Busy busy) throws IOException, InterruptedException {
        int which = random.nextInt(site.hasStore() ? 4 : 3);
        if (which == 2) {
            count("database away");
            site.loseDatabase(AWAY_MILLIS);
            for (Host each : nodes) {
                each.awaitReady();
            }
        } else if (which == 3) {
            count("store away");
            site.loseStore(AWAY_MILLIS);
        } else {
            count("node killed");
            loseNode(busy);
        }
    }

    private void count(String what) {
        misfortunes.merge(what, 1, Integer::sum);
    }

    /** It is started again while others take up what it had in hand. */
    private void loseNode(Busy busy) throws IOException, InterruptedException {
        Set<String> inHand = rendering();
        Host lost = nodes.get(random.nextInt(nodes.size()));
        lost.kill();
        // Only work that was there counts, not what is asked for meanwhile.
        busy.pause();
        Thread starting = new Thread(() -> {
            try {
                lost.startAgain();
            } catch (IOException fault) {
                faults.add("a node that was killed does not start: " + fault.getMessage());
            }
        });
        starting.start();
        long start = System.nanoTime();
        long seconds = 0;
        while (!areDone(inHand) && seconds < 2 * MOST_SECONDS) {
            Waiting.millis(200);
            seconds = TimeUnit.NANOSECONDS.toSeconds(System.nanoTime() - start);
        }
        slowest = Math.max(slowest, seconds);
        if (seconds > MOST_SECONDS) {
            faults.add("what a lost node had in hand was not done after " + MOST_SECONDS + " s");
        }
        starting.join();
    }

    private boolean areDone(Set<String> deliveries) throws IOException {
        for (String each : deliveries) {
            JsonNode now = client.get("/api/deliveries/" + each).required().json();
            if (!Client.text(now, "state").equals("done")) {
                return false;
            }
        }
        return true;
    }

    private Set<String> rendering() throws IOException {
        Set<String> out = new HashSet<>();
        for (JsonNode each :
                client.get("/api/deliveries?count=100").required().json().get("items")) {
            if (Client.text(each, "state").equals("rendering")) {
                out.add(Client.text(each, "id"));
            }
        }
        return out;
    }

    /** By what the nodes wrote of each delivery when it was done. */
    private void checkMadeOnce(Busy busy) throws IOException {
        Map<String, Integer> made = new HashMap<>();
        for (Host node : nodes) {
            Matcher each = DELIVERED.matcher(Files.readString(node.log().toPath()));
            while (each.find()) {
                made.merge(each.group(1), 1, Integer::sum);
            }
        }
        made.forEach((name, times) -> {
            if (times > 1) {
                faults.add("delivery " + name + " was made " + times + " times");
            }
        });
        // A node that is killed between the two writes the result and not the line.
        if (made.size() < busy.done().deliveries() - misfortunes.getOrDefault("node killed", 0)) {
            faults.add("only " + made.size() + " deliveries are in the logs in " + folder);
        }
    }

    @Override
    public void close() {
        nodes.forEach(Host::close);
        site.close();
    }
}
