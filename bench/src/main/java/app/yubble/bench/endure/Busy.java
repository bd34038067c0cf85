package app.yubble.bench.endure;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Somebody who edits, brings photos in, has depth estimated and deliveries made, whatever happens to the server meanwhile. Whatever was
 * answered with success has to be there afterwards, and everything has to come to an end.
 */
final class Busy {
    /** A job whose node is gone is noticed after the workers' own time, or when the server looks for what nobody works on. */
    private static final long MINUTES_TO_SETTLE = 5;

    private static final int TRIES = 30;

    private final Client client;
    private final int rest;
    private final Map<String, List<String>> edits = new ConcurrentHashMap<>();
    private final Set<String> shots = ConcurrentHashMap.newKeySet();
    private final Set<String> deliveries = ConcurrentHashMap.newKeySet();
    private final AtomicInteger asked = new AtomicInteger();
    private final List<String> faults = Collections.synchronizedList(new ArrayList<>());

    private List<Thread> workers = List.of();
    private String edited = "";
    private volatile boolean over;

    /** @param rest milliseconds between two deeds of a kind */
    Busy(Client client, int rest) {
        this.client = client;
        this.rest = rest;
    }

    /** What was acknowledged. */
    record Done(int edits, int photos, int deliveries) {
        @Override
        public String toString() {
            return edits + " edits, " + photos + " photos, " + deliveries + " deliveries";
        }
    }

    Done done() {
        return new Done(edits.values().stream().mapToInt(List::size).sum(), shots.size(), deliveries.size());
    }

    List<String> faults() {
        return List.copyOf(faults);
    }

    /** Brings in a photo of that size to edit and deliver, and goes on with all of it until it is told to stop. */
    void begin(int width, int height) throws IOException {
        String shot = broughtIn(Photos.photo(width, height));
        shots.add(shot);
        client.awaitReady(shot);
        JsonNode version =
                client.get("/api/shots/" + shot + "/versions").required().json().get(0);
        edited = Client.text(version, "id");
        over = false;
        workers = List.of(
                worker(() -> edit(version)), worker(() -> bringIn(width)), worker(() -> deliver(shot, version)));
        workers.forEach(Thread::start);
    }

    /** As a person would, tries again while the server is not quite there. */
    private String broughtIn(byte[] photo) throws IOException {
        for (int tries = 1; ; tries++) {
            try {
                return client.shot("edited.jpg", photo);
            } catch (IOException away) {
                if (tries == TRIES) {
                    throw away;
                }
                Waiting.millis(1000);
            }
        }
    }

    /** Nothing new is begun; answers that are still under way are those of a server that is in trouble. */
    void pause() {
        over = true;
    }

    /** Waits for the last answers, and looks whether what was acknowledged is there. */
    void end() throws IOException, InterruptedException {
        over = true;
        for (Thread each : workers) {
            each.join();
        }
        checkEdits(edited);
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
                    Waiting.millis(rest);
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
            shots.add(client.shot("photo.jpg", Photos.photo(width, 300 + round % 300)));
        };
    }

    private Deed deliver(String shot, JsonNode version) {
        return () -> {
            String name = "Trial " + asked.incrementAndGet();
            String wanted = JsonMapper.shared()
                    .writeValueAsString(Map.of(
                            "versionName", name, "recipe", version.get("recipe"), "format", "jpeg", "quality", 0.9));
            String id = Client.text(
                    client.post("/api/shots/" + shot + "/deliveries", wanted)
                            .required()
                            .json(),
                    "id");
            deliveries.add(id);
            client.post("/api/shots/" + shot + "/depth-estimate", "{\"engine\":\"auto\",\"quality\":\"draft\"}");
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

    /** Until all that was begun is done, which is looked at; gives the seconds it took. */
    long settle() throws IOException {
        long start = System.nanoTime();
        awaitEnd();
        checkDeliveries();
        return TimeUnit.NANOSECONDS.toSeconds(System.nanoTime() - start);
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
