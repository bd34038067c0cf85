package app.yubble.bench.endure;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicIntegerArray;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Many people who all drag a value at once, each with a photo of their own; one of them asks for much more than a page does. */
final class PeopleTrial {
    private static final int LONG_SIDE = 960;
    /** A page asks for the next picture when it has the one before; this one is as many pages. */
    private static final int GREEDY = 12;

    private static final int NO_CONTENT = 204;

    private final Host host;

    PeopleTrial(Host host) {
        this.host = host;
    }

    /** What it came to: pictures for each person. */
    record Report(
            int people,
            long seconds,
            int slowest,
            int median,
            int greedy,
            Map<Integer, Integer> answers,
            List<String> faults) {
        boolean isFair() {
            return 2 * slowest >= median;
        }

        @Override
        public String toString() {
            return String.format(
                    Locale.ROOT,
                    "%d people for %d s: the slowest got %d pictures, the median %d, one who asked for more %d; answers %s%s",
                    people,
                    seconds,
                    slowest,
                    median,
                    greedy,
                    answers,
                    faults.isEmpty() ? "" : "; WRONG: " + String.join("; ", faults));
        }
    }

    private record Person(Client client, String shot, JsonNode recipe) {}

    Report run(int count, int seconds) throws IOException, InterruptedException {
        List<Person> people = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            people.add(person(i));
        }
        AtomicIntegerArray pictures = new AtomicIntegerArray(count);
        Map<Integer, Integer> answers = Collections.synchronizedMap(new TreeMap<>());
        List<String> faults = Collections.synchronizedList(new ArrayList<>());
        CountDownLatch begin = new CountDownLatch(1);
        long[] end = {0};
        List<Thread> hands = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            int number = i;
            for (int hand = 0; hand < (i == 0 ? GREEDY : 1); hand++) {
                // The greedy one says to be as many pages.
                String page = "page " + hand;
                hands.add(new Thread(() -> {
                    try {
                        begin.await();
                        long preview = 0;
                        while (System.nanoTime() < end[0]) {
                            preview++;
                            Client.Answer answer = previewed(people.get(number), page, preview);
                            answers.merge(answer.status(), 1, Integer::sum);
                            if (answer.isGood() && answer.status() != NO_CONTENT) {
                                pictures.incrementAndGet(number);
                            } else if (!answer.isGood()) {
                                faults.add(answer.status() + " " + answer.text());
                            }
                        }
                    } catch (IOException | InterruptedException fault) {
                        faults.add(fault.toString());
                    }
                }));
            }
        }
        hands.forEach(Thread::start);
        end[0] = System.nanoTime() + TimeUnit.SECONDS.toNanos(seconds);
        begin.countDown();
        for (Thread each : hands) {
            each.join();
        }
        int[] others = new int[count - 1];
        for (int i = 1; i < count; i++) {
            others[i - 1] = pictures.get(i);
        }
        Arrays.sort(others);
        return new Report(
                count,
                seconds,
                others[0],
                others[others.length / 2],
                pictures.get(0),
                answers,
                faults.subList(0, Math.min(5, faults.size())));
    }

    private Person person(int number) throws IOException {
        Client client = new Client(host.port()).signedUp("person" + number);
        String shot = client.shot("photo.jpg", Photos.photo(960 + number, 720));
        client.awaitReady(shot);
        JsonNode recipe = client.get("/api/shots/" + shot + "/versions")
                .required()
                .json()
                .get(0)
                .get("recipe");
        return new Person(client, shot, recipe);
    }

    /** With another aperture each time, so that the lens has to be rendered. */
    private static Client.Answer previewed(Person person, String page, long number) throws IOException {
        tools.jackson.databind.node.ObjectNode recipe =
                (tools.jackson.databind.node.ObjectNode) person.recipe().deepCopy();
        tools.jackson.databind.node.ObjectNode aperture =
                (tools.jackson.databind.node.ObjectNode) recipe.get("aperture");
        aperture.put("fNumber", 1.4 + number % 40 / 10.0);
        return person.client()
                .post(
                        "/api/shots/" + person.shot() + "/preview",
                        JsonMapper.shared()
                                .writeValueAsString(Map.of(
                                        "recipe", recipe, "longSide", LONG_SIDE, "page", page, "number", number)));
    }
}
