package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/**
 * Every operation of the HTTP interface as a stranger and as somebody else, from the document that describes them all: a new one
 * is tested without anybody having to think of it.
 */
class StrangersTest extends ServerTest {
    private static final JsonNode DOCUMENT = JsonMapper.shared().readTree(Path.of("../web/openapi.json"));
    /** For everybody: signing in and what the sign-in page has to know. */
    private static final Set<String> OPEN = Set.of("GET /api/session", "POST /api/accounts");

    private record Operation(String method, String path, JsonNode described) {
        String name() {
            return method + " " + path;
        }

        boolean takesFiles() {
            return described.at("/requestBody/content").has("multipart/form-data");
        }

        JsonNode bodySchema() {
            return described.at("/requestBody/content/application~1json/schema");
        }
    }

    private static List<Operation> operations() {
        List<Operation> all = new ArrayList<>();
        DOCUMENT.get("paths")
                .properties()
                .forEach(path -> path.getValue()
                        .properties()
                        .forEach(each -> all.add(new Operation(
                                each.getKey().toUpperCase(Locale.ROOT), path.getKey(), each.getValue()))));
        return all;
    }

    /** What somebody has. */
    private record Things(Map<String, String> ids, JsonNode recipe) {
        static Things of(Browser owner) {
            String shot = readyShot(owner, photo(320, 240, "jpg"));
            String shoot = owner.get("/api/shots/" + shot).json().get("shootId").asString();
            JsonNode version =
                    owner.get("/api/shots/" + shot + "/versions").json().get(0);
            JsonNode recipe = version.get("recipe");
            String batch = owner.send(
                            "POST",
                            "/api/batches",
                            "{\"shots\":[\"" + shot + "\"],\"settings\":{\"format\":\"jpeg\",\"quality\":0.9}}")
                    .json()
                    .get("id")
                    .asString();
            String delivery =
                    owner.get("/api/batches/" + batch).json().get(0).get("id").asString();
            return new Things(
                    Map.of(
                            "shots", shot,
                            "shoots", shoot,
                            "versions", version.get("id").asString(),
                            "deliveries", delivery,
                            "batches", batch),
                    recipe);
        }

        /** A path with ids in it; what there is no id for gets that of the shot. */
        String path(Operation operation) {
            String[] parts = operation.path.split("/");
            for (int i = 0; i < parts.length; i++) {
                if (parts[i].startsWith("{")) {
                    parts[i] = ids.getOrDefault(parts[i - 1], ids.get("shots"));
                }
            }
            return String.join("/", parts);
        }

        /** A body as it is asked for, about things of the owner. */
        JsonNode body(JsonNode schema) {
            JsonNodeFactory nodes = JsonNodeFactory.instance;
            if (schema.has("$ref")) {
                String name = schema.get("$ref").asString();
                return name.endsWith("/Recipe") ? recipe : body(DOCUMENT.at(name.substring(1)));
            }
            if (schema.has("enum")) {
                return schema.get("enum").get(0);
            }
            JsonNode type = schema.path("type");
            return switch (type.isArray() ? type.get(0).asString() : type.asString()) {
                case "string" ->
                    nodes.stringNode(
                            schema.path("format").asString("").equals("uuid") ? ids.get("shots") : "long enough");
                case "integer" ->
                    nodes.numberNode(Math.max(1, schema.path("minimum").asInt(1)));
                case "number" -> nodes.numberNode(schema.path("minimum").asDouble(0.5));
                case "boolean" -> nodes.booleanNode(false);
                case "array" -> list(schema);
                default -> object(schema);
            };
        }

        private ArrayNode list(JsonNode schema) {
            ArrayNode list = JsonNodeFactory.instance.arrayNode();
            for (int i = 0; i < schema.path("minItems").asInt(0); i++) {
                list.add(body(schema.get("items")));
            }
            return list;
        }

        private ObjectNode object(JsonNode schema) {
            ObjectNode object = JsonNodeFactory.instance.objectNode();
            for (JsonNode required : schema.path("required")) {
                object.set(required.asString(), body(schema.get("properties").get(required.asString())));
            }
            return object;
        }
    }

    private static Browser.Answer asked(Browser browser, Operation operation, Things things) {
        String path = things.path(operation);
        if (operation.takesFiles()) {
            return browser.upload(path, "photo.jpg", photo(32, 24, "jpg"));
        }
        JsonNode schema = operation.bodySchema();
        String body = schema.isMissingNode() ? "" : things.body(schema).toString();
        return operation.method.equals("GET") ? browser.get(path) : browser.send(operation.method, path, body);
    }

    private static List<String> answersOutside(
            Browser browser, Things things, List<Operation> operations, Function<Integer, Boolean> allowed) {
        List<String> wrong = new ArrayList<>();
        for (Operation each : operations) {
            int status = asked(browser, each, things).status();
            if (!allowed.apply(status)) {
                wrong.add(each.name() + " gave " + status);
            }
        }
        return wrong;
    }

    @Test
    void aStrangerGetsNothing() {
        Things things = Things.of(browser().signedUp("robbed"));
        Browser stranger = browser();
        stranger.get("/api/session");
        List<Operation> closed = operations().stream()
                .filter(each -> !OPEN.contains(each.name()))
                .toList();

        assertThat(closed).hasSizeGreaterThan(50);
        assertThat(answersOutside(stranger, things, closed, status -> status == 401))
                .isEmpty();
    }

    @Test
    void whatBelongsToSomebodyElseIsNotThere() {
        Browser owner = browser().signedUp("ownerofall");
        Things things = Things.of(owner);
        Browser other = browser().signedUp("nosy");
        List<Operation> ofThings =
                operations().stream().filter(each -> each.path.contains("{")).toList();

        // 400, 415 and 422 are about the request; whatever tells that a thing is there is wrong.
        Set<Integer> telling = Set.of(400, 404, 415, 422);
        assertThat(answersOutside(other, things, ofThings, telling::contains)).isEmpty();
        long notFound = ofThings.stream()
                .filter(each -> asked(other, each, things).status() == 404)
                .count();
        assertThat(notFound).as("operations that looked for the thing").isGreaterThan(ofThings.size() * 3L / 4);
        assertThat(answersOutside(
                        owner,
                        things,
                        ofThings.stream()
                                .filter(each -> Set.of(
                                                "GET /api/shots/{id}",
                                                "GET /api/shoots/{id}/shots",
                                                "GET /api/versions/{id}",
                                                "GET /api/deliveries/{id}",
                                                "GET /api/batches/{batch}")
                                        .contains(each.name()))
                                .toList(),
                        status -> status == 200))
                .isEmpty();
    }
}
