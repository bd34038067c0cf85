package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.picture.DecodedPicture;
import app.yubble.media.picture.PictureReader;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import java.io.BufferedReader;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.JsonNode;

class DeliveryTest extends ServerTest {
    @Autowired
    private Shots shots;

    @Autowired
    private TransactionTemplate transaction;

    private static JsonNode ask(Browser browser, String shot, String format, String longest) {
        JsonNode recipe =
                browser.get("/api/shots/" + shot + "/versions").json().get(0).get("recipe");
        Browser.Answer answer = browser.send(
                "POST",
                "/api/shots/" + shot + "/deliveries",
                "{\"versionName\":\"First\",\"format\":\"" + format + "\",\"quality\":0.92,\"longestSide\":" + longest
                        + ",\"recipe\":" + recipe + "}");
        assertThat(answer.status()).isEqualTo(202);
        return answer.json();
    }

    private static JsonNode finished(Browser browser, String id) {
        return waitFor(
                        () -> browser.get("/api/deliveries").json().get("items"),
                        all -> !List.of("waiting", "rendering").contains(state(all, id)))
                .get(0);
    }

    private static String state(JsonNode all, String id) {
        for (JsonNode each : all) {
            if (each.get("id").asString().equals(id)) {
                return each.get("state").asString();
            }
        }
        return "gone";
    }

    @ParameterizedTest
    @CsvSource({
        "jpeg,null,640,image/jpeg,jpg",
        "jpeg-depth,null,640,image/jpeg,jpg",
        "png16,320,320,image/png,png",
        "tiff16,null,640,image/tiff,tif",
        "tiff8,320,320,image/tiff,tif",
        "tiff-pages,320,320,image/tiff,tif",
        "depth-png16,null,640,image/png,png",
        "webp,320,320,image/webp,webp",
        "avif,320,320,image/avif,avif"
    })
    void aDeliveryBecomesAFileOfItsFormatAndSize(
            String format, String longest, int width, String mediaType, String ending) {
        Browser browser = browser().signedUp("deliver" + format);
        String shot = readyShot(browser, photo(640, 480, "jpg"));
        String id = ask(browser, shot, format, longest).get("id").asString();
        JsonNode done = finished(browser, id);
        assertThat(done.get("state").asString()).isEqualTo("done");
        assertThat(done.get("fileName").asString()).isEqualTo("photo - First." + ending);
        Browser.Answer file = browser.get("/api/deliveries/" + id + "/file");
        assertThat(file.raw().headers().firstValue("content-type")).hasValue(mediaType);
        assertThat(file.raw().headers().firstValue("content-disposition").orElse(""))
                .contains("attachment");
        DecodedPicture picture = PictureReader.DEFAULT.read(file.body());
        assertThat(picture.picture().size()).isEqualTo(new Size(width, width * 3 / 4));
        assertThat(file.body().length).isEqualTo(done.get("bytes").asInt());
    }

    @Test
    void aDeliveryThatIsNotDoneHasNoFileAndAnUnknownFormatIsRefused() {
        Browser browser = browser().signedUp("early");
        String shot = readyShot(browser, photo(2400, 1600, "jpg"));
        String id = ask(browser, shot, "png16", "null").get("id").asString();
        assertThat(browser.get("/api/deliveries/" + id + "/file").status()).isEqualTo(409);
        assertThat(browser.send("POST", "/api/deliveries/" + id + "/cancel", "").status())
                .isEqualTo(204);
        assertThat(finished(browser, id).get("state").asString()).isEqualTo("cancelled");
        assertThat(browser()
                        .signedUp("otherdeliverer")
                        .send("POST", "/api/deliveries/" + id + "/again", "")
                        .status())
                .isEqualTo(404);
        assertThat(browser.send("POST", "/api/deliveries/" + id + "/again", "").status())
                .isEqualTo(202);
        assertThat(finished(browser, id).get("state").asString()).isEqualTo("done");
        assertThat(browser.get("/api/deliveries/" + id + "/file").status()).isEqualTo(200);
        assertThat(browser.send("POST", "/api/deliveries/" + id + "/again", "").status())
                .as("it is done already")
                .isEqualTo(409);
        assertThat(browser.send("DELETE", "/api/deliveries/" + id, "").status()).isEqualTo(204);
        assertThat(browser.get("/api/deliveries").json().get("items").size()).isZero();
        JsonNode recipe =
                browser.get("/api/shots/" + shot + "/versions").json().get(0).get("recipe");
        assertThat(browser.send(
                                "POST",
                                "/api/shots/" + shot + "/deliveries",
                                "{\"versionName\":\"First\",\"format\":\"bmp\",\"quality\":0.9,\"recipe\":" + recipe
                                        + "}")
                        .status())
                .isEqualTo(422);
    }

