package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.networknt.schema.InputFormat;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import jakarta.persistence.EntityManagerFactory;
import java.util.ArrayList;
import java.util.List;
import org.hibernate.SessionFactory;
import org.hibernate.stat.Statistics;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** The OpenAPI document says what the server answers, and lists stay small and cheap however long they get. */
class ContractTest extends ServerTest {
    @Autowired
    private EntityManagerFactory entities;

    @Test
    void everyAnswerIsAsTheDocumentSays() {
        Browser browser = browser().signedUp("contract");
        JsonNode document = browser.get("/api/openapi").json();
        String shot = readyShot(browser, photo(300, 200, "jpg"));
        JsonNode version =
                browser.get("/api/shots/" + shot + "/versions").json().get(0);
        JsonNode recipe = version.get("recipe");
        String shoot = browser.get("/api/shots/" + shot).json().get("shootId").asString();
        Browser.Answer delivery = browser.send(
                "POST",
                "/api/shots/" + shot + "/deliveries",
                "{\"versionName\":\"x\",\"format\":\"jpeg\",\"quality\":0.9,\"recipe\":" + recipe + "}");
        assertAnswer(document, "post", "/api/shots/{shot}/deliveries", "202", delivery);
        for (String path : List.of(
                "/api/session",
                "/api/shoots",
                "/api/deliveries",
                "/api/settings",
                "/api/lens/characters",
                "/api/shoots/{id}/shots",
                "/api/shots/{id}",
                "/api/shots/{id}/things",
                "/api/shots/{shot}/versions",
                "/api/versions/{id}")) {
            String id = path.contains("shoots") ? shoot : path.contains("versions/") ? text(version, "id") : shot;
            assertAnswer(document, "get", path, "200", browser.get(path.replaceAll("\\{\\w+}", id)));
        }
        assertAnswer(
                document,
                "post",
                "/api/shots/{id}/focus",
                "200",
                browser.send(
                        "POST", "/api/shots/" + shot + "/focus", "{\"kind\":\"subject\",\"recipe\":" + recipe + "}"));
        assertAnswer(
                document,
                "post",
                "/api/shots/{id}/faults",
                "200",
                browser.send("POST", "/api/shots/" + shot + "/faults", recipe.toString()));
        assertAnswer(document, "get", "/api/shots/{id}", "default", browser.get("/api/shots/" + shoot));
        assertAnswer(
                document,
                "post",
                "/api/shots/{id}/faults",
                "default",
                browser.send("POST", "/api/shots/" + shot + "/faults", "{}"));
    }

    private static String text(JsonNode node, String name) {
        return node.get(name).asString();
    }

    private static void assertAnswer(
            JsonNode document, String method, String path, String status, Browser.Answer answer) {
        JsonNode response =
                document.path("paths").path(path).path(method).path("responses").path(status);
        ObjectNode schema = (ObjectNode)
                response.path("content").iterator().next().path("schema").deepCopy();
        schema.set("components", document.path("components"));
        assertThat(JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012)
                        .getSchema(schema.toString())
                        .validate(answer.text(), InputFormat.JSON))
                .as("%s %s: %s", method, path, answer.text())
                .isEmpty();
        // A field that the document does not know would pass.
        assertKnown(document, schema, JsonMapper.shared().readTree(answer.text()), path);
    }

    private static void assertKnown(JsonNode document, JsonNode schema, JsonNode answer, String place) {
        JsonNode own =
                schema.has("$ref") ? document.at(schema.path("$ref").asString().substring(1)) : schema;
        if (own.has("anyOf")) {
            own = own.path("anyOf").path(0);
            assertKnown(document, own, answer, place);
        } else if (answer.isArray()) {
            for (JsonNode each : answer) {
                assertKnown(document, own.path("items"), each, place);
            }
        } else if (answer.isObject()) {
            JsonNode properties = own.path("properties");
            answer.forEachEntry((name, value) -> {
                assertThat(properties.has(name)).as("%s of %s", name, place).isTrue();
                assertKnown(document, properties.path(name), value, place + "." + name);
            });
        }
    }

    @Test
    void listsAreGivenAPageAtATimeWithoutOmissions() {
        Browser browser = browser().signedUp("pages");
        List<String> made = new ArrayList<>();
        for (int i = 0; i < 7; i++) {
            made.add(0, newShoot(browser));
        }
        List<String> seen = new ArrayList<>();
        String next = "";
        int pages = 0;
        while (next != null) {
            JsonNode page = browser.get("/api/shoots?count=3" + next).json();
            page.get("items").forEach(each -> seen.add(text(each, "id")));
            next = page.get("next").isNull() ? null : "&after=" + text(page, "next");
            pages++;
        }
        assertThat(pages).isEqualTo(3);
        assertThat(seen).isEqualTo(made);
        assertThat(browser.get("/api/shoots?count=900").status()).isEqualTo(400);
        assertThat(browser.get("/api/shoots?after=" + "00000000-0000-0000-0000-000000000001")
                        .status())
                .isEqualTo(404);
        String shoot = made.get(0);
        List<String> shots = new ArrayList<>();
        for (int i = 0; i < 3; i++) {
            shots.add(text(
                    browser.upload("/api/shoots/" + shoot + "/shots", i + ".jpg", photo(60, 40, "jpg"))
                            .json(),
                    "id"));
        }
        JsonNode first = browser.get("/api/shoots/" + shoot + "/shots?count=2").json();
        JsonNode last = browser.get("/api/shoots/" + shoot + "/shots?count=2&after=" + text(first, "next"))
                .json();
        assertThat(List.of(
                        text(first.get("items").get(0), "id"),
                        text(first.get("items").get(1), "id"),
                        text(last.get("items").get(0), "id")))
                .isEqualTo(shots);
        assertThat(last.get("next").isNull()).isTrue();
        assertThat(browser.get("/api/shoots?count=1")
                        .json()
                        .get("items")
                        .get(0)
                        .get("shots")
                        .asInt())
                .isEqualTo(3);
    }

    @Test
    void aLongerListTakesNoMoreQuestions() {
        Browser browser = browser().signedUp("questions");
        String shot = readyShot(browser, photo(60, 40, "jpg"));
        String shoot = text(browser.get("/api/shots/" + shot).json(), "shootId");
        String version =
                text(browser.get("/api/shots/" + shot + "/versions").json().get(0), "id");
        List<String> lists = List.of(
                "/api/shoots",
                "/api/shoots/" + shoot + "/shots",
                "/api/shots/" + shot + "/versions",
                "/api/deliveries");
        List<Long> before = lists.stream().map(path -> questions(browser, path)).toList();
        for (int i = 0; i < 4; i++) {
            newShoot(browser);
            browser.upload("/api/shoots/" + shoot + "/shots", i + ".jpg", photo(60, 40, "jpg"));
            browser.send("POST", "/api/versions/" + version + "/duplicate", "{\"name\":\"copy " + i + "\"}");
        }
        assertThat(lists.stream().map(path -> questions(browser, path))).isEqualTo(before);
    }

    /** Other threads ask as well; the fewest of some tries are those of the list. */
    private long questions(Browser browser, String path) {
        Statistics statistics = entities.unwrap(SessionFactory.class).getStatistics();
        statistics.setStatisticsEnabled(true);
        long fewest = Long.MAX_VALUE;
        for (int i = 0; i < 15; i++) {
            statistics.clear();
            assertThat(browser.get(path).status()).isEqualTo(200);
            fewest = Math.min(fewest, statistics.getPrepareStatementCount());
        }
        return fewest;
    }
}
