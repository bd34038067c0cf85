package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.server.storage.Sweep;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Clips from coming in to being delivered. */
class ClipShotTest extends ServerTest {
    @TempDir
    static Path folder;

    private static byte[] film;

    @Autowired
    private JdbcTemplate database;

    @Autowired
    private Sweep sweep;

    @BeforeAll
    static void makeFilm() throws IOException {
        film = Files.readAllBytes(
                ffmpeg(
                        folder.resolve("film.mp4"),
                        "-f lavfi -i testsrc2=size=320x180:rate=24:duration=1.5 -f lavfi -i sine=frequency=330:duration=1.5"
                                + " -c:v libx264 -g 12 -colorspace bt709 -color_primaries bt709 -color_trc bt709 -c:a aac OUT"));
    }

    private static byte[] run(String... command) {
        try {
            Process process =
                    new ProcessBuilder(command).redirectErrorStream(false).start();
            byte[] out = process.getInputStream().readAllBytes();
            assertThat(process.waitFor()).as(String.join(" ", command)).isZero();
            return out;
        } catch (IOException fault) {
            throw new UncheckedIOException(fault);
        } catch (InterruptedException stopped) {
            throw new IllegalStateException(stopped);
        }
    }

    static Path ffmpeg(Path out, String arguments) {
        List<String> command = new ArrayList<>(List.of("ffmpeg", "-v", "quiet", "-nostdin", "-y"));
        Arrays.stream(arguments.split(" "))
                .map(each -> each.equals("OUT") ? out.toString() : each)
                .forEach(command::add);
        run(command.toArray(String[]::new));
        return out;
    }

    static Browser.Answer bringIn(Browser browser, String shoot, String name, byte[] content) {
        String path = "/api/shoots/" + shoot + "/clips?name=" + URLEncoder.encode(name, StandardCharsets.UTF_8);
        return browser.sendAs("application/octet-stream", path, content);
    }

    private static String readyClip(Browser browser) {
        Browser.Answer answer = bringIn(browser, newShoot(browser), "film.mp4", film);
        assertThat(answer.status()).as(answer.text()).isEqualTo(201);
        String id = answer.json().get("id").asString();
        waitFor(() -> browser.get("/api/shots/" + id).json(), shot -> {
            assertThat(shot.get("state").asString()).as(shot.toString()).isNotEqualTo("failed");
            return shot.get("state").asString().equals("ready");
        });
        return id;
    }

    static JsonNode version(Browser browser, String shot) {
        return browser.get("/api/shots/" + shot + "/versions").json().get(0);
    }

    /** A recipe whose band is pulled from one end of the clip to the other. */
    private static ObjectNode pulled(Browser browser, String shot, double last) {
        ObjectNode recipe = (ObjectNode) version(browser, shot).get("recipe").deepCopy();
        ObjectNode marks = (ObjectNode) recipe.get("marks");
        marks.putArray("band")
                .addObject()
                .put("at", 0)
                .put("ease", "straight")
                .put("near", 0.9)
                .put("far", 0.8);
        ((tools.jackson.databind.node.ArrayNode) marks.get("band"))
                .addObject()
                .put("at", last)
                .put("near", 0.3)
                .put("far", 0.2);
        return recipe;
    }

    static JsonNode finished(Browser browser, String id) {
        return waitFor(
                () -> browser.get("/api/deliveries/" + id).json(),
                each -> !List.of("waiting", "rendering")
                        .contains(each.get("state").asString()));
    }

    static String deliver(Browser browser, String shot, JsonNode recipe, String format, String frames) {
        Browser.Answer answer = browser.send(
                "POST",
                "/api/shots/" + shot + "/deliveries",
                "{\"versionName\":\"First\",\"format\":\"" + format
                        + "\",\"quality\":0.9,\"longestSide\":null,\"frames\":" + frames + ",\"recipe\":" + recipe
                        + "}");
        assertThat(answer.status()).as(answer.text()).isEqualTo(202);
        return answer.json().get("id").asString();
    }

    @Test
    void sweepsLeaveWhatAClipsDepthConsistsOf() throws IOException {
        Browser browser = browser().signedUp("cutter");
        String shot = readyClip(browser);
        sweep.sweep(Instant.now().plusSeconds(5));
        sweep.sweep(Instant.now().plusSeconds(5));
        JsonNode recipe = version(browser, shot).get("recipe");
        String id = deliver(browser, shot, recipe, "mp4", "{\"from\":0,\"end\":6}");
        assertThat(finished(browser, id).get("state").asString()).isEqualTo("done");
        assertThat(database.queryForObject("select count(*) from stretch where shot_id = ?", Integer.class, shot))
                .isPositive();
        browser.send("DELETE", "/api/shots/" + shot, "");
        assertThat(database.queryForObject("select count(*) from stretch where shot_id = ?", Integer.class, shot))
                .isZero();
    }