    /** Lines that an open page hears. */
    private static List<String> listen(Browser browser) throws InterruptedException {
        List<String> heard = java.util.Collections.synchronizedList(new ArrayList<>());
        Thread listening = new Thread(() -> {
            try (BufferedReader lines = browser.stream("/api/events")) {
                for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                    heard.add(line);
                }
            } catch (IOException closed) {
                heard.add("closed");
            }
        });
        listening.setDaemon(true);
        listening.start();
        while (heard.isEmpty()) {
            Thread.sleep(20);
        }
        return heard;
    }

    @Test
    void anOpenPageIsToldOnceAboutAChangeThatWasLongInTheDatabase() throws Exception {
        Browser browser = browser().signedUp("patient");
        UUID shot = UUID.fromString(readyShot(browser, photo(300, 200, "jpg")));
        List<String> heard = listen(browser);
        transaction.executeWithoutResult(status -> {
            shots.reach(shot, shots.beginDepth(shot), Shot.State.READY, 0.875, null);
            try {
                Thread.sleep(1500);
            } catch (InterruptedException stopped) {
                Thread.currentThread().interrupt();
            }
        });
        waitFor(heard::toString, seen -> seen.contains("\"progress\":0.875"));
        Thread.sleep(1000);
        assertThat(heard.stream().filter(line -> line.contains("\"progress\":0.875")))
                .hasSize(1);
    }

    @Test
    void anOpenPageIsToldAboutShotsAndDeliveries() throws Exception {
        Browser browser = browser().signedUp("listener");
        List<String> heard = listen(browser);
        String shot = readyShot(browser, photo(300, 200, "jpg"));
        ask(browser, shot, "jpeg", "null");
        long deadline = System.nanoTime() + 10_000_000_000L;
        while (System.nanoTime() < deadline
                && !(heard.contains("event:deliveries") && heard.toString().contains("\"state\":\"ready\""))) {
            Thread.sleep(50);
        }
        assertThat(heard).contains("event:shot", "event:deliveries");
        assertThat(heard.toString()).contains(shot);
    }

    @Test
    void depthLiesInAJpegWhereCamerasPutIt() {
        Browser browser = browser().signedUp("depthinside");
        String shot = readyShot(browser, photo(640, 480, "jpg"));
        String id = ask(browser, shot, "jpeg-depth", "null").get("id").asString();
        assertThat(finished(browser, id).get("state").asString()).isEqualTo("done");
        byte[] file = browser.get("/api/deliveries/" + id + "/file").body();
        JsonNode again = browser.get("/api/shots/" + readyShot(browser, file)).json();
        assertThat(again.get("depths").toString()).contains("\"camera\"");
    }

    @Test
    void layersComeAsOpenRasterAndDepthAsFloatingPoint() {
        Browser browser = browser().signedUp("layerer");
        String shot = readyShot(browser, photo(320, 240, "jpg"));
        String ora = ask(browser, shot, "openraster", "null").get("id").asString();
        assertThat(finished(browser, ora).get("state").asString()).isEqualTo("done");
        assertThat(new String(browser.get("/api/deliveries/" + ora + "/file").body(), StandardCharsets.ISO_8859_1))
                .startsWith("PK")
                .contains("mimetypeimage/openraster");
        String exr = ask(browser, shot, "depth-exr32", "null").get("id").asString();
        assertThat(finished(browser, exr).get("state").asString()).isEqualTo("done");
        Plane depth = new DepthFileReader(PictureReader.DEFAULT)
                .read(browser.get("/api/deliveries/" + exr + "/file").body(), new Size(320, 240));
        assertThat(depth.size()).isEqualTo(new Size(320, 240));
    }

    private static String batch(List<String> shots, String pattern, String more) {
        return "{\"shots\":[\"" + String.join("\",\"", shots) + "\"],\"pattern\":\"" + pattern
                + "\",\"settings\":{\"format\":\"jpeg\",\"quality\":0.9,\"longestSide\":200" + more + "}}";
    }

    @Test
    void manyAreDeliveredTogetherAndFetchedAsOneZip() throws IOException {
        Browser browser = browser().signedUp("batcher");
        String shoot = newShoot(browser);
        List<String> shots = new ArrayList<>();
        for (int i = 0; i < 3; i++) {
            shots.add(readyShot(browser, photo(300 + i, 200, "jpg")));
        }
        Browser.Answer twice = browser.send("POST", "/api/batches/names", batch(shots, "same", ""));
        assertThat(twice.json().get("problem").asString()).contains("same.jpg", "two files");
        assertThat(browser.send("POST", "/api/batches", batch(shots, "same", ""))
                        .status())
                .isEqualTo(422);
        assertThat(browser.send("POST", "/api/batches/names", batch(shots, "{day}", ""))
                        .text())
                .contains("{number}");
        assertThat(browser.get("/api/deliveries").json().get("items").size())
                .as("a refused batch asks for nothing")
                .isZero();
        JsonNode names = browser.send("POST", "/api/batches/names", batch(shots, "club {number} {photo}", ""))
                .json();
        assertThat(names.get("problem").isNull()).isTrue();
        assertThat(names.get("names").get(2).asString()).isEqualTo("club 03 photo.jpg");

        Browser.Answer asked = browser.send(
                "POST", "/api/batches", batch(shots, "club {number}", ",\"space\":\"display-p3\",\"sharpening\":0.4"));
        assertThat(asked.status()).isEqualTo(202);
        String id = asked.json().get("id").asString();
        waitFor(
                () -> browser.get("/api/batches/" + id).json(),
                all -> all.toString().split("\"state\":\"done\"", -1).length == 4);
        assertThat(browser()
                        .signedUp("batchthief")
                        .get("/api/batches/" + id + "/zip")
                        .status())
                .isEqualTo(404);
        assertThat(browser().signedUp("batchthief2").get("/api/batches/" + id).status())
                .isEqualTo(404);
        Browser.Answer zip = browser.get("/api/batches/" + id + "/zip");
        assertThat(zip.status()).isEqualTo(200);
        List<String> found = new ArrayList<>();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip.body()))) {
            for (ZipEntry each = in.getNextEntry(); each != null; each = in.getNextEntry()) {
                found.add(each.getName());
                DecodedPicture picture = PictureReader.DEFAULT.read(in.readAllBytes());
                assertThat(picture.picture().size().width()).isEqualTo(200);
                assertThat(picture.origin().profile()).isNotNull();
            }
        }
        assertThat(found).containsExactly("club 01.jpg", "club 02.jpg", "club 03.jpg");
        JsonNode version =
                browser.get("/api/shots/" + shots.get(0) + "/versions").json().get(0);
        String camera = version.get("recipe").toString().replace("\"source\":\"estimated\"", "\"source\":\"camera\"");
        assertThat(browser.send(
                                "PUT",
                                "/api/versions/" + version.get("id").asString() + "/recipe",
                                "{\"lock\":" + version.get("lock") + ",\"step\":\"Camera\",\"recipe\":" + camera + "}")
                        .status())
                .isEqualTo(200);
        JsonNode without = browser.send("POST", "/api/batches/names", batch(shots, "{number}", ""))
                .json();
        assertThat(without.get("names").size()).isEqualTo(2);
        assertThat(without.get("left").get(0).get("why").asString()).contains("depth that this shot does not have");
        String first = asked.json().get("deliveries").get(0).get("id").asString();
        assertThat(browser.get("/api/deliveries/" + first + "/thumbnail").status())
                .isEqualTo(200);
        assertThat(browser.get("/api/shoots/" + shoot + "/shots").status()).isEqualTo(200);
        assertThat(browser.get("/api/batches/" + UUID.randomUUID() + "/zip").status())
                .isEqualTo(404);
    }

    @Test
    void settingsAreKeptUnderANameAndChangedUnderIt() {
        Browser browser = browser().signedUp("presetter");
        String preset =
                "{\"name\":\"For the club's page\",\"pattern\":\"{photo}\",\"settings\":{\"format\":\"webp\",\"quality\":%s}}";
        assertThat(browser.send("PUT", "/api/delivery-presets", preset.formatted("0.8"))
                        .status())
                .isEqualTo(200);
        browser.send("PUT", "/api/delivery-presets", preset.formatted("0.9"));
        JsonNode all = browser.get("/api/delivery-presets").json();
        assertThat(all.size()).isEqualTo(1);
        assertThat(all.get(0).get("settings").get("quality").asDouble()).isEqualTo(0.9);
        assertThat(all.get(0).get("settings").get("format").asString()).isEqualTo("webp");
        String id = all.get(0).get("id").asString();
        assertThat(browser()
                        .signedUp("otherpresetter")
                        .send("DELETE", "/api/delivery-presets/" + id, "")
                        .status())
                .isEqualTo(404);
        assertThat(browser.send("DELETE", "/api/delivery-presets/" + id, "").status())
                .isEqualTo(204);
        assertThat(browser.get("/api/delivery-presets").json().size()).isZero();
    }
}
