package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Masks from files, pick-outs, and the edge inspector. */
class MaskTest extends ServerTest {
    private static final int WIDTH = 900;
    private static final int HEIGHT = 600;

    private Browser browser;
    private String shot;

    @BeforeEach
    void bringAPhotoIn() {
        browser = browser().signedUp("masker" + System.nanoTime());
        shot = readyShot(browser, photo(WIDTH, HEIGHT, "jpg"));
    }

    /** Grey with a lighter or darker disc. */
    private static byte[] disc(int width, int height, int ground, double x, double y, double radius, int value) {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_BYTE_GRAY);
        Graphics2D g = image.createGraphics();
        g.setColor(new Color(ground, ground, ground));
        g.fillRect(0, 0, width, height);
        int r = (int) (radius * width);
        g.setColor(new Color(value, value, value));
        g.fillOval((int) (x * width) - r, (int) (y * height) - r, 2 * r, 2 * r);
        g.dispose();
        return encoded(image, "png");
    }

    private JsonNode version(Browser who) {
        return who.get("/api/shots/" + shot + "/versions").json().get(0);
    }

    private ObjectNode with(String touchup) {
        ObjectNode recipe = (ObjectNode) version(browser).get("recipe").deepCopy();
        recipe.putArray("touchups")
                .addObject()
                .put("id", "one")
                .put("action", "focus")
                .put("target", 0.5);
        ObjectNode only = (ObjectNode) recipe.get("touchups").get(0);
        only.setAll((ObjectNode) new tools.jackson.databind.ObjectMapper().readTree(touchup));
        return recipe;
    }

    private Browser.Answer mask(ObjectNode recipe, String path) {
        return browser.send("POST", "/api/shots/" + shot + path, "{\"touchup\":\"one\",\"recipe\":" + recipe + "}");
    }

    private int painted(Browser.Answer mask, double x, double y) {
        assertThat(mask.status()).as(mask.status() == 200 ? "" : mask.text()).isEqualTo(200);
        return mask.body()[8 + WIDTH * (int) (y * HEIGHT) + (int) (x * WIDTH)] & 0xff;
    }

    private String broughtIn() {
        Browser.Answer answer =
                browser.upload("/api/shots/" + shot + "/masks", "ear.png", disc(450, 300, 0, 0.5, 0.5, 0.1, 255));
        assertThat(answer.status()).isEqualTo(201);
        return answer.json().get("hash").asString();
    }

    @Test
    void aMaskFromAFileOfAnotherSizeIsPaintedAndSavedAgainAtThePhotosSize() throws IOException {
        ObjectNode recipe = with("{\"maskFile\":\"" + broughtIn() + "\"}");
        Browser.Answer mask = mask(recipe, "/mask");
        assertThat(painted(mask, 0.5, 0.5)).isEqualTo(255);
        assertThat(painted(mask, 0.7, 0.5)).isZero();
        Browser.Answer file = mask(recipe, "/mask-file");
        BufferedImage saved = ImageIO.read(new ByteArrayInputStream(file.body()));
        assertThat(saved.getWidth()).isEqualTo(WIDTH);
        assertThat(saved.getRaster().getSample(WIDTH / 2, HEIGHT / 2, 0)).isEqualTo(65535);
        assertThat(saved.getRaster().getSample(10, 10, 0)).isZero();
        // What was saved can be loaded again.
        assertThat(browser.upload("/api/shots/" + shot + "/masks", "again.png", file.body())
                        .status())
                .isEqualTo(201);
    }

    @Test
    void theEdgeOfAMaskGrowsShrinksAndSoftens() {
        String hash = broughtIn();
        double rim = 0.5 + 0.1;
        Browser.Answer plain = mask(with("{\"maskFile\":\"" + hash + "\"}"), "/mask");
        Browser.Answer grown = mask(with("{\"maskFile\":\"" + hash + "\",\"grow\":0.02}"), "/mask");
        Browser.Answer shrunk = mask(with("{\"maskFile\":\"" + hash + "\",\"grow\":-0.02}"), "/mask");
        Browser.Answer soft = mask(with("{\"maskFile\":\"" + hash + "\",\"soften\":0.02}"), "/mask");
        assertThat(painted(plain, rim + 0.012, 0.5)).isZero();
        assertThat(painted(grown, rim + 0.012, 0.5)).isEqualTo(255);
        assertThat(painted(plain, rim - 0.012, 0.5)).isEqualTo(255);
        assertThat(painted(shrunk, rim - 0.012, 0.5)).isZero();
        assertThat(painted(soft, rim, 0.5)).isBetween(60, 200);
        assertThat(painted(soft, rim + 0.012, 0.5)).isBetween(1, 120);
    }

    @Test
    void aMaskOfAnotherShapeIsRefusedWithBothSizes() {
        Browser.Answer answer =
                browser.upload("/api/shots/" + shot + "/masks", "square.png", disc(300, 300, 0, 0.5, 0.5, 0.1, 255));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.text()).contains("square.png").contains("300x300").contains("900x600");
        Browser.Answer text = browser.upload("/api/shots/" + shot + "/masks", "mask.png", "no picture".getBytes());
        assertThat(text.status()).isEqualTo(422);
        assertThat(text.text()).contains("mask.png");
    }

    @Test
    void onlyWhoBroughtAMaskInCanUseIt() {
        String hash = broughtIn();
        Browser other = browser().signedUp("other" + System.nanoTime());
        String own = readyShot(other, photo(WIDTH, HEIGHT, "jpg"));
        ObjectNode recipe = with("{\"name\":\"Ear\",\"maskFile\":\"" + hash + "\"}");
        String body = "{\"touchup\":\"one\",\"recipe\":" + recipe + "}";
        Browser.Answer stolen = other.send("POST", "/api/shots/" + own + "/mask", body);
        assertThat(stolen.status()).isEqualTo(422);
        assertThat(stolen.text()).contains("Ear").contains("was not brought in");
        assertThat(other.send("POST", "/api/shots/" + shot + "/mask", body).status())
                .isEqualTo(404);
        JsonNode version = other.get("/api/shots/" + own + "/versions").json().get(0);
        Browser.Answer saved = other.send(
                "PUT",
                "/api/versions/" + version.get("id").asString() + "/recipe",
                "{\"lock\":" + version.get("lock").asLong() + ",\"step\":\"Mask\",\"recipe\":" + recipe + "}");
        assertThat(saved.status()).isEqualTo(422);
    }

    @Test
    void aNameOfAMaskThatIsNoHashIsRefused() {
        assertThat(mask(with("{\"maskFile\":\"../../etc/passwd\"}"), "/mask").status())
                .isEqualTo(422);
    }

    @Test
    void aPickOutFindsTheRedFenceInItsBoxAndNothingOutside() {
        String line = "\"size\":0.01,\"points\":";
        Browser.Answer mask = mask(
                with("{\"pickOut\":{\"left\":0.28,\"top\":0.2,\"width\":0.44,\"height\":0.6,\"marks\":[{" + line
                        + "[0.36,0.38,1,0.64,0.38,1]},{\"erases\":true," + line + "[0.3,0.75,1,0.7,0.75,1]}]}}"),
                "/mask");
        assertThat(painted(mask, 0.5, 0.36)).isGreaterThan(200);
        assertThat(painted(mask, 0.3, 0.75)).isLessThan(30);
        assertThat(painted(mask, 0.1, 0.5)).isZero();
        assertThat(painted(mask, 0.9, 0.5)).isZero();
    }

    @Test
    void aBoxOutsideThePictureIsRefused() {
        Browser.Answer answer =
                mask(with("{\"pickOut\":{\"left\":0.8,\"top\":0,\"width\":0.5,\"height\":1}}"), "/mask");
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.text()).contains("box of a pick-out");
    }

    @Test
    void theInspectorFindsAnIslandAndRemembersThatItWasLookedAt() {
        byte[] depth = disc(WIDTH, HEIGHT, 60, 0.7, 0.2, 0.03, 220);
        assertThat(browser.upload("/api/shots/" + shot + "/depth-file", "d.png", depth)
                        .status())
                .isEqualTo(200);
        ObjectNode recipe = (ObjectNode) version(browser).get("recipe").deepCopy();
        ((ObjectNode) recipe.get("depth")).put("source", "file").put("snap", 0);
        JsonNode faults = browser.send("POST", "/api/shots/" + shot + "/faults", recipe.toString())
                .json();
        JsonNode first = faults.get(0);
        assertThat(first.get("kind").asString()).isEqualTo("island");
        assertThat(first.get("x").asDouble()).isBetween(0.67, 0.73);
        assertThat(first.get("verdict").isNull()).isTrue();
        assertThat(first.get("proposal").get("target").asDouble()).isBetween(0.2, 0.27);
        String seen = "{\"kind\":\"island\",\"x\":" + first.get("x") + ",\"y\":" + first.get("y")
                + ",\"verdict\":\"skipped\"}";
        assertThat(browser.send("POST", "/api/shots/" + shot + "/inspected", seen)
                        .status())
                .isEqualTo(204);
        assertThat(browser.send("POST", "/api/shots/" + shot + "/faults", recipe.toString())
                        .json()
                        .get(0)
                        .get("verdict")
                        .asString())
                .isEqualTo("skipped");
        // With the proposal it is gone.
        ObjectNode proposal = (ObjectNode) first.get("proposal").deepCopy();
        recipe.putArray("touchups").add(proposal.put("id", "mend"));
        JsonNode after = browser.send("POST", "/api/shots/" + shot + "/faults", recipe.toString())
                .json();
        assertThat(after.size()).isLessThan(faults.size());
        Browser other = browser().signedUp("other" + System.nanoTime());
        assertThat(other.send("POST", "/api/shots/" + shot + "/faults", recipe.toString())
                        .status())
                .isEqualTo(404);
        assertThat(other.send("POST", "/api/shots/" + shot + "/inspected", seen).status())
                .isEqualTo(404);
    }

    @Test
    void aRecipeGoesToAnotherAccountWithItsMasks() {
        ObjectNode recipe = with("{\"maskFile\":\"" + broughtIn() + "\"}");
        JsonNode before = version(browser);
        Browser.Answer changed = browser.send(
                "PUT",
                "/api/versions/" + before.get("id").asString() + "/recipe",
                "{\"lock\":" + before.get("lock") + ",\"step\":\"Mask\",\"recipe\":" + recipe + "}");
        assertThat(changed.status()).isEqualTo(200);
        Browser.Answer file = browser.get("/api/versions/" + before.get("id").asString() + "/file");
        assertThat(file.raw().headers().firstValue("content-disposition").orElse(""))
                .contains("attachment", "First.json");

        Browser other = browser().signedUp("taker" + System.nanoTime());
        String same = readyShot(other, photo(WIDTH, HEIGHT, "jpg"));
        Browser.Answer taken = other.upload("/api/shots/" + same + "/recipe-file", "look.json", file.body());
        assertThat(taken.status()).as(taken.text()).isEqualTo(201);
        assertThat(taken.json().get("warning").isNull()).as("the same file").isTrue();
        assertThat(taken.json().get("version").get("name").asString()).isEqualTo("look");
        JsonNode there = taken.json().get("version").get("recipe");
        assertThat(there.get("band")).isEqualTo(changed.json().get("recipe").get("band"));
        Browser.Answer mask =
                other.send("POST", "/api/shots/" + same + "/mask", "{\"touchup\":\"one\",\"recipe\":" + there + "}");
        assertThat(painted(mask, 0.5, 0.5)).isGreaterThan(200);
        assertThat(painted(mask, 0.1, 0.1)).isZero();

        String wider = readyShot(other, photo(900, 450, "jpg"));
        Browser.Answer warned = other.upload("/api/shots/" + wider + "/recipe-file", "look.json", file.body());
        assertThat(warned.status()).as("its mask has another shape").isEqualTo(422);
        assertThat(other.upload(
                                "/api/shots/" + same + "/recipe-file",
                                "x.json",
                                "{\"format\":1}".getBytes(java.nio.charset.StandardCharsets.UTF_8))
                        .status())
                .isEqualTo(422);
        assertThat(other.get("/api/versions/" + before.get("id").asString() + "/file")
                        .status())
                .isEqualTo(404);
    }
}