    @Test
    void aClipIsReadAndGetsDepthAndAFirstVersion() {
        Browser browser = browser().signedUp("clipreader");
        String shot = readyClip(browser);
        JsonNode view = browser.get("/api/shots/" + shot).json();
        assertThat(view.get("format").asString()).isEqualTo("MP4");
        assertThat(view.get("clip").get("frames").asInt()).isEqualTo(36);
        JsonNode clip = browser.get("/api/shots/" + shot + "/clip").json();
        assertThat(clip.get("micros")).hasSize(36);
        assertThat(clip.get("micros").get(12).asLong()).isEqualTo(500_000);
        assertThat(clip.get("lasts").asLong()).isCloseTo(1_500_000, within(1L));
        assertThat(clip.get("sound").asBoolean()).isTrue();
        assertThat(browser.get("/api/shots/" + shot + "/clip-depth").json().get("packs"))
                .hasSize(2);
        assertThat(version(browser, shot).get("history").size()).isLessThanOrEqualTo(2);
        assertThat(browser.get("/api/shots/" + shot + "/strip").raw().headers().firstValue("content-type"))
                .hasValue("image/jpeg");
        assertThat(browser.get("/api/shots/" + shot + "/thumbnail").status()).isEqualTo(200);
        assertThat(browser.get("/api/shots/" + shot + "/small-film")
                        .raw()
                        .headers()
                        .firstValue("accept-ranges"))
                .hasValue("bytes");
    }

    @Test
    void eachMomentHasItsOwnPictureAndBand() {
        Browser browser = browser().signedUp("clipmoments");
        String shot = readyClip(browser);
        ObjectNode recipe = pulled(browser, shot, 1.0);
        byte[] first = preview(browser, shot, recipe, 0);
        byte[] later = preview(browser, shot, recipe, 24);
        assertThat(first).isNotEqualTo(later);
        assertThat(browser.get("/api/shots/" + shot + "/photo?longSide=320&frame=5")
                        .body())
                .isNotEqualTo(browser.get("/api/shots/" + shot + "/photo?longSide=320&frame=6")
                        .body());
        assertThat(browser.get("/api/shots/" + shot + "/photo?longSide=320&frame=36")
                        .status())
                .isEqualTo(404);
    }

    static byte[] preview(Browser browser, String shot, JsonNode recipe, int frame) {
        Browser.Answer answer = browser.send(
                "POST",
                "/api/shots/" + shot + "/preview",
                "{\"recipe\":" + recipe + ",\"longSide\":320,\"page\":\"p" + frame + "\",\"number\":1,\"frame\":"
                        + frame + "}");
        assertThat(answer.status()).as(answer.text()).isEqualTo(200);
        return answer.body();
    }

    @Test
    void aDeliveredClipHasAllFramesAtTheirTimesAndItsSound() throws IOException {
        Browser browser = browser().signedUp("clipdeliver");
        String shot = readyClip(browser);
        String id = deliver(browser, shot, pulled(browser, shot, 1.2), "mp4", "null");
        JsonNode done = finished(browser, id);
        assertThat(done.get("state").asString()).as(done.toString()).isEqualTo("done");
        assertThat(done.get("fileName").asString()).isEqualTo("film - First.mp4");
        Path out = folder.resolve("out.mp4");
        Files.write(out, browser.get("/api/deliveries/" + id + "/file").body());
        Path in = folder.resolve("film.mp4");
        assertThat(timesOf(out)).hasSize(36).isEqualTo(timesOf(in));
        assertThat(soundOf(out)).isNotEmpty().isEqualTo(soundOf(in));
    }

    private static List<String> timesOf(Path file) {
        byte[] told = run(
                "ffprobe",
                "-v",
                "quiet",
                "-select_streams",
                "v:0",
                "-show_entries",
                "frame=pts_time",
                "-of",
                "csv=p=0",
                file.toString());
        return new String(told, StandardCharsets.UTF_8)
                .lines()
                .map(line -> line.replace(",", ""))
                .filter(line -> !line.isEmpty())
                .toList();
    }

