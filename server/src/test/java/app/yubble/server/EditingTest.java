package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.picture.PictureReader;
import io.micrometer.core.instrument.MeterRegistry;
import java.awt.image.BufferedImage;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

class EditingTest extends ServerTest {
    @Autowired
    private MeterRegistry meters;

    @Autowired
    private JdbcTemplate database;

    private Browser browser;
    private String shot;

    @BeforeEach
    void bringAPhotoIn() {
        browser = browser().signedUp("editor" + System.nanoTime());
        shot = readyShot(browser, photo(900, 600, "jpg"));
    }

    private JsonNode version() {
        return browser.get("/api/shots/" + shot + "/versions").json().get(0);
    }

    private static String change(JsonNode version, String step, ObjectNode recipe) {
        return "{\"lock\":" + version.get("lock").asLong() + ",\"step\":\"" + step + "\",\"recipe\":" + recipe + "}";
    }

    private static ObjectNode withOpacity(JsonNode version, double opacity) {
        return ((ObjectNode) version.get("recipe").deepCopy()).put("opacity", opacity);
    }

    private Browser.Answer put(JsonNode version, String step, ObjectNode recipe) {
        return browser.send(
                "PUT", "/api/versions/" + version.get("id").asString() + "/recipe", change(version, step, recipe));
    }

    private Browser.Answer preview(JsonNode recipe, int longSide, long number) {
        return browser.send(
                "POST",
                "/api/shots/" + shot + "/preview",
                "{\"recipe\":" + recipe + ",\"longSide\":" + longSide + ",\"page\":\"p\",\"number\":" + number + "}");
    }

    @Test
    void aNewShotHasAVersionWithTheSubjectSharpAndAModerateBlur() {
        JsonNode recipe = version().get("recipe");
        assertThat(recipe.get("version").asInt()).isEqualTo(6);
        assertThat(recipe.get("band").get("near").asDouble())
                .isGreaterThan(recipe.get("band").get("far").asDouble());
        // What lies farthest away is seen 2.5 % of the longer side wide: the formula of docs/formats.md, from the map
        // itself.
        JsonNode aperture = recipe.get("aperture");
        JsonNode band = recipe.get("band");
        double centre = (band.get("near").asDouble() + band.get("far").asDouble()) / 2;
        double focal = aperture.get("focalLength").asDouble();
        double perNearness = focal
                * focal
                / (aperture.get("fNumber").asDouble()
                        * (aperture.get("distance").asDouble() * 1000 - focal)
                        * aperture.get("sensorWidth").asDouble())
                / Math.max(0.05, centre);
        double outside = band.get("far").asDouble() - band.get("farFalloff").asDouble() / 2;
        assertThat(aperture.get("mode").asString()).isEqualTo("f-number");
        assertThat(perNearness * outside).isBetween(0.02, 0.035);
    }

    @Test
    void everyChangeCanBeUndoneAndRedoneAlsoByAnotherSession() {
        JsonNode before = version();
        JsonNode after = put(before, "Opacity 50 %", withOpacity(before, 0.5)).json();
        assertThat(after.get("position").asInt()).isEqualTo(1);
        assertThat(after.get("history").get(1).get("name").asString()).isEqualTo("Opacity 50 %");
        String path = "/api/versions/" + before.get("id").asString() + "/position";
        JsonNode undone = browser.send("PUT", path, "{\"lock\":" + after.get("lock") + ",\"position\":0}")
                .json();
        assertThat(undone.get("recipe").get("opacity").asDouble()).isEqualTo(1);
        JsonNode read = version();
        assertThat(read.get("position").asInt()).isZero();
        JsonNode redone = browser.send("PUT", path, "{\"lock\":" + read.get("lock") + ",\"position\":1}")
                .json();
        assertThat(redone.get("recipe").get("opacity").asDouble()).isEqualTo(0.5);
    }

    @Test
    void aNewChangeForgetsWhatWasUndone() {
        JsonNode first = version();
        JsonNode second = put(first, "one", withOpacity(first, 0.5)).json();
        browser.send(
                "PUT",
                "/api/versions/" + first.get("id").asString() + "/position",
                "{\"lock\":" + second.get("lock") + ",\"position\":0}");
        JsonNode third = put(version(), "two", withOpacity(first, 0.3)).json();
        assertThat(third.get("history").size()).isEqualTo(2);
        assertThat(third.get("history").get(1).get("name").asString()).isEqualTo("two");
    }

    @Test
    void theLaterOfTwoTabsIsToldAndNothingIsOverwritten() {
        JsonNode seenByBoth = version();
        assertThat(put(seenByBoth, "first tab", withOpacity(seenByBoth, 0.5)).status())
                .isEqualTo(200);
        Browser.Answer late = put(seenByBoth, "second tab", withOpacity(seenByBoth, 0.2));
        assertThat(late.status()).isEqualTo(409);
        assertThat(late.json().get("detail").asString()).contains("another tab");
        assertThat(version().get("recipe").get("opacity").asDouble()).isEqualTo(0.5);
    }

