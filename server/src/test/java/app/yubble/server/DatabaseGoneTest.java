package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

class DatabaseGoneTest extends ServerTest {
    private static void signal(String name) throws IOException, InterruptedException {
        String pid = Files.readString(DATA.resolve("database/pid")).strip();
        assertThat(new ProcessBuilder("kill", "-" + name, pid).start().waitFor())
                .isZero();
    }

    @Test
    void aDatabaseThatIsKilledComesBackWithEverythingInIt() throws Exception {
        Browser browser = browser().signedUp("survivor");
        String shot = readyShot(browser, photo(300, 200, "jpg"));
        signal("KILL");
        JsonNode versions = waitFor(
                        () -> browser.get("/api/shots/" + shot + "/versions"), answer -> answer.status() == 200)
                .json();
        assertThat(versions).hasSize(1);
        assertThat(readyShot(browser, photo(330, 200, "jpg"))).isNotEmpty();
    }

    /** What was being estimated is no failure of the photo: it is estimated again. */
    @Test
    void anEstimateGoesOnWhenTheDatabaseIsBack() throws Exception {
        Browser browser = browser().signedUp("estimated");
        String shot = readyShot(browser, photo(900, 700, "jpg"));
        assertThat(browser.send(
                                "POST",
                                "/api/shots/" + shot + "/depth-estimate",
                                "{\"engine\":\"slow\",\"quality\":\"draft\"}")
                        .status())
                .isEqualTo(202);
        waitFor(
                () -> browser.get("/api/shots/" + shot).json(),
                seen -> seen.get("state").asString().equals("estimating"));
        signal("KILL");

        JsonNode over = null;
        for (int seconds = 0;
                seconds < 150
                        && (over == null || !over.path("state").asString("").equals("ready"));
                seconds++) {
            Thread.sleep(1000);
            over = browser.get("/api/shots/" + shot).json();
        }
        assertThat(over).isNotNull();
        assertThat(over.path("state").asString("")).isEqualTo("ready");
        assertThat(over.path("problem").isNull())
                .as(over.path("problem").toString())
                .isTrue();
    }

    @Test
    void theDatabaseGoingAwayIsToldAndNothingIsLostWhenItIsBack() throws Exception {
        Browser browser = browser().signedUp("patient");
        String shot = readyShot(browser, photo(300, 200, "jpg"));
        JsonNode version =
                browser.get("/api/shots/" + shot + "/versions").json().get(0);
        ObjectNode recipe = ((ObjectNode) version.get("recipe").deepCopy()).put("opacity", 0.5);
        String path = "/api/versions/" + version.get("id").asString() + "/recipe";
        String change = "{\"lock\":" + version.get("lock") + ",\"step\":\"half\",\"recipe\":" + recipe + "}";
        signal("STOP");
        Browser.Answer away;
        try {
            away = browser.send("PUT", path, change);
        } finally {
            signal("CONT");
        }
        assertThat(away.status()).isEqualTo(503);
        assertThat(away.text()).contains("database");
        JsonNode saved = waitFor(() -> browser.send("PUT", path, change).json(), answer -> answer.has("lock"));
        assertThat(saved.get("recipe").get("opacity").asDouble()).isEqualTo(0.5);
        // Long work goes on as well.
        assertThat(readyShot(browser, photo(320, 200, "jpg"))).isNotEmpty();
    }
}