    private static byte[] soundOf(Path file) {
        return run("ffmpeg", "-v", "quiet", "-i", file.toString(), "-map", "0:a", "-c", "copy", "-f", "adts", "-");
    }

    @Test
    void aPartIsDeliveredAsPicturesInAZip() throws IOException {
        Browser browser = browser().signedUp("clipframes");
        String shot = readyClip(browser);
        String id =
                deliver(browser, shot, version(browser, shot).get("recipe"), "png-frames", "{\"from\":20,\"end\":30}");
        assertThat(finished(browser, id).get("state").asString()).isEqualTo("done");
        List<String> names = new ArrayList<>();
        try (var zip = new java.util.zip.ZipInputStream(new java.io.ByteArrayInputStream(
                browser.get("/api/deliveries/" + id + "/file").body()))) {
            for (var each = zip.getNextEntry(); each != null; each = zip.getNextEntry()) {
                names.add(each.getName());
                assertThat(javax.imageio.ImageIO.read(zip).getWidth()).isEqualTo(320);
            }
        }
        assertThat(names).hasSize(10).startsWith("frame-0001.png").endsWith("frame-0010.png");
    }

    @Test
    void onlyStretchesThatAMovedMarkChangesAreRenderedAgain() {
        Browser browser = browser().signedUp("clipplay");
        String shot = readyClip(browser);
        ObjectNode recipe = pulled(browser, shot, 0.5);
        int before = stretches();
        played(browser, shot, recipe);
        assertThat(stretches()).isEqualTo(before + 2);
        // Behind the first second, so that the first stretch stays.
        ((tools.jackson.databind.node.ArrayNode) recipe.get("marks").get("band"))
                .addObject()
                .put("at", 1.25)
                .put("near", 0.3)
                .put("far", 0.2);
        played(browser, shot, recipe);
        assertThat(stretches()).as("the same values, so nothing is new").isEqualTo(before + 2);
        ((ObjectNode) recipe.get("marks").get("band").get(2)).put("near", 0.5);
        ((ObjectNode) recipe.get("marks").get("band").get(1)).put("at", 0.99).put("ease", "straight");
        played(browser, shot, recipe);
        assertThat(browser.get("/api/deliveries").json().get("items"))
                .as("films to play are no deliveries")
                .isEmpty();
    }

    @Test
    void aStretchWhoseNodeIsLostIsRenderedByAnother() {
        Browser browser = browser().signedUp("cliplost");
        String shot = readyClip(browser);
        ObjectNode recipe = pulled(browser, shot, 1.4);
        int before = stretches();
        played(browser, shot, recipe);
        String lost = database.queryForObject("select name from stretch order by created desc limit 1", String.class);
        database.update("delete from stretch where name = ?", lost);
        database.update("insert into stretch_taken (name, until) values (?, now(6) + interval 2 second)", lost);
        played(browser, shot, recipe);
        assertThat(stretches()).isEqualTo(before + 2);
        assertThat(database.queryForObject("select count(*) from stretch_taken", Integer.class))
                .isZero();
    }

    private int stretches() {
        Integer count = database.queryForObject("select count(*) from stretch", Integer.class);
        return count == null ? 0 : count;
    }

    private static void played(Browser browser, String shot, JsonNode recipe) {
        Browser.Answer answer = browser.send(
                "POST",
                "/api/shots/" + shot + "/playing",
                "{\"recipe\":" + recipe + ",\"frames\":{\"from\":0,\"end\":36},\"longSide\":160,\"quality\":0.7}");
        assertThat(answer.status()).as(answer.text()).isEqualTo(202);
        JsonNode done = finished(browser, answer.json().get("id").asString());
        assertThat(done.get("state").asString()).as(done.toString()).isEqualTo("done");
    }

    @Test
    void aCancelledDeliveryStopsAtOnce() {
        Browser browser = browser().signedUp("clipcancel");
        String shot = readyClip(browser);
        String id = deliver(browser, shot, version(browser, shot).get("recipe"), "ffv1", "null");
        assertThat(browser.send("POST", "/api/deliveries/" + id + "/cancel", "{}")
                        .status())
                .isEqualTo(204);
        assertThat(finished(browser, id).get("state").asString()).isEqualTo("cancelled");
        assertThat(browser.get("/api/deliveries/" + id + "/file").status()).isEqualTo(409);
    }

