package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.server.storage.FileStore;
import app.yubble.server.storage.Sweep;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import tools.jackson.databind.JsonNode;

/** What is deleted is gone, and nothing else is. */
class GoneTest extends ServerTest {
    @Autowired
    private Sweep sweep;

    @Autowired
    private FileStore files;

    @Autowired
    private JdbcTemplate database;

    private String content(String shot) {
        return database.queryForObject("select content_hash from shot where id = ?", String.class, shot);
    }

    /** Sweeps as if {@code since} had gone by; files without a name are noted by the first and removed by the second. */
    private int sweptTwice(Duration since) throws IOException {
        sweep.sweep(Instant.now().plus(since));
        return sweep.sweep(Instant.now().plus(since));
    }

    private static void makeAllOld() throws IOException {
        try (Stream<Path> all = Files.walk(DATA.resolve("files"))) {
            for (Path each : all.filter(Files::isRegularFile).toList()) {
                Files.setLastModifiedTime(each, FileTime.from(Instant.now().minus(Duration.ofDays(3))));
            }
        }
    }

    private static boolean isGood(Browser browser, String shot) {
        JsonNode recipe =
                browser.get("/api/shots/" + shot + "/versions").json().get(0).get("recipe");
        String wanted = "{\"recipe\":" + recipe + ",\"longSide\":320,\"page\":\"gone\",\"number\":1}";
        return browser.get("/api/shots/" + shot + "/thumbnail").status() == 200
                && browser.send("POST", "/api/shots/" + shot + "/preview", wanted)
                                .status()
                        == 200;
    }

    @Test
    void whatABrokenOffRunLeftGoesAfterADay() throws IOException {
        Path old = Files.createDirectories(DATA.resolve("work/depth-old/maps"));
        Path young = Files.createDirectories(DATA.resolve("work/depth-young"));
        Files.writeString(old.resolve("1"), "a map");
        for (Path each : new Path[] {old.resolve("1"), old, old.getParent()}) {
            Files.setLastModifiedTime(each, FileTime.from(Instant.now().minus(Duration.ofDays(2))));
        }

        sweep.removeOldWork(Instant.now().minus(Duration.ofDays(1)));

        assertThat(old.getParent()).doesNotExist();
        assertThat(young).exists();
    }

    @Test
    void filesOfADeletedShotGoAndThoseOfOthersStay() throws IOException {
        Browser browser = browser().signedUp("tidy");
        String going = readyShot(browser, photo(410, 310, "jpg"));
        String staying = readyShot(browser, photo(420, 310, "jpg"));
        String hash = content(going);
        sweptTwice(Duration.ofSeconds(5));
        assertThat(isGood(browser, going)).isTrue();

        browser.send("DELETE", "/api/shots/" + going, "");

        assertThat(sweep.sweep(Instant.now().plusSeconds(5))).isZero();
        assertThat(files.length(hash)).isPositive();
        assertThat(sweep.sweep(Instant.now().plusSeconds(5))).isPositive();
        assertThat(files.local(hash)).doesNotExist();
        assertThat(isGood(browser, staying)).isTrue();
    }

    @Test
    void whatWasStoredOrNamedAMomentAgoIsNotSwept() throws IOException {
        String hash =
                files.put(new ByteArrayInputStream("a moment ago".getBytes())).hash();
        sweep.sweep(Instant.now().plusSeconds(5));
        // Without a name for a moment only.
        sweep.sweep(Instant.now().minusSeconds(60));
        assertThat(files.local(hash)).exists();
        makeAllOld();
        sweep.sweep(Instant.now().minusSeconds(60));
        sweep.sweep(Instant.now().minusSeconds(60));
        assertThat(files.local(hash)).exists();
    }

    @Test
    void whatADeadServerLeftHalfWrittenIsSwept() throws IOException {
        Path partial = files.incoming();
        Files.write(partial, new byte[1000]);
        sweep.sweep(Instant.now().minusSeconds(3600));
        assertThat(partial).exists();
        sweep.sweep(Instant.now().plusSeconds(5));
        assertThat(partial).doesNotExist();
        // It died while it removed this one, which somebody needs.
        String hash = files.put(new ByteArrayInputStream("needed".getBytes())).hash();
        Path stored = files.local(hash);
        Files.move(stored, stored.resolveSibling(hash + ".gone"));
        sweep.sweep(Instant.now().plusSeconds(5));
        assertThat(stored).exists();
    }

    @Test
    void anAccountEndsWithAllThatOnlyItHas() throws IOException {
        Browser browser = browser().signedUp("leaver");
        Browser other = browser().signedUp("stayer");
        String own = readyShot(browser, photo(430, 310, "jpg"));
        String shared = readyShot(browser, photo(440, 310, "jpg"));
        String theirs = readyShot(other, photo(440, 310, "jpg"));
        String hash = content(own);
        assertThat(content(shared)).isEqualTo(content(theirs));
        makeAllOld();

        assertThat(browser.send("POST", "/api/account/end", "{\"password\":\"not this one\"}")
                        .status())
                .isEqualTo(422);
        assertThat(browser.get("/api/shots/" + own).status()).isEqualTo(200);
        assertThat(browser.send("POST", "/api/account/end", "{\"password\":\"long enough for leaver\"}")
                        .status())
                .isEqualTo(204);

        assertThat(browser.get("/api/shoots").status()).isEqualTo(401);
        assertThat(files.local(hash)).doesNotExist();
        assertThat(isGood(other, theirs)).isTrue();
        browser.get("/api/session");
        assertThat(browser.form("/api/session", "name=leaver&password=long+enough+for+leaver")
                        .status())
                .isEqualTo(401);
        assertThat(browser.signedUp("leaver").get("/api/shoots").json().get("items"))
                .isEmpty();
    }

    private static Map<String, byte[]> unpacked(byte[] zip) throws IOException {
        Map<String, byte[]> out = new TreeMap<>();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip))) {
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                out.put(entry.getName(), in.readAllBytes());
            }
        }
        return out;
    }

    @Test
    void everythingOfAnAccountCanBeTakenAlong() throws IOException {
        Browser browser = browser().signedUp("collector");
        byte[] photo = photo(450, 310, "jpg");
        String shot = readyShot(browser, photo);
        readyShot(browser, photo(460, 310, "jpg"));
        readyShot(browser().signedUp("secret"), photo(470, 310, "jpg"));
        String damaged = content(shot);

        Browser.Answer answer = browser.get("/api/account/everything");

        Map<String, byte[]> all = unpacked(answer.body());
        assertThat(all.keySet())
                .containsExactlyInAnyOrder(
                        "Open day/photo.jpg",
                        "Open day/photo (2).jpg",
                        "Open day/photo - depth estimated.png",
                        "Open day/photo - depth estimated (2).png",
                        "Open day/photo - First.json",
                        "Open day/photo - First (2).json");
        assertThat(all.get("Open day/photo.jpg")).isEqualTo(photo);

        Files.write(files.local(damaged), new byte[0]);
        assertThat(new String(
                        unpacked(browser.get("/api/account/everything").body()).get("damaged.txt")))
                .contains("Open day/photo.jpg");
    }
}
