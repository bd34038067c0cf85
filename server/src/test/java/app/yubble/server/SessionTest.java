package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.system.CapturedOutput;
import org.springframework.boot.test.system.OutputCaptureExtension;
import org.springframework.boot.test.web.server.LocalManagementPort;
import org.springframework.jdbc.core.JdbcTemplate;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

class SessionTest extends ServerTest {
    @Autowired
    private JdbcTemplate database;

    @LocalManagementPort
    private int operatorsPort;

    @Test
    void nothingIsToldWithoutSigningIn() {
        Browser browser = browser();
        for (String path : new String[] {
            "/api/shoots",
            "/api/deliveries",
            "/api/events",
            "/api/openapi",
            "/api/shots/00000000-0000-0000-0000-000000000001"
        }) {
            Browser.Answer answer = browser.get(path);
            assertThat(answer.status()).as(path).isEqualTo(401);
            assertThat(answer.raw().headers().firstValue("content-type").orElse(""))
                    .startsWith("application/problem+json");
        }
        assertThat(browser.get("/api/session").json().get("name").isNull()).isTrue();
    }

    @Test
    void healthAndFiguresAreOnAPortOfTheirOwn() {
        Browser operator = new Browser(operatorsPort);
        assertThat(operator.get("/actuator/health/readiness").text())
                .contains("\"status\":\"UP\"")
                .contains("workers")
                .contains("db");
        assertThat(operator.get("/actuator/prometheus").text()).contains("yubble_security_total");
        assertThat(operator.get("/actuator/env").status()).isEqualTo(404);
        assertThat(operator.get("/api/session").status()).isEqualTo(404);
        assertThat(browser().signedUp("curious").get("/actuator/health").status())
                .isEqualTo(404);
    }

    @ExtendWith(OutputCaptureExtension.class)
    @Test
    void whoComesInAndWhoIsTurnedAwayIsLoggedWithoutSecrets(CapturedOutput log) {
        Browser browser = browser().signedUp("logged");
        Browser.Answer missing = browser.get("/api/shots/" + UUID.randomUUID());
        browser().get("/api/shoots");
        Browser wrong = browser();
        wrong.get("/api/session");
        wrong.form("/api/session", "name=logged&password=not+this+one");
        wrong.form("/api/session", "name=my+secret+word&password=not+this+one");

        String request = missing.raw().headers().firstValue("x-request-id").orElseThrow();
        assertThat(log.getAll())
                .contains("account-made account=logged from=127.0.0.1")
                .contains("signed-in account=logged")
                .contains("sign-in-refused account=logged")
                .contains("sign-in-refused account=unknown")
                .contains("denied account=- from=127.0.0.1 about=GET_/api/shoots")
                .containsPattern(request + ".*not-there account=logged")
                .doesNotContain("long enough for logged")
                .doesNotContain("not this one")
                .doesNotContain("my secret word");
    }

    @Test
    void pagesMayDoNoMoreThanTheyNeed() {
        var headers = browser().get("/sign-in").raw().headers();
        assertThat(headers.firstValue("content-security-policy").orElse(""))
                .contains("default-src 'self'")
                .contains("form-action 'self'")
                .contains("frame-ancestors 'none'");
        assertThat(headers.firstValue("referrer-policy").orElse("")).isEqualTo("same-origin");
        assertThat(headers.firstValue("cross-origin-opener-policy").orElse("")).isEqualTo("same-origin");
        assertThat(headers.firstValue("permissions-policy").orElse("")).contains("camera=()");
    }

    @Test
    void aRequestWithoutTheTokenIsForbidden() {
        Browser browser = browser().signedUp("forged");
        assertThat(browser.sendWithoutToken("POST", "/api/shoots", "{\"name\":\"forged\"}")
                        .status())
                .isEqualTo(403);
        assertThat(browser.get("/api/shoots").json().get("items").size()).isZero();
    }

    @Test
    void signingOutEndsTheSession() {
        Browser browser = browser().signedUp("leaving");
        assertThat(browser.get("/api/session").json().get("name").asString()).isEqualTo("leaving");
        assertThat(browser.form("/api/session/end", "").status()).isEqualTo(204);
        assertThat(browser.get("/api/shoots").status()).isEqualTo(401);
    }

