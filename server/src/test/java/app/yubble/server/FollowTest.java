package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.zip.ZipInputStream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** A striped disc goes to the right and comes nearer. */
class FollowTest extends ServerTest {
    private static final int FRAMES = 36;
    private static final JsonMapper JSON = new JsonMapper();

    @TempDir
    static Path folder;

    private static String readyClip(Browser browser) throws IOException {
        Path film = ClipShotTest.ffmpeg(
                folder.resolve("disc.mkv"),
                "-f lavfi -i nullsrc=s=320x180:r=24:d=1.5 -vf"
                        + " geq=lum='if(lt(hypot(X-60-5*N,Y-90),22),120+90*sin(X/2-2.5*N)*cos(Y/3),70)':cb=128:cr=128 -c:v ffv1 OUT");
        Path depth = ClipShotTest.ffmpeg(
                folder.resolve("disc-depth.mkv"),
                "-f lavfi -i nullsrc=s=320x180:r=24:d=1.5 -vf geq=lum='if(lt(hypot(X-60-5*N,Y-90),30),51+4*N,10)':cb=128:cr=128,format=gray"
                        + " -c:v ffv1 OUT");
        String shot = ClipShotTest.bringIn(browser, newShoot(browser), "disc.mkv", Files.readAllBytes(film))
                .json()
                .get("id")
                .asString();
        waitFor(
                () -> browser.get("/api/shots/" + shot).json(),
                each -> each.get("state").asString().equals("ready"));
        ClipShotTest.broughtIn(browser, shot, "disc-depth.mkv", depth);
        return shot;
    }

    private static String follow(String puts) {
        return "{\"id\":\"a\",\"name\":\"Disc\",\"width\":0.06,\"smooth\":0,\"puts\":" + puts + "}";
    }

    private static Browser.Answer asked(Browser browser, String shot, String follow) {
        return browser.send(
                "POST",
                "/api/shots/" + shot + "/follow",
                "{\"follow\":\"a\",\"recipe\":{\"format\":\"yubble-recipe\",\"version\":5,\"depth\":{\"source\":\"file\",\"snap\":0},"
                        + "\"follows\":[" + follow + "]}}");
    }

    private static JsonNode tracked(Browser browser, String shot, String follow) {
        return waitFor(
                () -> {
                    Browser.Answer answer = asked(browser, shot, follow);
                    assertThat(answer.status()).as(answer.text()).isEqualTo(200);
                    return answer.json();
                },
                view -> view.get("done").doubleValue() >= 1
                        || !view.path("fault").isNull());
    }

    @Test
    void aPointIsFollowedAndFocusKeepsToIt() throws IOException {
        Browser browser = browser().signedUp("follower");
        String shot = readyClip(browser);
        String follow = follow("[{\"at\":0.25,\"x\":0.28125,\"y\":0.5}]");
        JsonNode view = tracked(browser, shot, follow);
        assertThat(view.get("frames").size()).isEqualTo(FRAMES);
        for (int i = 0; i < FRAMES; i++) {
            JsonNode frame = view.get("frames").get(i);
            assertThat(frame.get("sure").intValue()).as("frame %d", i).isEqualTo(2);
            assertThat(frame.get("x").doubleValue() * 320).isCloseTo(60.5 + 5 * i, within(1.0));
            assertThat(frame.get("nearness").doubleValue()).isCloseTo((35 + 4 * i) / 219.0, within(0.01));
        }
        ObjectNode recipe =
                (ObjectNode) ClipShotTest.version(browser, shot).get("recipe").deepCopy();
        ((ObjectNode) recipe.get("depth")).put("source", "file").put("snap", 0);
        ((ObjectNode) recipe.get("aperture")).put("mode", "free").put("strength", 60);
        ((ObjectNode) recipe.get("band"))
                .put("near", 0.05)
                .put("far", 0)
                .put("nearFalloff", 0)
                .put("farFalloff", 0);
        byte[] without = ClipShotTest.preview(browser, shot, recipe, 30);
        recipe.putArray("follows").add(JSON.readTree(follow));
        byte[] with = ClipShotTest.preview(browser, shot, recipe, 30);
        assertThat(stripes(with)).isGreaterThan(2 * stripes(without));
        // A delivery renders the same, also when nothing has been tracked yet.
        recipe.putArray("follows").add(JSON.readTree(follow("[{\"at\":1,\"x\":0.5625,\"y\":0.5}]")));
        JsonNode done = ClipShotTest.finished(
                browser, ClipShotTest.deliver(browser, shot, recipe, "png-frames", "{\"from\":30,\"end\":32}"));
        assertThat(done.get("state").asString()).as(done.toString()).isEqualTo("done");
    }

