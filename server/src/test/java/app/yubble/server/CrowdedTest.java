package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.media.picture.PictureReader;
import app.yubble.server.editing.Crowd;
import app.yubble.server.editing.Drawing;
import io.micrometer.core.instrument.MeterRegistry;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.beans.factory.annotation.Autowired;
import tools.jackson.databind.JsonNode;

/** A server of which many people want something at once. */
class CrowdedTest extends ServerTest {
    @Autowired
    private Drawing drawing;

    @Autowired
    private MeterRegistry meters;

    @ParameterizedTest
    @CsvSource({"true, 320", "false, 640"})
    @Timeout(60)
    void aDraftIsSmallerInsteadOfLateAndWhatIsToStayIsNot(boolean draft, int side) {
        Browser browser = browser().signedUp("crowded" + draft);
        String shot = readyShot(browser, photo(900, 600, "jpg"));
        JsonNode recipe =
                browser.get("/api/shots/" + shot + "/versions").json().get(0).get("recipe");
        String wanted =
                "{\"recipe\":" + recipe + ",\"longSide\":640,\"page\":\"p\",\"number\":1,\"draft\":" + draft + "}";
        CompletableFuture<Browser.Answer> answer;
        try (Crowd crowd = new Crowd(drawing, meters)) {
            answer = CompletableFuture.supplyAsync(
                    () -> browser.send("POST", "/api/shots/" + shot + "/preview", wanted));
            crowd.awaitUsed(3);
            crowd.grow(16);
            crowd.letFirstGo();
            Browser.Answer picture = answer.join();
            assertThat(picture.status()).isEqualTo(200);
            assertThat(PictureReader.DEFAULT
                            .read(picture.body())
                            .picture()
                            .size()
                            .longSide())
                    .isEqualTo(side);
            assertThat(picture.raw().headers().firstValue("X-Region").orElse(""))
                    .endsWith(side + " " + Math.round(side * 2 / 3f));
        }
    }
}
