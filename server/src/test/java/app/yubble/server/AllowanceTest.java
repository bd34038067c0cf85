package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.springframework.test.context.TestPropertySource;
import tools.jackson.databind.JsonNode;

/** One account cannot take the server for itself. */
@TestPropertySource(
        properties = {"yubble.most-account-shots=3", "yubble.most-account-bytes=400000", "yubble.most-account-work=2"})
class AllowanceTest extends ServerTest {
    private static Browser.Answer bring(Browser browser, byte[] photo) {
        return browser.upload("/api/shoots/" + newShoot(browser) + "/shots", "photo.jpg", photo);
    }

    @Test
    void moreShotsThanAnAccountMayHaveAreRefusedUntilSomeAreDeleted() {
        Browser browser = browser().signedUp("hoarder");
        String first = readyShot(browser, photo(320, 240, "jpg"));
        readyShot(browser, photo(324, 240, "jpg"));
        readyShot(browser, photo(328, 240, "jpg"));

        Browser.Answer fourth = bring(browser, photo(332, 240, "jpg"));
        assertThat(fourth.status()).isEqualTo(422);
        assertThat(fourth.json().get("detail").asString()).contains("at most 3 photos");
        assertThat(readyShot(browser().signedUp("nextdoor"), photo(332, 240, "jpg")))
                .isNotEmpty();
        browser.send("DELETE", "/api/shots/" + first, "");
        assertThat(bring(browser, photo(332, 240, "jpg")).status()).isEqualTo(201);
    }

    @Test
    void filesOverTheBytesOfAnAccountAreRefusedAndTheUseIsTold() {
        Browser browser = browser().signedUp("weighty");
        byte[] large = photo(500, 310, "bmp");
        byte[] png = photo(320, 240, "png");
        readyShot(browser, png);

        JsonNode used = browser.get("/api/account/allowance").json();
        assertThat(used.get("bytes").asLong()).isEqualTo(png.length);
        assertThat(used.get("mostBytes").asLong()).isEqualTo(400_000);
        assertThat(used.get("shots").asLong()).isEqualTo(1);
        Browser.Answer tooMuch = bring(browser, large);
        assertThat(tooMuch.status()).isEqualTo(422);
        assertThat(tooMuch.json().get("detail").asString()).contains("Delete photos or deliveries first");
    }

    @Test
    void noMoreMayWaitToBeMadeThanIsAllowed() {
        Browser browser = browser().signedUp("impatient");
        String shots = IntStream.range(0, 3)
                .mapToObj(i -> "\"" + readyShot(browser, photo(320 + 4 * i, 240, "jpg")) + "\"")
                .collect(Collectors.joining(","));
        String batch = "{\"shots\":[" + shots
                + "],\"pattern\":\"{photo} {number}\",\"settings\":{\"format\":\"jpeg\",\"quality\":0.9}}";

        Browser.Answer answer = browser.send("POST", "/api/batches", batch);

        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.json().get("detail").asString()).contains("At most 2 things may wait");
        assertThat(browser.get("/api/deliveries").json().get("items")).isEmpty();
    }
}