    @Test
    void aRecipeThatIsOutOfRangeOrUnknownIsRefusedWithAllFaults() {
        JsonNode version = version();
        ObjectNode wrong = withOpacity(version, 7);
        ((ObjectNode) wrong.get("band")).put("near", 3);
        Browser.Answer refused = put(version, "wrong", wrong);
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.json().get("faults").size()).isEqualTo(2);
        assertThat(put(version, "newer", withOpacity(version, 1).put("version", 12))
                        .text())
                .contains("version 12");
        assertThat(put(version, "more", withOpacity(version, 1).put("sparkle", 12))
                        .text())
                .contains("unknown field \\\"sparkle\\\"");
        assertThat(version().get("position").asInt()).isZero();
    }

    /** As an edit arrives that waited in a browser while the server was renewed. */
    @Test
    void aRecipeOfTheFirstVersionIsTakenAndComesBackInTodays() {
        ObjectNode old = withOpacity(version(), 0.6).put("version", 1);
        old.remove("glints");
        old.put("glints", 0.7).put("glintThreshold", 0.5);
        JsonNode taken = put(version(), "waited", old).json().get("recipe");
        assertThat(taken.get("version").asInt()).isEqualTo(6);
        assertThat(taken.get("glints").get("strength").asDouble()).isEqualTo(0.7);
        assertThat(taken.get("glints").get("threshold").asDouble()).isEqualTo(0.5);
        assertThat(taken.get("opacity").asDouble()).isEqualTo(0.6);
    }

    @Test
    void aPreviewIsBlurredOutsideTheBandOnly() {
        ObjectNode recipe = (ObjectNode) version().get("recipe").deepCopy();
        ((ObjectNode) recipe.get("aperture")).put("mode", "free").put("strength", 100);
        ((ObjectNode) recipe.get("band")).put("near", 1).put("far", 0.85);
        Plane blurred = picture(preview(recipe, 600, 1));
        ((ObjectNode) recipe.get("band")).put("far", 0);
        Plane sharp = picture(preview(recipe, 600, 2));
        assertThat(blurred.size().longSide()).isEqualTo(600);
        // The red railing in the middle of the picture lies behind the band; the ground at the bottom lies in it.
        assertThat(contrast(blurred, 300, 200)).isLessThan(0.5 * contrast(sharp, 300, 200));
        assertThat(contrast(blurred, 300, 390)).isGreaterThan(0.8 * contrast(sharp, 300, 390));
    }

    private static Plane picture(Browser.Answer answer) {
        assertThat(answer.status()).isEqualTo(200);
        return PictureReader.DEFAULT.read(answer.body()).picture().red();
    }

    private static double contrast(Plane plane, int cx, int cy) {
        float low = 1;
        float high = 0;
        for (int y = cy - 6; y <= cy + 6; y++) {
            for (int x = cx - 6; x <= cx + 6; x++) {
                low = Math.min(low, plane.at(x, y));
                high = Math.max(high, plane.at(x, y));
            }
        }
        return high - low;
    }

    @Test
    void anOlderPreviewGivesWayToANewerOne() {
        JsonNode recipe = version().get("recipe");
        assertThat(preview(recipe, 300, 50).status()).isEqualTo(200);
        assertThat(preview(recipe, 300, 49).status()).isEqualTo(204);
        CompletableFuture<Browser.Answer> slow = CompletableFuture.supplyAsync(() -> preview(recipe, 900, 60));
        assertThat(preview(recipe, 300, 61).status()).isEqualTo(200);
        assertThat(slow.join().status()).isIn(200, 204);
    }

    @Test
    void whatIsMadeReadyNeedNotBeMadeWhenItIsLookedAt() {
        String path = "/api/shots/" + shot + "/ready?longSide=";
        double before = settled(stagesKept());
        assertThat(browser.send("POST", path + "777", "").status()).isEqualTo(202);
        // The photo and its depth on its edges, when no more comes.
        double kept = settled(before + 2);
        assertThat(preview(version().get("recipe"), 777, 1).status()).isEqualTo(200);
        assertThat(stagesKept()).isEqualTo(kept);
        assertThat(browser.send("POST", path + "777&photo=778", "").status()).isEqualTo(202);
        settled(kept + 1);
        assertThat(browser.send("POST", path + "777&photo=2561", "").status()).isEqualTo(400);
        assertThat(browser.send("POST", path + "7", "").status()).isEqualTo(400);
        assertThat(browser.send("POST", path + "40000", "").status()).isEqualTo(400);
        assertThat(browser.send("POST", path + "700&longSide=701&longSide=702", "")
                        .status())
                .isEqualTo(400);
        assertThat(browser().signedUp("hurried").send("POST", path + "777", "").status())
                .isEqualTo(404);
    }

    @Test
    void aLargePhotoIsMadeReadyToBeLookedAtClosely() {
        String another = version().get("id").asString();
        shot = readyShot(browser, photo(2700, 1800, "jpg"));
        JsonNode own = version();
        String path = "/api/shots/" + shot + "/ready/full?version=";
        double before = settled(stagesKept());
        assertThat(browser.send("POST", path + another, "").status()).isEqualTo(202);
        assertThat(settled(before))
                .as("a version of another shot makes nothing ready")
                .isEqualTo(before);
        assertThat(browser.send("POST", path + own.get("id").asString(), "").status())
                .isEqualTo(202);
        double kept = settled(before + 2);
        String look = "{\"recipe\":" + own.get("recipe")
                + ",\"longSide\":2700,\"region\":{\"x\":0.3,\"y\":0.3,\"width\":0.2,\"height\":0.2},\"page\":\"p\",\"number\":1}";
        assertThat(browser.send("POST", "/api/shots/" + shot + "/preview", look).status())
                .isEqualTo(200);
        assertThat(stagesKept()).isEqualTo(kept);
        assertThat(browser.send("POST", path + shot, "").status()).isEqualTo(404);
        assertThat(browser.send("POST", path + "x", "").status()).isEqualTo(400);
        assertThat(browser()
                        .signedUp("curious")
                        .send("POST", path + own.get("id").asString(), "")
                        .status())
                .isEqualTo(404);
    }

    /** How many stages are kept, once at least so many are and no more come. */
    private double settled(double least) {
        List<Double> seen = new ArrayList<>(Collections.nCopies(20, -1.0));
        return waitFor(this::stagesKept, now -> {
            seen.add(now);
            return now >= least && Collections.frequency(seen.subList(seen.size() - 20, seen.size()), now) == 20;
        });
    }

    /** Results of stages that the server keeps, by its figures. */
    private double stagesKept() {
        return meters.get("cache.size").tag("cache", "stages").gauge().value();
    }

    @Test
    void previewsKeepUp() {
        ObjectNode recipe = (ObjectNode) version().get("recipe").deepCopy();
        long[] times = new long[30];
        for (int i = 0; i < times.length; i++) {
            ((ObjectNode) recipe.get("aperture")).put("fNumber", 1.2 + i * 0.1);
            Browser.Answer answer = preview(recipe, 900, 100 + i);
            String timing = answer.raw().headers().firstValue("Server-Timing").orElseThrow();
            assertThat(timing)
                    .matches("wait;dur=\\d+, draw;dur=\\d+, compare;dur=\\d+, encode;dur=\\d+, preview;dur=\\d+");
            times[i] = Long.parseLong(timing.substring(timing.lastIndexOf('=') + 1));
        }
        Arrays.sort(times);
        System.out.println(
                "preview of 0.54 megapixels: median " + times[15] + " ms, 95th percentile " + times[28] + " ms");
        // The target is 150 ms on a quiet machine; ten times that is a fault wherever it runs.
        assertThat(times[15]).isLessThan(1500);
    }

    @Test
    void nearnessIsGivenToTheBrowserAsNumbers() {
        ByteBuffer map =
                ByteBuffer.wrap(nearness("{\"source\":\"estimated\"}").body()).order(ByteOrder.LITTLE_ENDIAN);
        assertThat(map.getInt()).isEqualTo(900);
        assertThat(map.getInt()).isEqualTo(600);
        assertThat(map.remaining()).isEqualTo(900 * 600 * 2);
        int top = map.getShort(8 + 2 * (900 * 30 + 450)) & 0xffff;
        int bottom = map.getShort(8 + 2 * (900 * 590 + 450)) & 0xffff;
        assertThat(bottom).isGreaterThan(top + 20_000);
        assertThat(nearness("{\"source\":\"file\"}").status()).isEqualTo(404);
        assertThat(nearness("{\"source\":\"dream\"}").status()).isEqualTo(422);
    }

    private Browser.Answer nearness(String depth) {
        return browser.send(
                "POST",
                "/api/shots/" + shot + "/nearness",
                "{\"format\":\"yubble-recipe\",\"version\":1,\"depth\":" + depth + "}");
    }

    private static String painted(String action, String more) {
        return "{\"format\":\"yubble-recipe\",\"version\":1,\"depth\":{\"source\":\"estimated\"},"
                + "\"band\":{\"near\":0.5,\"far\":0.4},\"touchups\":[{\"id\":\"one\",\"action\":\"" + action + "\","
                + more
                + "\"strokes\":[{\"size\":0.2,\"points\":[0.5,0.5,1]}]}]}";
    }

    @Test
    void touchUpsMoveNearnessAndTheirMaskCanBeSeen() {
        String recipe = painted("match", "\"target\":1,");
        ByteBuffer map = ByteBuffer.wrap(browser.send("POST", "/api/shots/" + shot + "/nearness", recipe)
                        .body())
                .order(ByteOrder.LITTLE_ENDIAN);
        assertThat(map.getShort(8 + 2 * (900 * 300 + 450)) & 0xffff).isEqualTo(65535);
        assertThat(map.getShort(8 + 2 * (900 * 300 + 700)) & 0xffff).isLessThan(60_000);
        Browser.Answer mask =
                browser.send("POST", "/api/shots/" + shot + "/mask", "{\"touchup\":\"one\",\"recipe\":" + recipe + "}");
        assertThat(mask.status()).isEqualTo(200);
        assertThat(mask.body()).hasSize(8 + 900 * 600);
        assertThat(mask.body()[8 + 900 * 300 + 450] & 0xff).isEqualTo(255);
        assertThat(mask.body()[8 + 900 * 300 + 700]).isZero();
        assertThat(browser.send(
                                "POST",
                                "/api/shots/" + shot + "/mask",
                                "{\"touchup\":\"two\",\"recipe\":" + recipe + "}")
                        .status())
                .isEqualTo(422);
        assertThat(browser.send("POST", "/api/shots/" + shot + "/nearness", painted("dream", ""))
                        .text())
                .contains("touchups[0].action must be one of");
    }

    @Test
    void aRequestThatIsLongerThanAnyRecipeIsRefusedUnread() {
        Browser.Answer answer =
                browser.send("POST", "/api/shots/" + shot + "/nearness", "\"" + "x".repeat(33 << 20) + "\"");
        assertThat(answer.status()).isEqualTo(413);
    }

    @Test
    void nearnessFollowsTheTrim() {
        ByteBuffer plain = map("{\"source\":\"estimated\"}");
        ByteBuffer flipped = map("{\"source\":\"estimated\",\"flip\":true}");
        ByteBuffer nearer = map("{\"source\":\"estimated\",\"bend\":0.6}");
        for (int i = 8; i < plain.capacity(); i += 5000) {
            int value = plain.getShort(i & ~1) & 0xffff;
            assertThat(flipped.getShort(i & ~1) & 0xffff).isBetween(65535 - value - 40, 65535 - value + 40);
            assertThat(nearer.getShort(i & ~1) & 0xffff).isGreaterThanOrEqualTo(value - 40);
        }
        Browser.Answer refused = nearness("{\"source\":\"estimated\",\"nearEnd\":0.2,\"farEnd\":0.4}");
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains("near end");
    }

    private ByteBuffer map(String depth) {
        return ByteBuffer.wrap(nearness(depth).body()).order(ByteOrder.LITTLE_ENDIAN);
    }

    @Test
    void focusFollowsTheClick() {
        JsonNode recipe = version().get("recipe");
        JsonNode low = focus("spot", 0.5, 0.97, recipe);
        JsonNode high = focus("spot", 0.5, 0.05, recipe);
        assertThat(low.get("far").asDouble()).isGreaterThan(high.get("near").asDouble());
        assertThat(focus("patch", 0.1, 0.5, recipe).get("near").asDouble())
                .isGreaterThan(focus("patch", 0.1, 0.5, recipe).get("far").asDouble());
        assertThat(focus("spot", -4, 90, recipe).get("near").asDouble()).isBetween(0.0, 1.0);
    }

    private JsonNode focus(String kind, double x, double y, JsonNode recipe) {
        return browser.send(
                        "POST",
                        "/api/shots/" + shot + "/focus",
                        "{\"kind\":\"" + kind + "\",\"recipe\":" + recipe + ",\"x\":" + x + ",\"y\":" + y
                                + ",\"width\":0.3,\"height\":0.4}")
                .json();
    }

    private Browser.Answer ladder(Browser who, String rungs) {
        return who.send(
                "POST",
                "/api/shots/" + shot + "/ladder",
                "{\"recipe\":{\"format\":\"yubble-recipe\",\"version\":6,\"depth\":{\"ladder\":[" + rungs + "]}}}");
    }

    @Test
    void aLadderSaysWhereItsRungsStandAndWhatNearnessIsInMetres() {
        String top = "{\"x\":0.5,\"y\":0.1,\"metres\":1}";
        String bottom = "{\"x\":0.5,\"y\":0.9,\"metres\":4}";
        JsonNode stands = ladder(browser, top + "," + bottom).json();
        JsonNode first = stands.get("rungs").get(0);
        JsonNode second = stands.get("rungs").get(1);
        assertThat(first.get("found").asDouble()).isLessThan(second.get("found").asDouble());
        double near = first.get("nearness").asDouble();
        double far = second.get("nearness").asDouble();
        assertThat(near - far).isCloseTo(0.08, within(1e-6));
        JsonNode scale = stands.get("scale");
        double zero = scale.get("atZero").asDouble();
        double each = scale.get("perNearness").asDouble();
        assertThat(1 / (zero + each * near)).isCloseTo(1, within(1e-6));
        assertThat(1 / (zero + each * far)).isCloseTo(4, within(1e-6));
        assertThat(ladder(browser, "").json().get("rungs").size()).isZero();
        assertThat(ladder(browser().signedUp("climber"), top).status()).isEqualTo(404);
        assertThat(ladder(browser, bottom + "," + top).text()).contains("must grow from rung to rung");
        assertThat(ladder(browser, "{\"x\":2}").status()).isEqualTo(422);
    }

    @Test
    void aDepthFileIsTakenAndOneOfAnotherShapeChangesNothing() {
        BufferedImage map = new BufferedImage(300, 200, BufferedImage.TYPE_BYTE_GRAY);
        for (int x = 0; x < 300; x++) {
            for (int y = 0; y < 200; y++) {
                map.getRaster().setSample(x, y, 0, x * 255 / 299);
            }
        }
        String path = "/api/shots/" + shot + "/depth-file";
        assertThat(browser.upload(path, "map.png", encoded(map, "png")).status())
                .isEqualTo(200);
        byte[] before = nearness("{\"source\":\"file\"}").body();
        Browser.Answer refused = browser.upload(path, "square.png", photo(100, 100, "png"));
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains("square.png").contains("100x100").contains("900x600");
        assertThat(nearness("{\"source\":\"file\"}").body()).isEqualTo(before);
    }

    @Test
    void versionsAreCopiedRenamedAndDeletedButOneStays() {
        String id = version().get("id").asString();
        JsonNode copy = browser.send("POST", "/api/versions/" + id + "/duplicate", "{\"name\":\"Bold\"}")
                .json();
        assertThat(copy.get("recipe")).isEqualTo(version().get("recipe"));
        String copyId = copy.get("id").asString();
        assertThat(browser.send("PATCH", "/api/versions/" + copyId, "{\"name\":\"Quiet\"}")
                        .json()
                        .get("name")
                        .asString())
                .isEqualTo("Quiet");
        assertThat(browser.send("DELETE", "/api/versions/" + copyId, "").status())
                .isEqualTo(204);
        assertThat(browser.send("DELETE", "/api/versions/" + id, "").status()).isEqualTo(409);
        assertThat(browser.get("/api/versions/" + copyId).status()).isEqualTo(404);
        assertThat(browser.send("PATCH", "/api/versions/" + copyId, "{\"name\":\"Loud\"}")
                        .status())
                .isEqualTo(404);
        assertThat(browser()
                        .signedUp("thief")
                        .send("POST", "/api/versions/" + copyId + "/return", "{}")
                        .status())
                .isEqualTo(404);
        assertThat(browser.send("POST", "/api/versions/" + copyId + "/return", "{}")
                        .json()
                        .get("name")
                        .asString())
                .isEqualTo("Quiet");
        assertThat(browser.get("/api/shots/" + shot + "/versions").json().size())
                .isEqualTo(2);
    }

    @Test
    void partsOfARecipeAreGivenToOtherShotsAsOneStepEach() {
        String other = readyShot(browser, photo(600, 400, "jpg"));
        ObjectNode recipe = withOpacity(version(), 0.4);
        ((ObjectNode) recipe.get("aperture")).put("fNumber", 1.1);
        ((ObjectNode) recipe.get("band")).put("near", 0.9).put("far", 0.2).put("tiltAcross", 0.25);
        JsonNode from = put(version(), "Bold", recipe).json();
        String path = "/api/versions/" + from.get("id").asString() + "/copy";
        String body = "{\"parts\":[\"lens\",\"band\"],\"shots\":[\"" + other + "\",\"" + shot + "\"]}";
        assertThat(browser.send("POST", path, body).json().get("changed").asInt())
                .isEqualTo(1);
        JsonNode changed =
                browser.get("/api/shots/" + other + "/versions").json().get(0);
        assertThat(changed.get("recipe").get("aperture")).isEqualTo(recipe.get("aperture"));
        assertThat(changed.get("recipe").get("band"))
                .isEqualTo(from.get("recipe").get("band"));
        assertThat(changed.get("recipe").get("opacity").asDouble()).isEqualTo(1);
        assertThat(changed.get("history").get(1).get("name").asString()).isEqualTo("Copied from photo.jpg");
        assertThat(browser.send("POST", path, body.replace("lens", "soul")).status())
                .isEqualTo(422);
        Browser stranger = browser().signedUp("stranger");
        String own = readyShot(stranger, photo(300, 200, "jpg"));
        assertThat(browser.send("POST", path, body.replace(other, own)).status())
                .isEqualTo(404);
    }

    @Test
    void aRegionIsThePartOfTheWholeAndMayBeLargerThanAnyPreview() {
        JsonNode recipe = version().get("recipe");
        Plane whole = picture(preview(recipe, 900, 1));
        Browser.Answer answer = region(recipe, 900, "{\"x\":0.25,\"y\":0.5,\"width\":0.5,\"height\":0.25}", 2);
        assertThat(answer.raw().headers().firstValue("X-Region")).hasValue("225 300 450 150 900 600");
        Plane part = picture(answer);
        assertThat(part.width()).isEqualTo(450);
        double sum = 0;
        for (int y = 0; y < 150; y++) {
            for (int x = 0; x < 450; x++) {
                sum += Math.abs(part.at(x, y) - whole.at(225 + x, 300 + y));
            }
        }
        assertThat(sum / (450 * 150)).isLessThan(0.01);
        // Never larger than the photo, never empty, and without a region never beyond the usual size.
        assertThat(region(recipe, 20000, "{\"x\":2,\"y\":-1,\"width\":0,\"height\":0}", 3)
                        .raw()
                        .headers()
                        .firstValue("X-Region"))
                .hasValue("899 0 1 1 900 600");
        String large = readyShot(browser, photo(3000, 2000, "jpg"));
        assertThat(browser.send(
                                "POST",
                                "/api/shots/" + large + "/preview",
                                "{\"recipe\":" + recipe + ",\"longSide\":3000,\"page\":\"p\",\"number\":4}")
                        .status())
                .isEqualTo(422);
        assertThat(browser.get("/api/shots/" + large + "/photo?longSide=3000&region=0.5,0.5,0.1,0.1")
                        .raw()
                        .headers()
                        .firstValue("X-Region"))
                .hasValue("1500 1000 300 200 3000 2000");
        assertThat(browser.get("/api/shots/" + large + "/photo?longSide=3000").status())
                .isEqualTo(422);
    }

    /** A preview over the one with number {@code over}, which was of the same size. */
    private Browser.Answer over(JsonNode recipe, int longSide, long number, long over, String... order) {
        String ids = order.length == 0 ? "" : ",\"order\":[\"" + String.join("\",\"", order) + "\"]";
        return browser.send(
                "POST",
                "/api/shots/" + shot + "/preview",
                "{\"recipe\":" + recipe + ",\"longSide\":" + longSide + ",\"page\":\"p\",\"number\":" + number
                        + ",\"over\":" + over + ids + "}");
    }

    private static String header(Browser.Answer answer, String name) {
        return answer.raw().headers().firstValue(name).orElse("none");
    }

    /** The recipe with a touch-up for each name, each a dab in another place. */
    private static ObjectNode withDabs(JsonNode recipe, String... ids) {
        ObjectNode out = (ObjectNode) recipe.deepCopy();
        ArrayNode touchups = out.putArray("touchups");
        for (String id : ids) {
            ObjectNode touchup =
                    touchups.addObject().put("id", id).put("action", "match").put("target", 0.1);
            double x = 0.3 + 0.05 * id.length();
            touchup.putArray("strokes")
                    .addObject()
                    .put("size", 0.2)
                    .putArray("points")
                    .add(x)
                    .add(0.5)
                    .add(1);
        }
        return out;
    }

    @Test
    void touchUpsThatThePageHasSentBeforeAreNotNeededAgain() {
        JsonNode plain = version().get("recipe");
        Plane whole = picture(preview(withDabs(plain, "one", "three"), 900, 1));
        Browser.Answer same = over(plain, 900, 2, 1, "one", "three");
        assertThat(header(same, "X-Region")).isEqualTo("0 0 8 8 900 600");
        Browser.Answer more = over(withDabs(plain, "seventh"), 900, 3, 2, "one", "three", "seventh");
        assertThat(header(more, "X-Over")).isEqualTo("2");
        assertThat(header(over(plain, 900, 4, 3, "three", "one"), "X-Over")).isEqualTo("3");
        Plane turned = picture(preview(withDabs(plain, "three", "one"), 900, 5));
        assertThat(turned.at(450, 300)).isCloseTo(whole.at(450, 300), within(0.02f));
        // What is not known is said, and nothing else is drawn instead.
        assertThat(over(plain, 900, 6, 3, "one").status()).isEqualTo(412);
        assertThat(over(plain, 900, 7, 5, "one", "nine").status()).isEqualTo(422);
        assertThat(over(plain, 900, 8, 5, "one", "one").status()).isEqualTo(422);
    }

    @Test
    void ofAPreviewThatThePageHasOnlyWhatChangedIsSent() {
        JsonNode plain = version().get("recipe");
        ObjectNode dabbed = withDabs(plain, "one");
        Plane before = picture(preview(plain, 900, 1));
        Browser.Answer patch = over(dabbed, 900, 2, 1);
        assertThat(header(patch, "X-Over")).isEqualTo("1");
        int[] told = Stream.of(header(patch, "X-Region").split(" "))
                .mapToInt(Integer::parseInt)
                .toArray();
        Plane part = picture(patch);
        assertThat(part.size()).isEqualTo(new Size(told[2], told[3]));
        assertThat(part.size().pixels()).isLessThan(900 * 600 / 2);
        Plane whole = picture(preview(dabbed, 900, 3));
        int unlike = 0;
        int changed = 0;
        for (int y = 0; y < 600; y++) {
            for (int x = 0; x < 900; x++) {
                int px = x - told[0];
                int py = y - told[1];
                boolean patched = px >= 0 && py >= 0 && px < part.width() && py < part.height();
                float shown = patched ? part.at(px, py) : before.at(x, y);
                // Some steps of an 8-bit file in its lights: its noise lies elsewhere in a patch.
                unlike += Math.abs(shown - whole.at(x, y)) > 0.05 ? 1 : 0;
                changed += Math.abs(before.at(x, y) - whole.at(x, y)) > 0.01 ? 1 : 0;
            }
        }
        assertThat(changed).isGreaterThan(2000);
        assertThat(unlike).isZero();
        // Where the page has something else everything is sent.
        assertThat(header(over(plain, 900, 4, 2), "X-Over")).isEqualTo("none");
        assertThat(header(over(plain, 450, 5, 4), "X-Over")).isEqualTo("none");
        assertThat(header(over(plain, 450, 6, 5), "X-Region")).isEqualTo("0 0 8 8 450 300");
    }

    private Browser.Answer region(JsonNode recipe, int longSide, String region, long number) {
        return browser.send(
                "POST",
                "/api/shots/" + shot + "/preview",
                "{\"recipe\":" + recipe + ",\"longSide\":" + longSide + ",\"region\":" + region
                        + ",\"page\":\"p\",\"number\":" + number + "}");
    }

    @Test
    void thePhotosOwnSharpnessIsToldToItsOwnerOnly() {
        ByteBuffer widths = ByteBuffer.wrap(
                        browser.get("/api/shots/" + shot + "/edge-widths").body())
                .order(ByteOrder.LITTLE_ENDIAN);
        assertThat(widths.getInt()).isEqualTo(900);
        assertThat(widths.getInt()).isEqualTo(600);
        int sharp = 0;
        while (widths.hasRemaining()) {
            int width = widths.get() & 0xff;
            sharp += width > 0 && width < 60 ? 1 : 0;
        }
        assertThat(sharp).isGreaterThan(1000);
        Browser stranger = browser().signedUp("peeper");
        assertThat(stranger.get("/api/shots/" + shot + "/edge-widths").status()).isEqualTo(404);
        assertThat(stranger.get("/api/shots/" + shot + "/things").status()).isEqualTo(404);
    }

    @Test
    void aPhotoWithoutAClearSubjectHasNoThingsToChooseFrom() {
        JsonNode things = browser.get("/api/shots/" + shot + "/things").json();
        assertThat(things.get("things").size()).isZero();
        Browser.Answer refused = browser.send(
                "POST",
                "/api/shots/" + shot + "/focus",
                "{\"kind\":\"thing\",\"number\":1,\"x\":0,\"y\":0,\"width\":0,\"height\":0,\"recipe\":"
                        + version().get("recipe") + "}");
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains("no such subject");
        assertThat(things.get("faces").size()).isZero();
        Browser.Answer faceless = browser.send(
                "POST",
                "/api/shots/" + shot + "/focus",
                "{\"kind\":\"face\",\"number\":1,\"recipe\":" + version().get("recipe") + "}");
        assertThat(faceless.status()).isEqualTo(422);
        assertThat(faceless.text()).contains("no such face");
    }

    @Test
    void everyCharacterOfTheDiscCanBeChosenAndIsKept() {
        assertThat(browser().get("/api/lens/characters").status()).isEqualTo(401);
        JsonNode characters = browser.get("/api/lens/characters").json();
        assertThat(characters.size()).isGreaterThanOrEqualTo(8);
        for (JsonNode character : characters) {
            JsonNode before = version();
            ObjectNode recipe = (ObjectNode) before.get("recipe").deepCopy();
            recipe.set("disc", character.get("disc"));
            String title = character.get("title").asString();
            assertThat(put(before, title, recipe).json().get("recipe").get("disc"))
                    .as(title)
                    .isEqualTo(character.get("disc"));
        }
        JsonNode last = version();
        ObjectNode wrong = (ObjectNode) last.get("recipe").deepCopy();
        ((ObjectNode) wrong.get("disc")).put("hollow", 3);
        Browser.Answer refused = put(last, "Hollow", wrong);
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains("hollow");
    }

    /** Somebody edits the shot that another request copies to; each retries when the other was first. */
    @Test
    void copyingToAShotThatIsBeingEditedLosesNoEdit() {
        String target = readyShot(browser, photo(900, 600, "jpg"));
        String copy = "/api/versions/" + version().get("id").asString() + "/copy";
        CompletableFuture<Void> copying = CompletableFuture.runAsync(() -> {
            for (int i = 0; i < 25; i++) {
                assertThat(browser.send("POST", copy, "{\"parts\":[\"opacity\"],\"shots\":[\"" + target + "\"]}")
                                .status())
                        .isEqualTo(200);
            }
        });
        List<String> kept = new ArrayList<>();
        for (int i = 0; i < 40; i++) {
            JsonNode now =
                    browser.get("/api/shots/" + target + "/versions").json().get(0);
            String path = "/api/versions/" + now.get("id").asString() + "/recipe";
            int status = browser.send("PUT", path, change(now, "edit " + i, withOpacity(now, 0.5)))
                    .status();
            assertThat(status).isIn(200, 409);
            if (status == 200) {
                kept.add("edit " + i);
            }
        }
        copying.join();
        JsonNode history =
                browser.get("/api/shots/" + target + "/versions").json().get(0).get("history");
        List<String> names = new ArrayList<>();
        history.forEach(step -> names.add(step.get("name").asString()));
        assertThat(names).containsAll(kept);
        assertThat(names.stream().filter(name -> name.startsWith("Copied"))).hasSize(25);
    }

    @Test
    void aStrokeThatIsNoneAndOneThatCannotBeSimplifiedAreRefusedAtOnce() {
        JsonNode version = version();
        ObjectNode recipe = withOpacity(version, 1);
        ArrayNode touchups = recipe.putArray("touchups");
        touchups.addObject().put("id", "a").putArray("strokes").addNull();
        Browser.Answer none = put(version, "none", recipe);
        assertThat(none.status()).isEqualTo(422);
        assertThat(none.text()).contains("touchups[0].strokes[0] must be an object");
        ArrayNode points =
                ((ObjectNode) touchups.get(0)).putArray("strokes").addObject().putArray("points");
        for (int i = 0; i < 30_001; i++) {
            points.add(i / 30_001.0).add(i % 2).add(1);
        }
        long start = System.nanoTime();
        assertThat(put(version, "zigzag", recipe).text()).contains("at most 20000 points");
        assertThat((System.nanoTime() - start) / 1e9).as("seconds; 19 before").isLessThan(5);
    }

    /** 200 touch-ups with 5 000 strokes: 2.4 MB a step before. */
    @Test
    void aLongHistoryOfManyStrokesTakesLittleRoomAndOpensInASecond() {
        JsonNode version = version();
        ObjectNode recipe = withOpacity(version, 1);
        ArrayNode touchups = recipe.putArray("touchups");
        for (int i = 0; i < 200; i++) {
            ArrayNode strokes = touchups.addObject().put("id", "t" + i).putArray("strokes");
            for (int j = 0; j < 25; j++) {
                addStroke(strokes, i * 25 + j);
            }
        }
        assertThat(put(version, "All", recipe).status()).isEqualTo(200);
        long before = stored();
        addStroke((ArrayNode) touchups.get(199).get("strokes"), 5000);
        JsonNode after = put(version(), "One more", recipe).json();
        assertThat(stored() - before).as("bytes").isLessThan(20_000);
        assertThat(after.get("recipe").get("touchups").get(199).get("strokes").size())
                .isEqualTo(26);
        String id = after.get("id").asString();
        for (int i = 3; i < 501; i++) {
            database.update(
                    "insert into edit (id, version_id, position, name, recipe) select uuid(), version_id, ?, name, recipe "
                            + "from edit where version_id = ? and position = 2",
                    i,
                    id);
        }
        database.update("update version set position = 500 where id = ?", id);
        JsonNode opened = after;
        double seconds = Double.MAX_VALUE;
        // The quickest counts: the machine may be busy.
        for (int i = 0; i < 4; i++) {
            long start = System.nanoTime();
            opened = version();
            seconds = Math.min(seconds, (System.nanoTime() - start) / 1e9);
        }
        assertThat(seconds).isLessThan(1);
        assertThat(opened.get("history").size()).isEqualTo(501);
        assertThat(opened.get("recipe")).isEqualTo(after.get("recipe"));
        String path = "/api/versions/" + id + "/position";
        JsonNode back = browser.send("PUT", path, "{\"lock\":" + opened.get("lock") + ",\"position\":1}")
                .json();
        assertThat(back.get("recipe").get("touchups").get(199).get("strokes").size())
                .isEqualTo(25);
    }

    private static void addStroke(ArrayNode strokes, int seed) {
        ArrayNode points = strokes.addObject().put("size", 0.05).putArray("points");
        for (int k = 0; k < 20; k++) {
            points.add(Math.sin(seed + k) / 2 + 0.5)
                    .add(Math.cos(seed * 3 + k) / 2 + 0.5)
                    .add(1);
        }
    }

    /** Bytes of all recipes in all histories. */
    private long stored() {
        Long bytes = database.queryForObject(
                "select (select sum(length(recipe)) from edit) + (select coalesce(sum(length(content)), 0) from recipe_piece)",
                Long.class);
        return bytes == null ? 0 : bytes;
    }
}