    @Test
    void aBlurShapeMovesAlongWithAPointInPreviewsAndDeliveries() throws IOException {
        Browser browser = browser().signedUp("carrier");
        String shot = readyClip(browser);
        String follow = follow("[{\"at\":0.25,\"x\":0.28125,\"y\":0.5}]").replace("{\"id\"", "{\"focus\":false,\"id\"");
        tracked(browser, shot, follow);
        ObjectNode recipe =
                (ObjectNode) ClipShotTest.version(browser, shot).get("recipe").deepCopy();
        ((ObjectNode) recipe.get("depth")).put("source", "file").put("snap", 0);
        ((ObjectNode) recipe.get("band")).put("near", 1).put("far", 0);
        double sharp = stripes(ClipShotTest.preview(browser, shot, recipe, 30));
        ObjectNode shape = recipe.putArray("shapes").addObject();
        shape.put("id", "s")
                .put("x", 0.28125)
                .put("width", 0.2)
                .put("height", 0.2)
                .put("strength", 60);
        recipe.putArray("follows").add(JSON.readTree(follow));
        assertThat(stripes(ClipShotTest.preview(browser, shot, recipe, 30)))
                .as("it lies where the disc was")
                .isGreaterThan(0.9 * sharp);
        shape.put("follow", "a").put("tiedAt", 0.25);
        assertThat(stripes(ClipShotTest.preview(browser, shot, recipe, 30))).isLessThan(0.3 * sharp);
        JsonNode done = ClipShotTest.finished(
                browser, ClipShotTest.deliver(browser, shot, recipe, "png-frames", "{\"from\":30,\"end\":31}"));
        byte[] zip = browser.get("/api/deliveries/" + done.get("id").asString() + "/file")
                .body();
        try (ZipInputStream frames = new ZipInputStream(new ByteArrayInputStream(zip))) {
            assertThat(frames.getNextEntry()).isNotNull();
            assertThat(stripes(frames.readAllBytes())).as("delivered").isLessThan(0.3 * sharp);
        }
        shape.putArray("marks").addObject().put("at", 9);
        assertThat(browser.send(
                                "POST",
                                "/api/shots/" + shot + "/follow",
                                JSON.createObjectNode()
                                        .put("follow", "a")
                                        .set("recipe", recipe)
                                        .toString())
                        .json()
                        .get("detail")
                        .asString())
                .contains("9.0 s");
    }

    private static ObjectNode keeping(Browser browser, String shot, String said) throws IOException {
        ObjectNode recipe =
                (ObjectNode) ClipShotTest.version(browser, shot).get("recipe").deepCopy();
        ((ObjectNode) recipe.get("depth")).put("source", "file").put("snap", 0);
        ((ObjectNode) recipe.get("band")).put("near", 1).put("far", 0);
        ((ObjectNode) recipe.get("aperture")).put("mode", "free").put("strength", 60);
        recipe.putArray("touchups")
                .addObject()
                .put("id", "k")
                .put("action", "blur")
                .put("strength", 0.6)
                .set("kept", JSON.readTree(said));
        return recipe;
    }

    private static Browser.Answer kept(Browser browser, String shot, ObjectNode recipe, String touchup) {
        return browser.send(
                "POST",
                "/api/shots/" + shot + "/keep",
                JSON.createObjectNode()
                        .put("touchup", touchup)
                        .set("recipe", recipe)
                        .toString());
    }

    private static JsonNode carried(Browser browser, String shot, ObjectNode recipe) {
        return waitFor(() -> kept(browser, shot, recipe, "k").json(), view -> {
            assertThat(view.path("fault").isNull()).as(view.toString()).isTrue();
            return view.get("done").doubleValue() >= 1;
        });
    }

    private static String click(double at, double x, String more) {
        return "[{\"at\":" + at + ",\"by\":\"click\",\"marks\":[{\"size\":0.02,\"points\":[" + x + ",0.5,1]}]}" + more
                + "]";
    }

    @Test
    void aSubjectIsKeptThroughTheClipAndPutRight() throws IOException {
        Browser browser = browser().signedUp("keeper");
        String shot = readyClip(browser);
        ObjectNode recipe = keeping(browser, shot, click(0.25, 0.28125, ""));
        ObjectNode plain = recipe.deepCopy();
        plain.putArray("touchups");
        double sharp = stripes(ClipShotTest.preview(browser, shot, plain, 30));
        JsonNode view = carried(browser, shot, recipe);
        assertThat(view.get("seen").size()).isEqualTo(1);
        assertThat(view.get("seen").get(0).get("to").intValue()).isEqualTo(FRAMES);
        assertThat(stripes(ClipShotTest.preview(browser, shot, recipe, 30))).isLessThan(0.3 * sharp);
        // A mark that drops all of it later on.
        String drop =
                ",{\"at\":1.25,\"by\":\"carried\",\"marks\":[{\"erases\":true,\"size\":0.17,\"points\":[0.65625,0.5,1]}]}";
        ObjectNode less = keeping(browser, shot, click(0.25, 0.28125, drop));
        carried(browser, shot, less);
        assertThat(stripes(ClipShotTest.preview(browser, shot, less, 30))).isGreaterThan(0.9 * sharp);
        assertThat(stripes(ClipShotTest.preview(browser, shot, recipe, 30))).isLessThan(0.3 * sharp);
        // A delivery carries it, also when nobody has asked before.
        ObjectNode fresh = keeping(browser, shot, click(1, 0.5625, ""));
        JsonNode done = ClipShotTest.finished(
                browser, ClipShotTest.deliver(browser, shot, fresh, "png-frames", "{\"from\":30,\"end\":31}"));
        byte[] zip = browser.get("/api/deliveries/" + done.get("id").asString() + "/file")
                .body();
        try (ZipInputStream frames = new ZipInputStream(new ByteArrayInputStream(zip))) {
            assertThat(frames.getNextEntry()).isNotNull();
            assertThat(stripes(frames.readAllBytes())).as("delivered").isLessThan(0.3 * sharp);
        }
    }