    @Test
    void aPasswordIsChangedWithTheOneBeforeAndAllOtherSessionsEnd() {
        Browser browser = browser().signedUp("changer");
        Browser elsewhere = browser();
        elsewhere.get("/api/session");
        assertThat(elsewhere
                        .form("/api/session", "name=changer&password=long+enough+for+changer")
                        .status())
                .isEqualTo(204);
        String fresh = ",\"password\":\"another one that is long\"}";

        assertThat(browser.send("PUT", "/api/account/password", "{\"before\":\"not mine at all\"" + fresh)
                        .status())
                .isEqualTo(422);
        assertThat(elsewhere.get("/api/shoots").status()).isEqualTo(200);
        assertThat(browser.send("PUT", "/api/account/password", "{\"before\":\"long enough for changer\"" + fresh)
                        .status())
                .isEqualTo(204);

        assertThat(elsewhere.get("/api/shoots").status()).isEqualTo(401);
        assertThat(browser.get("/api/shoots").status()).isEqualTo(200);
        Browser again = browser();
        again.get("/api/session");
        assertThat(again.form("/api/session", "name=changer&password=long+enough+for+changer")
                        .status())
                .isEqualTo(401);
        assertThat(again.form("/api/session", "name=changer&password=another+one+that+is+long")
                        .status())
                .isEqualTo(204);
    }

    @Test
    void sessionsAreSeenAndEndedAndSomebodyElsesAreNot() {
        Browser browser = browser().signedUp("manifold");
        Browser elsewhere = browser();
        elsewhere.get("/api/session");
        elsewhere.form("/api/session", "name=manifold&password=long+enough+for+manifold");

        JsonNode open = browser.get("/api/account/sessions").json();

        assertThat(open).hasSize(2);
        JsonNode theirs = open.get(0).get("current").asBoolean() ? open.get(1) : open.get(0);
        String path = "/api/account/sessions/" + theirs.get("id").asString();
        assertThat(browser().signedUp("meddler").send("DELETE", path, "").status())
                .isEqualTo(404);
        assertThat(elsewhere.get("/api/shoots").status()).isEqualTo(200);
        assertThat(browser.send("DELETE", path, "").status()).isEqualTo(204);
        assertThat(elsewhere.get("/api/shoots").status()).isEqualTo(401);
        assertThat(browser.get("/api/account/sessions").json()).hasSize(1);
    }

    @Test
    void lastUseIsWrittenOnceAMinuteOnly() {
        Browser browser = browser().signedUp("frequent");
        String lastUse = "select last_access_time from SPRING_SESSION where principal_name = 'frequent'";
        Long first = database.queryForObject(lastUse, Long.class);
        browser.get("/api/shoots");
        assertThat(database.queryForObject(lastUse, Long.class)).isEqualTo(first);

        database.update("update SPRING_SESSION set last_access_time = last_access_time - 90000, expiry_time ="
                + " expiry_time - 90000 where principal_name = 'frequent'");
        browser.get("/api/shoots");
        assertThat(database.queryForObject(lastUse, Long.class)).isGreaterThanOrEqualTo(first);
    }

    @Test
    void weakPasswordsAndTakenNamesAreRefused() {
        Browser browser = browser().signedUp("taken");
        assertThat(browser.send("POST", "/api/accounts", "{\"name\":\"fresh\",\"password\":\"short\"}")
                        .text())
                .contains("at least 10 characters");
        assertThat(browser.send("POST", "/api/accounts", "{\"name\":\"taken\",\"password\":\"long enough too\"}")
                        .status())
                .isEqualTo(409);
    }

    @ParameterizedTest
    @ValueSource(strings = {"password1234", "qwertyuiop", "1234567890", "Passw0rd2026", "eagereager", "yubbleyubble"})
    void passwordsThatEverybodyTriesFirstAreRefused(String password) {
        Browser browser = browser();
        browser.get("/api/session");
        Browser.Answer answer =
                browser.send("POST", "/api/accounts", "{\"name\":\"eager\",\"password\":\"" + password + "\"}");
        assertThat(answer.status()).as(answer.text()).isEqualTo(422);
        assertThat(answer.text()).contains("first that somebody would try");
    }

