package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.yubble.server.jobs.Reconciler;
import app.yubble.server.storage.FileStore;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Timestamp;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.jobrunr.server.BackgroundJobServer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import tools.jackson.databind.JsonNode;

/** What was lost or damaged is noticed, said in plain words, and mended where that is possible. */
class FaultTest extends ServerTest {
    private static final byte[] CONTENT = "the quick brown engine of the fault test".getBytes(StandardCharsets.UTF_8);

    @Autowired
    private FileStore files;

    @Autowired
    private Reconciler reconciler;

    @Autowired
    private JdbcTemplate database;

    @Autowired
    private BackgroundJobServer workers;

    @ParameterizedTest
    @ValueSource(strings = {"cut", "changed", "missing"})
    void aDamagedFileIsNoticedWhenItIsReadAndMendedByStoringItAgain(String damage) throws IOException {
        byte[] content = (damage + new String(CONTENT, StandardCharsets.UTF_8)).getBytes(StandardCharsets.UTF_8);
        String hash = files.put(new ByteArrayInputStream(content)).hash();
        Path stored = files.local(hash);
        switch (damage) {
            case "cut" -> Files.write(stored, new byte[0]);
            case "changed" -> Files.write(stored, CONTENT);
            default -> Files.delete(stored);
        }

        assertThatThrownBy(() -> files.bytes(hash)).hasMessageContaining("bringing the same in again mends it");
        files.put(new ByteArrayInputStream(content));

        assertThat(files.bytes(hash)).isEqualTo(content);
    }

    @Test
    void aDeliveryOfADamagedPhotoSaysSoAndWorksOnceThePhotoIsBroughtInAgain() throws IOException {
        Browser browser = browser().signedUp("damaged");
        byte[] photo = photo(400, 300, "jpg");
        String shot = readyShot(browser, photo);
        String hash = database.queryForObject("select content_hash from shot where id = ?", String.class, shot);
        Files.write(files.local(hash), new byte[0]);

        JsonNode failed = delivered(browser, shot);
        assertThat(failed.get("state").asString()).isEqualTo("failed");
        assertThat(failed.get("problem").asString()).contains("damaged").contains("mends it");

        readyShot(browser, photo);
        String id = failed.get("id").asString();
        assertThat(browser.send("POST", "/api/deliveries/" + id + "/again", "").status())
                .isEqualTo(202);
        assertThat(over(browser, id).get("state").asString()).isEqualTo("done");
    }

    @Test
    void whatNobodyWorksOnAnyMoreIsBegunAgain() {
        Browser browser = browser().signedUp("forgotten");
        String shot = readyShot(browser, photo(400, 300, "jpg"));
        String delivery = delivered(browser, shot).get("id").asString();
        Timestamp longAgo = Timestamp.from(Instant.now().minus(Duration.ofMinutes(10)));
        database.update("update delivery set state = 'RENDERING', changed = ? where id = ?", longAgo, delivery);
        database.update("update shot set state = 'ESTIMATING', changed = ? where id = ?", longAgo, shot);

        assertThat(reconciler.reconcile(Instant.now().minus(Duration.ofMinutes(5))))
                .isEqualTo(2);

        assertThat(over(browser, delivery).get("state").asString()).isEqualTo("done");
        JsonNode ready = waitFor(
                () -> browser.get("/api/shots/" + shot).json(),
                seen -> seen.get("state").asString().equals("ready"));
        assertThat(ready.get("id").asString()).isEqualTo(shot);
        assertThat(reconciler.reconcile(Instant.now().minus(Duration.ofMinutes(5))))
                .isZero();
    }

    @Test
    void whatStopsTheServerAgainAndAgainIsGivenUpAndSaysSo() {
        Browser browser = browser().signedUp("poisoned");
        String shot = readyShot(browser, photo(420, 300, "jpg"));
        String delivery = delivered(browser, shot).get("id").asString();
        Timestamp longAgo = Timestamp.from(Instant.now().minus(Duration.ofHours(3)));
        database.update(
                "update delivery set state = 'RENDERING', created = ?, changed = ? where id = ?",
                longAgo,
                longAgo,
                delivery);

        assertThat(reconciler.reconcile(Instant.now().minus(Duration.ofMinutes(5))))
                .isZero();

        JsonNode failed = over(browser, delivery);
        assertThat(failed.get("state").asString()).isEqualTo("failed");
        assertThat(failed.get("problem").asString()).contains("stopped over this");
    }

    @Test
    void workersThatGaveUpAreStartedAgain() {
        Browser browser = browser().signedUp("workless");
        workers.stop();
        assertThat(workers.isRunning()).isFalse();

        reconciler.look();

        assertThat(readyShot(browser, photo(410, 300, "jpg"))).isNotEmpty();
    }

    @Test
    void ofTwoWhoTakeANameAtOnceOneIsTold() throws Exception {
        ExecutorService both = Executors.newFixedThreadPool(2);
        try {
            for (int round = 0; round < 5; round++) {
                String account = "{\"name\":\"twin" + round + "\",\"password\":\"long enough for twins\"}";
                Callable<Integer> signUp = () -> {
                    Browser browser = browser();
                    browser.get("/api/session");
                    return browser.send("POST", "/api/accounts", account).status();
                };
                List<Future<Integer>> answers = both.invokeAll(List.of(signUp, signUp));
                assertThat(List.of(answers.get(0).get(), answers.get(1).get())).containsExactlyInAnyOrder(204, 409);
            }
        } finally {
            both.shutdown();
        }
    }

    private static JsonNode delivered(Browser browser, String shot) {
        JsonNode recipe =
                browser.get("/api/shots/" + shot + "/versions").json().get(0).get("recipe");
        JsonNode asked = browser.send(
                        "POST",
                        "/api/shots/" + shot + "/deliveries",
                        "{\"versionName\":\"First\",\"format\":\"jpeg\",\"quality\":0.92,\"longestSide\":null,\"recipe\":"
                                + recipe + "}")
                .json();
        return over(browser, asked.get("id").asString());
    }

    private static JsonNode over(Browser browser, String id) {
        return waitFor(
                () -> browser.get("/api/deliveries/" + id).json(),
                seen -> List.of("done", "failed", "cancelled")
                        .contains(seen.get("state").asString()));
    }
}