    @Test
    void whatCannotBeKeptIsRefusedWithTheReason() throws IOException {
        Browser browser = browser().signedUp("keeprefused");
        String shot = readyClip(browser);
        ObjectNode recipe = keeping(browser, shot, click(0.25, 0.28125, ""));
        assertThat(kept(browser, shot, recipe, "none").status()).isEqualTo(404);
        ObjectNode late = keeping(browser, shot, click(9, 0.5, ""));
        assertThat(kept(browser, shot, late, "k").json().get("detail").asString())
                .contains("9.0 s");
        ObjectNode unmarked = keeping(browser, shot, "[{\"at\":0,\"by\":\"click\"}]");
        assertThat(kept(browser, shot, unmarked, "k").status()).isEqualTo(422);
        ObjectNode orphan = keeping(browser, shot, click(0, 0.2, "").replace("click", "carried"));
        assertThat(kept(browser, shot, orphan, "k").status()).isEqualTo(422);
        // Without depth it waits.
        ((ObjectNode) recipe.get("depth")).put("source", "camera");
        assertThat(kept(browser, shot, recipe, "k").json().get("waits").booleanValue())
                .isTrue();
        String photo = readyShot(browser, photo(320, 180, "jpg"));
        assertThat(kept(browser, photo, recipe, "k").json().get("detail").asString())
                .contains("nothing to keep");
        assertThat(kept(browser().signedUp("keepother"), shot, recipe, "k").status())
                .isEqualTo(404);
        assertThat(Arrays.asList(401, 403))
                .contains(kept(browser(), shot, recipe, "k").status());
    }

    /** How much neighbours differ along the disc's middle line at frame 30. */
    private static double stripes(byte[] jpeg) throws IOException {
        BufferedImage image = ImageIO.read(new ByteArrayInputStream(jpeg));
        double sum = 0;
        for (int x = 195; x < 225; x++) {
            int at = x * image.getWidth() / 320;
            int y = image.getHeight() / 2;
            sum += Math.abs((image.getRGB(at, y) & 0xff) - (image.getRGB(at + 2, y) & 0xff));
        }
        return sum;
    }

    @Test
    void whatCannotBeFollowedIsRefusedWithTheReason() throws IOException {
        Browser browser = browser().signedUp("followrefused");
        String shot = readyClip(browser);
        Browser.Answer late = asked(browser, shot, follow("[{\"at\":9,\"x\":0.5,\"y\":0.5}]"));
        assertThat(late.status()).isEqualTo(422);
        assertThat(late.json().get("detail").asString()).contains("9.0 s").contains("1.499 s long");
        assertThat(asked(browser, shot, follow("[]")).status()).isEqualTo(422);
        assertThat(asked(browser, shot, follow("[{\"at\":0,\"x\":1.5,\"y\":0.5}]"))
                        .status())
                .isEqualTo(422);
        String photo = readyShot(browser, photo(320, 180, "jpg"));
        Browser.Answer still = asked(browser, photo, follow("[{\"at\":0,\"x\":0.5,\"y\":0.5}]"));
        assertThat(still.json().get("detail").asString()).contains("nothing to follow");
        // On what looks the same everywhere it is unsure from the first frame.
        JsonNode flat = tracked(browser, shot, follow("[{\"at\":0,\"x\":0.9,\"y\":0.1}]"));
        flat.get("frames")
                .forEach(each -> assertThat(each.get("sure").intValue()).isLessThan(2));
        Browser other = browser().signedUp("followother");
        assertThat(asked(other, shot, follow("[{\"at\":0,\"x\":0.5,\"y\":0.5}]"))
                        .status())
                .isEqualTo(404);
        assertThat(Arrays.asList(401, 403))
                .contains(asked(browser(), shot, follow("[{\"at\":0,\"x\":0.5,\"y\":0.5}]"))
                        .status());
    }
}
