package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.raster.Plane;
import app.yubble.media.depthfile.StoredDepthWriter;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

class DepthTest extends ServerTest {
    private static JsonNode source(JsonNode shot, String name) {
        for (JsonNode depth : shot.get("depths")) {
            if (depth.get("source").asString().equals(name)) {
                return depth;
            }
        }
        throw new AssertionError("no depth from " + name + " in " + shot);
    }

    private static JsonNode shot(Browser browser, String id) {
        return browser.get("/api/shots/" + id).json();
    }

    @Test
    void settingsTellWhatIsThereAndWhyTheRestIsNot() {
        JsonNode settings = browser().signedUp("looker").get("/api/settings").json();
        assertThat(settings.get("learned").asBoolean()).isFalse();
        assertThat(settings.get("depthEngine").asString()).isEqualTo("auto");
        String engines = settings.get("engines").toString();
        assertThat(engines)
                .contains("\"layout\"")
                .contains("\"slow\"")
                .contains("torn.json")
                .contains("SHA-256");
        assertThat(browser().get("/api/settings").status()).isEqualTo(401);
    }

    @Test
    void newShotsAreEstimatedWithTheChosenNetworkOfTheirOwner() {
        Browser browser = browser().signedUp("chooser");
        assertThat(browser.send("PUT", "/api/settings/depth-engine", "{\"name\":\"ramp\"}")
                        .json()
                        .get("depthEngine")
                        .asString())
                .isEqualTo("ramp");
        String id = readyShot(browser, photo(400, 300, "jpg"));
        JsonNode estimate = source(shot(browser, id), "estimated");
        assertThat(estimate.get("origin").asString()).isEqualTo("ramp");
        assertThat(estimate.get("quality").asString()).isEqualTo("best");
        assertThat(browser()
                        .signedUp("neighbour")
                        .get("/api/settings")
                        .json()
                        .get("depthEngine")
                        .asString())
                .isEqualTo("auto");
        Browser.Answer refused = browser.send("PUT", "/api/settings/depth-engine", "{\"name\":\"torn\"}");
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains("torn").contains("layout");
    }

    @Test
    void ofSeveralPhotosNoneIsMadeBetterWhileAnotherWaitsForItsDraft() {
        Browser browser = browser().signedUp("batch");
        // Both workers have something to do until all four are there.
        for (int i = 0; i < 2; i++) {
            String busy = readyShot(browser, photo(300, 200 + i, "jpg"));
            browser.send(
                    "POST", "/api/shots/" + busy + "/depth-estimate", "{\"engine\":\"slow\",\"quality\":\"draft\"}");
        }
        browser.send("PUT", "/api/settings/depth-engine", "{\"name\":\"slow\"}");
        String shoot = newShoot(browser);
        for (int i = 0; i < 4; i++) {
            browser.upload("/api/shoots/" + shoot + "/shots", "photo.jpg", photo(400, 300 + i, "jpg"));
        }
        JsonNode atFirstBest = waitFor(
                () -> browser.get("/api/shoots/" + shoot + "/shots").json().get("items"),
                shots -> shots.toString().contains("\"quality\":\"best\""));
        for (JsonNode each : atFirstBest) {
            assertThat(each.get("state").asString()).isNotEqualTo("waiting");
        }
        assertThat(atFirstBest).hasSize(4);
        waitFor(
                () -> browser.get("/api/shoots/" + shoot + "/shots").json().get("items"),
                shots -> !shots.toString().contains("\"quality\":\"draft\""));
    }

    @Test
    void anEstimateCanBeMadeAgainWithAnotherNetwork() {
        Browser browser = browser().signedUp("again");
        String id = readyShot(browser, photo(400, 300, "jpg"));
        String before = source(shot(browser, id), "estimated").get("hash").asString();
        String path = "/api/shots/" + id + "/depth-estimate";
        assertThat(browser.send("POST", path, "{\"engine\":\"ramp\",\"quality\":\"draft\"}")
                        .status())
                .isEqualTo(202);
        JsonNode after = waitFor(
                () -> shot(browser, id), seen -> seen.get("state").asString().equals("ready"));
        assertThat(source(after, "estimated").get("hash").asString()).isNotEqualTo(before);
        assertThat(source(after, "estimated").get("quality").asString()).isEqualTo("draft");
        // Neither of the two can tell how sure it is.
        assertThat(browser.get("/api/shots/" + id + "/sure").status()).isEqualTo(204);
        assertThat(browser.send("POST", path, "{\"engine\":\"dream\",\"quality\":\"draft\"}")
                        .status())
                .isEqualTo(422);
        assertThat(browser.send("POST", path, "{\"engine\":\"ramp\",\"quality\":\"fast\"}")
                        .text())
                .contains("must be one of \\\"draft\\\", \\\"best\\\"");
    }

