package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.raster.Size;
import app.yubble.media.picture.DecodedPicture;
import app.yubble.media.picture.PictureReader;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import java.io.BufferedReader;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
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
    @CsvSource({"jpeg,null,640,image/jpeg,jpg", "png16,320,320,image/png,png", "tiff16,null,640,image/tiff,tif"})
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
}
