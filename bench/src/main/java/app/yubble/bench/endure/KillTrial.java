package app.yubble.bench.endure;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Kills the application or its database at random moments while somebody edits, brings photos in, has depth estimated and
 * deliveries made. Whatever was answered with success has to be there afterwards, and everything has to come to an end.
 */
final class KillTrial {
    private static final int LEAST_MILLIS = 300;
    private static final int MOST_MILLIS = 4000;
    /** A job whose node is gone is noticed after the workers' own time, or when the server looks for what nobody works on. */
    private static final long MINUTES_TO_SETTLE = 5;

    private final Host host;
    private final Random random;
    private final Client client;
    private final Map<String, List<String>> edits = new ConcurrentHashMap<>();
    private final Set<String> shots = ConcurrentHashMap.newKeySet();
    private final Set<String> deliveries = ConcurrentHashMap.newKeySet();
    private final List<String> faults = Collections.synchronizedList(new ArrayList<>());

    private volatile boolean over;

    KillTrial(Host host, long seed) throws IOException {
        this.host = host;
        random = new Random(seed);
        client = new Client(host.port()).signedUp("survivor");
    }

    /** What it came to; without faults it was stood. */
    record Report(int rounds, int edits, int photos, int deliveries, long secondsToSettle, List<String> faults) {
        @Override
        public String toString() {
            return String.format(
                    Locale.ROOT,
                    "%d times killed; acknowledged: %d edits, %d photos, %d deliveries; all at an end %d s after the last start%s",
                    rounds,
                    edits,
                    photos,
                    deliveries,
                    secondsToSettle,
                    faults.isEmpty() ? "; nothing lost" : "; LOST: " + String.join("; ", faults));
        }
    }

    Report run(int rounds) throws IOException, InterruptedException {
        for (int round = 1; round <= rounds; round++) {
            round(round);
        }
        long start = System.nanoTime();
        awaitEnd();
        long seconds = TimeUnit.NANOSECONDS.toSeconds(System.nanoTime() - start);
        checkDeliveries();
        String verified = host.verified();
        if (!verified.isEmpty()) {
            faults.add("files: " + verified);
        }
        return new Report(
                rounds,
                edits.values().stream().mapToInt(List::size).sum(),
                shots.size(),
                deliveries.size(),
                seconds,
                List.copyOf(faults));
    }

    private void round(int number) throws IOException, InterruptedException {
        String shot = client.shot("edited.jpg", Photos.photo(640 + number, 480));
        shots.add(shot);
        client.awaitReady(shot);
        JsonNode version =
                client.get("/api/shots/" + shot + "/versions").required().json().get(0);
        over = false;
        List<Thread> all = List.of(
                worker(() -> edit(version)), worker(() -> bringIn(number)), worker(() -> deliver(shot, version)));
        all.forEach(Thread::start);
        Waiting.millis(LEAST_MILLIS + random.nextInt(MOST_MILLIS - LEAST_MILLIS));
        if (random.nextInt(2) == 0) {
            host.killDatabase();
            host.awaitReady();
            over = true;
        } else {
            host.kill();
            over = true;
            host.startAgain();
        }
        for (Thread each : all) {
            each.join();
        }
        checkEdits(Client.text(version, "id"));
        for (String each : shots) {
            require("photo " + each, () -> get("/api/shots/" + each));
        }
    }

    /** Something done again and again; what fails while the server is away is not acknowledged and does not count. */
    @FunctionalInterface
    private interface Deed {
        void doIt() throws IOException;
    }

    private Thread worker(Supplier<Deed> deeds) {
        Deed deed = deeds.get();
        return new Thread(() -> {
            while (!over) {
                try {
                    deed.doIt();
                } catch (IOException refused) {
                    Waiting.millis(50);
                }
            }
        });
    }

    private Deed edit(JsonNode version) {
        String id = Client.text(version, "id");
        List<String> done = edits.computeIfAbsent(id, fresh -> Collections.synchronizedList(new ArrayList<>()));
        int[] count = {0};
        return () -> {
            JsonNode now = client.get("/api/versions/" + id).required().json();
            String step = "edit " + ++count[0];
            client.put(
                            "/api/versions/" + id + "/recipe",
                            JsonMapper.shared()
                                    .writeValueAsString(Map.of(
                                            "lock", now.get("lock").asLong(),
                                            "step", step,
                                            "recipe", now.get("recipe"))))
                    .required();
            done.add(step);
        };
    }

    private Deed bringIn(int round) {
        int[] count = {0};
        return () -> {
            int width = 400 + 4 * count[0]++;
            shots.add(client.shot("photo.jpg", Photos.photo(width, 300 + round)));
            Waiting.millis(200);
        };
    }

    private Deed deliver(String shot, JsonNode version) {
        String wanted = JsonMapper.shared()
                .writeValueAsString(Map.of(
                        "versionName", "Trial", "recipe", version.get("recipe"), "format", "jpeg", "quality", 0.9));
        return () -> {
            deliveries.add(Client.text(
                    client.post("/api/shots/" + shot + "/deliveries", wanted)
                            .required()
                            .json(),
                    "id"));
            client.post("/api/shots/" + shot + "/depth-estimate", "{\"engine\":\"auto\",\"quality\":\"draft\"}");
            Waiting.millis(300);
        };
    }

    private void checkEdits(String version) throws IOException {
        Set<String> there = new HashSet<>();
        client.get("/api/versions/" + version)
                .required()
                .json()
                .get("history")
                .forEach(step -> there.add(Client.text(step, "name")));
        for (String step : edits.getOrDefault(version, List.of())) {
            if (!there.contains(step)) {
                faults.add(step + " of version " + version);
            }
        }
    }

    private Client.Answer get(String path) {
        try {
            return client.get(path);
        } catch (IOException fault) {
            throw new IllegalStateException(path, fault);
        }
    }

    private void require(String what, Supplier<Client.Answer> asked) {
        Client.Answer answer = asked.get();
        if (!answer.isGood()) {
            faults.add(what + " answered " + answer.status());
        }
    }

    private void awaitEnd() {
        long deadline = System.nanoTime() + TimeUnit.MINUTES.toNanos(MINUTES_TO_SETTLE);
        Set<String> open = new HashSet<>();
        shots.forEach(each -> open.add("/api/shots/" + each));
        deliveries.forEach(each -> open.add("/api/deliveries/" + each));
        while (!open.isEmpty() && System.nanoTime() < deadline) {
            open.removeIf(path -> {
                String state = Client.text(get(path).json(), "state");
                if (state.equals("failed")) {
                    faults.add(path + " failed: " + Client.text(get(path).json(), "problem"));
                }
                return Set.of("ready", "done", "failed").contains(state);
            });
            Waiting.millis(500);
        }
        open.forEach(path -> faults.add(path + " hangs"));
    }

    /** Each is there once, with a file that can be had. */
    private void checkDeliveries() throws IOException {
        for (String each : deliveries) {
            Client.Answer file = client.get("/api/deliveries/" + each + "/file");
            if (!file.isGood() || !Photos.isJpeg(file.body())) {
                faults.add("the file of delivery " + each + " answered " + file.status());
            }
        }
    }
}