    @Test
    void aRunningEstimateTellsItsProgressAndIsCancelledWithinASecond() {
        Browser browser = browser().signedUp("hasty");
        String id = readyShot(browser, photo(400, 300, "jpg"));
        String before = source(shot(browser, id), "estimated").get("hash").asString();
        String path = "/api/shots/" + id + "/depth-estimate";
        browser.send("POST", path, "{\"engine\":\"slow\",\"quality\":\"best\"}");
        waitFor(
                () -> shot(browser, id),
                seen -> seen.get("state").asString().equals("estimating")
                        && seen.get("progress").asDouble() > 0.12);
        long start = System.nanoTime();
        assertThat(browser.send("DELETE", path, "").json().get("state").asString())
                .isEqualTo("ready");
        // The network stops too: the next estimate does not wait for its end.
        browser.send("POST", path, "{\"engine\":\"ramp\",\"quality\":\"draft\"}");
        assertThat((System.nanoTime() - start) / 1e9).isLessThan(1);
        JsonNode after = waitFor(
                () -> shot(browser, id), seen -> seen.get("state").asString().equals("ready"));
        assertThat(source(after, "estimated").get("origin").asString()).isEqualTo("ramp");
        assertThat(source(after, "estimated").get("hash").asString()).isNotEqualTo(before);
    }

    @Test
    void cancellingKeepsTheDepthThatWasThere() {
        Browser browser = browser().signedUp("keeper");
        String id = readyShot(browser, photo(400, 300, "jpg"));
        String before = source(shot(browser, id), "estimated").toString();
        String path = "/api/shots/" + id + "/depth-estimate";
        browser.send("POST", path, "{\"engine\":\"slow\",\"quality\":\"draft\"}");
        waitFor(() -> shot(browser, id), seen -> seen.get("state").asString().equals("estimating"));
        assertThat(source(browser.send("DELETE", path, "").json(), "estimated").toString())
                .isEqualTo(before);
        assertThat(shot(browser, id).get("state").asString()).isEqualTo("ready");
    }

    private static Plane ramp() {
        Plane plane = new Plane(200, 150);
        for (int i = 0; i < plane.samples().length; i++) {
            plane.samples()[i] = i % 200 / 199f;
        }
        return plane;
    }

    @Test
    void depthStoredInThePhotoIsUsedWithASwitchToTheEstimate() {
        Browser browser = browser().signedUp("camera");
        byte[] photo = StoredDepthWriter.store(photo(400, 300, "jpg"), ramp(), 0.7, 9);
        String id = readyShot(browser, photo);
        JsonNode camera = source(shot(browser, id), "camera");
        assertThat(camera.get("nearMetres").asDouble()).isEqualTo(0.7);
        assertThat(camera.get("farMetres").asDouble()).isEqualTo(9);
        JsonNode recipe =
                browser.get("/api/shots/" + id + "/versions").json().get(0).get("recipe");
        assertThat(recipe.get("depth").get("source").asString()).isEqualTo("camera");
        ByteBuffer stored = nearness(browser, id, "{\"source\":\"camera\",\"snap\":0}");
        assertThat(stored.getShort(8 + 2 * (400 * 150 + 390)) & 0xffff).isGreaterThan(60_000);
        assertThat(stored.getShort(8 + 2 * (400 * 150 + 10)) & 0xffff).isLessThan(5_000);
        ByteBuffer estimate = nearness(browser, id, "{\"source\":\"estimated\"}");
        assertThat(estimate.getShort(8 + 2 * (400 * 150 + 390)) & 0xffff).isLessThan(50_000);
    }

    private static ByteBuffer nearness(Browser browser, String id, String depth) {
        Browser.Answer answer = browser.send(
                "POST",
                "/api/shots/" + id + "/nearness",
                "{\"format\":\"yubble-recipe\",\"version\":1,\"depth\":" + depth + "}");
        assertThat(answer.status()).isEqualTo(200);
        return ByteBuffer.wrap(answer.body()).order(ByteOrder.LITTLE_ENDIAN);
    }

    @Test
    void brokenStoredDepthIsToldAndThePhotoTakenAllTheSame() {
        Browser browser = browser().signedUp("broken");
        String whole = new String(
                StoredDepthWriter.store(photo(400, 300, "jpg"), ramp(), 0.7, 9), StandardCharsets.ISO_8859_1);
        byte[] broken = whole.replace("RangeInverse", "RangeUpDown!").getBytes(StandardCharsets.ISO_8859_1);
        String id = readyShot(browser, broken);
        JsonNode shot = shot(browser, id);
        assertThat(shot.get("notice").asString())
                .contains("stored in this photo")
                .contains("RangeUpDown!");
        assertThat(shot.get("depths").size()).isEqualTo(1);
    }

    @Test
    void aDeliveryWithoutTheDepthThatItsRecipeTakesIsRefused() {
        Browser browser = browser().signedUp("hasty");
        String id = readyShot(browser, photo(400, 300, "jpg"));
        String wanted = "{\"versionName\":\"First\",\"format\":\"jpeg\",\"quality\":0.9,\"longestSide\":null,"
                + "\"recipe\":{\"format\":\"yubble-recipe\",\"version\":1,\"depth\":{\"source\":\"file\"}}}";
        Browser.Answer refused = browser.send("POST", "/api/shots/" + id + "/deliveries", wanted);
        assertThat(refused.status()).isEqualTo(409);
        assertThat(refused.text()).contains("depth that this shot does not have");
        assertThat(browser.get("/api/deliveries").json().get("items").size()).isZero();
    }
}