    @Test
    void whatDoesNotFitIsRefusedWithTheReason() {
        Browser browser = browser().signedUp("cliprefused");
        String shoot = newShoot(browser);
        assertRefused(
                bringIn(browser, shoot, "notes.mp4", "Not a clip at all, but notes.".getBytes(StandardCharsets.UTF_8)),
                "notes.mp4: it is no clip");
        assertRefused(bringIn(browser, shoot, "large.mp4", new byte[3_100_000]), "large.mp4 is larger than the 2 MB");
        Path longer = ffmpeg(
                folder.resolve("long.mp4"), "-f lavfi -i color=gray:size=64x64:rate=1:duration=20 -c:v libx264 OUT");
        assertRefused(
                bringIn(browser, shoot, "long.mp4", read(longer)), "long.mp4 is 20 seconds long; a clip may have 10");
        assertThat(browser.get("/api/shoots/" + shoot + "/shots").json().get("items"))
                .isEmpty();

        String shot = readyClip(browser);
        JsonNode version = version(browser, shot);
        assertRefused(
                browser.send(
                        "PUT",
                        "/api/versions/" + version.get("id").asString() + "/recipe",
                        "{\"lock\":" + version.get("lock") + ",\"step\":\"Mark\",\"recipe\":" + pulled(browser, shot, 7)
                                + "}"),
                "lies at 7.0 s, but the clip is only 1.5 s long");
        Browser.Answer photo = browser.send(
                "POST",
                "/api/shots/" + shot + "/deliveries",
                "{\"versionName\":\"First\",\"format\":\"jpeg\",\"quality\":0.9,\"longestSide\":null,\"frames\":null,\"recipe\":"
                        + version.get("recipe") + "}");
        assertRefused(photo, "A clip is delivered as a film");
        Browser.Answer outside = browser.send(
                "POST",
                "/api/shots/" + shot + "/deliveries",
                "{\"versionName\":\"First\",\"format\":\"mp4\",\"quality\":0.9,\"longestSide\":null,"
                        + "\"frames\":{\"from\":30,\"end\":90},\"recipe\":" + version.get("recipe") + "}");
        assertRefused(outside, "The clip has frames 0 to 35");
    }

    private static byte[] read(Path file) {
        try {
            return Files.readAllBytes(file);
        } catch (IOException fault) {
            throw new UncheckedIOException(fault);
        }
    }

    static void assertRefused(Browser.Answer answer, String reason) {
        assertThat(answer.status()).as(answer.text()).isEqualTo(422);
        assertThat(answer.json().get("detail").asString()).contains(reason);
    }

    static JsonNode broughtIn(Browser browser, String shot, String name, Path depth) {
        Browser.Answer answer = browser.sendAs(
                "application/octet-stream", "/api/shots/" + shot + "/depth-clip?name=" + name, read(depth));
        assertThat(answer.status()).as(answer.text()).isEqualTo(202);
        return waitFor(
                () -> browser.get("/api/shots/" + shot).json(),
                each -> each.get("state").asString().equals("ready"));
    }

    @Test
    void depthOfEveryFrameComesInAndGoesOut() throws IOException {
        Browser browser = browser().signedUp("clipdepth");
        String shot = readyClip(browser);
        Path shorter = ffmpeg(
                folder.resolve("short.mkv"),
                "-f lavfi -i testsrc2=size=320x180:rate=24:duration=1 -pix_fmt gray16le -c:v ffv1 OUT");
        assertThat(broughtIn(browser, shot, "short.mkv", shorter).get("problem").asString())
                .isEqualTo("short.mkv: the depth clip has 24 frames, the clip has 36 frames; they must be as many");
        Path depth = ffmpeg(
                folder.resolve("depth.mkv"),
                "-f lavfi -i testsrc2=size=160x90:rate=24:duration=1.5 -pix_fmt gray16le -c:v ffv1 OUT");
        JsonNode view = broughtIn(browser, shot, "depth.mkv", depth);
        assertThat(view.get("problem").isNull()).isTrue();
        List<String> sources = new ArrayList<>();
        view.get("depths").forEach(each -> sources.add(each.get("source").asString()));
        assertThat(sources).containsExactlyInAnyOrder("estimated", "file");

        ObjectNode recipe = (ObjectNode) version(browser, shot).get("recipe").deepCopy();
        ((ObjectNode) recipe.get("depth")).put("source", "file").put("snap", 0);
        String id = deliver(browser, shot, recipe, "depth-ffv1", "null");
        assertThat(finished(browser, id).get("state").asString()).isEqualTo("done");
        Path out = folder.resolve("out.mkv");
        Files.write(out, browser.get("/api/deliveries/" + id + "/file").body());
        byte[] before = run(
                "ffmpeg",
                "-v",
                "quiet",
                "-i",
                depth.toString(),
                "-vf",
                "scale=320:180:flags=neighbor",
                "-pix_fmt",
                "gray16le",
                "-f",
                "rawvideo",
                "-");
        byte[] after =
                run("ffmpeg", "-v", "quiet", "-i", out.toString(), "-pix_fmt", "gray16le", "-f", "rawvideo", "-");
        assertThat(after).hasSameSizeAs(before);
        // Stored with twelve bits.
        int worst = 0;
        for (int i = 1; i < before.length; i += 2) {
            worst = Math.max(worst, Math.abs((before[i] & 0xff) - (after[i] & 0xff)));
        }
        assertThat(worst).isLessThanOrEqualTo(1);
    }