    @Test
    void guessingPasswordsIsSlowedDown() {
        Browser browser = browser().signedUp("guessed");
        for (int i = 0; i < 8; i++) {
            assertThat(browser.form("/api/session", "name=guessed&password=wrong" + i)
                            .status())
                    .isEqualTo(401);
        }
        assertThat(browser.form("/api/session", "name=guessed&password=wrong").status())
                .isEqualTo(429);
    }

    @Test
    void anotherWayToWriteTheAddressIsSlowedDownTooAndOneLettersAccentIsAnotherName() {
        Browser browser = browser().signedUp("plain");
        for (int i = 0; i < 4; i++) {
            assertThat(browser.form("/api/%73ession", "name=PLAIN&password=wrong" + i)
                            .status())
                    .isEqualTo(401);
            browser.form("/api/session", "name=%EF%BC%B0lain&password=wrong" + i);
        }
        assertThat(browser.form("/api/session", "name=plain&password=long+enough+for+plain")
                        .status())
                .isEqualTo(429);
        assertThat(browser.form("/api/session", "name=pl%C3%A4in&password=long+enough+for+plain")
                        .status())
                .as("another name")
                .isEqualTo(401);
    }

    @Test
    void namesThatLookAlikeAreOneAndWhatCannotBeSeenIsRefused() {
        Browser browser = browser().signedUp("seen");
        for (String name : new String[] {"SEEN", " seen ", "\uff53een"}) {
            assertThat(browser.send("POST", "/api/accounts", account(name)).status())
                    .as(name)
                    .isEqualTo(409);
        }
        for (String name : new String[] {"se\u200ben", "a\u0007b", "half\ud83d"}) {
            assertThat(browser.send("POST", "/api/accounts", account(name)).text())
                    .contains("cannot be seen");
        }
        assertThat(browser.send("POST", "/api/accounts", account("se\u00ebn")).status())
                .isEqualTo(204);
    }

    private static String account(String name) {
        StringBuilder escaped = new StringBuilder();
        name.chars().forEach(c -> escaped.append(String.format("\\u%04x", c)));
        return "{\"name\":\"" + escaped + "\",\"password\":\"long enough for all\"}";
    }

    @Test
    void strangersSendNoFilesAndNobodySendsMoreThanARecipe() {
        Browser stranger = browser();
        stranger.get("/api/session");
        assertThat(stranger.upload("/api/shoots/1/shots", "large.jpg", new byte[5 << 20])
                        .status())
                .isEqualTo(401);
        assertThat(stranger.form("/api/session", "name=" + "x".repeat(20_000)).status())
                .isEqualTo(413);
        Browser browser = browser().signedUp("sender");
        for (String type : new String[] {"application/json", "application/x+json", "Application/JSON", "text/plain"}) {
            Browser.Answer answer = browser.sendAs(type, "/api/shoots", new byte[40 << 20]);
            assertThat(answer.status()).as(type).isEqualTo(413);
            assertThat(answer.text()).contains("32 MB");
        }
    }

    /** The interface's types are generated from this file; it must be what the server really offers. */
    @Test
    void theOpenApiDocumentIsTheCommittedOne() throws IOException {
        Browser browser = browser().signedUp("reader");
        JsonNode document = browser.get("/api/openapi").json();
        ((tools.jackson.databind.node.ObjectNode) document).remove("servers");
        JsonMapper json = JsonMapper.builder()
                .enable(SerializationFeature.INDENT_OUTPUT)
                .enable(SerializationFeature.ORDER_MAP_ENTRIES_BY_KEYS)
                .build();
        Path committed = Path.of("../web/openapi.json");
        String text = json.writeValueAsString(json.treeToValue(document, Object.class)) + "\n";
        if (System.getProperty("yubble.write-openapi") != null) {
            Files.writeString(committed, text);
        }
        assertThat(text)
                .as("after changing the API run: mvn -pl server test -Dtest=SessionTest -Dyubble.write-openapi")
                .isEqualTo(Files.readString(committed));
    }
}