    @Test
    void aDeliveryKeepsTheDepthThatItWasAskedWith() {
        Browser browser = browser().signedUp("clipkeeps");
        String shot = readyClip(browser);
        String id = deliver(browser, shot, version(browser, shot).get("recipe"), "mp4", "null");
        Browser.Answer again = browser.send(
                "POST", "/api/shots/" + shot + "/depth-estimate", "{\"engine\":\"ramp\",\"quality\":\"best\"}");
        assertThat(again.status()).isEqualTo(202);
        JsonNode done = finished(browser, id);
        assertThat(done.get("state").asString()).as(done.toString()).isEqualTo("done");
        waitFor(
                () -> browser.get("/api/shots/" + shot).json(),
                each -> each.get("state").asString().equals("ready"));
    }

    @Test
    void marksAreCopiedToAClipThatIsLongEnoughAndToNoPhoto() {
        Browser browser = browser().signedUp("clipcopies");
        String from = readyClip(browser);
        String to = readyClip(browser);
        String photo = readyShot(browser, photo(320, 180, "jpg"));
        JsonNode version = version(browser, from);
        ObjectNode recipe = pulled(browser, from, 1.25);
        var touchups = recipe.putArray("touchups");
        touchups.addObject()
                .put("id", "k")
                .putArray("kept")
                .addObject()
                .put("at", 1)
                .put("by", "box");
        touchups.addObject().put("id", "p").put("inverted", true);
        String id = version.get("id").asString();
        assertThat(browser.send(
                                "PUT",
                                "/api/versions/" + id + "/recipe",
                                "{\"lock\":" + version.get("lock") + ",\"step\":\"Pull\",\"recipe\":" + recipe + "}")
                        .status())
                .isEqualTo(200);
        Browser.Answer copied = browser.send(
                "POST",
                "/api/versions/" + id + "/copy",
                "{\"parts\":[\"band\",\"touchups\"],\"shots\":[\"" + to + "\",\"" + photo + "\"]}");
        assertThat(copied.json().get("changed").asInt()).isEqualTo(2);
        JsonNode clip = version(browser, to).get("recipe");
        assertThat(clip.get("marks").get("band")).hasSize(2);
        JsonNode still = version(browser, photo).get("recipe");
        assertThat(still.get("marks").get("band")).isEmpty();
        assertThat(clip.get("touchups")).hasSize(2);
        assertThat(still.get("touchups")).hasSize(1);
        assertThat(still.get("band").get("near").asDouble())
                .as("as at the first moment")
                .isEqualTo(0.9);
    }

    @Test
    void nobodyElseSeesAClip() {
        Browser owner = browser().signedUp("clipowner");
        String shot = readyClip(owner);
        String shoot = owner.get("/api/shots/" + shot).json().get("shootId").asString();
        Browser other = browser().signedUp("clipstranger");
        for (String what : List.of("clip", "clip-depth", "strip", "small-film", "photo?longSide=320&frame=3")) {
            assertThat(other.get("/api/shots/" + shot + "/" + what).status())
                    .as(what)
                    .isEqualTo(404);
        }
        assertThat(bringIn(other, shoot, "film.mp4", film).status()).isEqualTo(404);
        assertThat(bringIn(browser(), shoot, "film.mp4", film).status()).isIn(401, 403, 411, 413);
        String id = deliver(owner, shot, version(owner, shot).get("recipe"), "vp9", "{\"from\":0,\"end\":4}");
        assertThat(other.get("/api/deliveries/" + id).status()).isEqualTo(404);
        assertThat(finished(owner, id).get("state").asString()).isEqualTo("done");
    }
}
