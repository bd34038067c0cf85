package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.yubble.server.account.Accounts;
import app.yubble.server.database.LocalMariaDb;
import app.yubble.server.storage.TestStore;
import app.yubble.server.upkeep.Backup;
import java.io.BufferedReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.JdbcTemplate;
import tools.jackson.databind.JsonNode;

/** Two nodes with pages and one that works, over one database and an object store; no two share a folder. */
class NodesTest {
    @TempDir
    static Path data;

    static LocalMariaDb database;
    static TestStore store;
    static ConfigurableApplicationContext east;
    static ConfigurableApplicationContext west;
    static ConfigurableApplicationContext works;

    @BeforeAll
    static void start() throws Exception {
        database = LocalMariaDb.start(data.resolve("database"));
        store = new TestStore(data.resolve("store"));
        east = node("east", "web");
        west = node("west", "web");
        works = node("works", "work");
    }

    @AfterAll
    static void stop() {
        for (ConfigurableApplicationContext each : new ConfigurableApplicationContext[] {works, west, east}) {
            if (each != null) {
                each.close();
            }
        }
        store.close();
        database.stop();
    }

    private static ConfigurableApplicationContext node(String name, String role) {
        return node(database, name, role, store.settings());
    }

    private static ConfigurableApplicationContext node(
            LocalMariaDb database, String name, String role, Map<String, Object> files) {
        SpringApplication application = new SpringApplication(YubbleServer.class);
        application.setRegisterShutdownHook(false);
        application.setDefaultProperties(database.properties());
        List<String> settings = new ArrayList<>(List.of(
                "--server.port=0",
                "--management.server.port=0",
                "--yubble.node.name=" + name,
                "--yubble.node.role=" + role,
                "--yubble.accounts-per-hour=10000",
                "--yubble.data=" + data.resolve(name),
                "--yubble.models=" + TestNetworks.folder(data),
                "--yubble.limits.own[0].name=small",
                "--yubble.limits.own[0].work=2",
                "--yubble.limits.own[0].shots=7"));
        files.forEach((key, value) -> settings.add("--" + key + "=" + value));
        return application.run(settings.toArray(String[]::new));
    }

    private static int port(ConfigurableApplicationContext node) {
        return Integer.parseInt(node.getEnvironment().getRequiredProperty("local.server.port"));
    }

    private static JsonNode recipe(Browser browser, String shot) {
        return browser.get("/api/shots/" + shot + "/versions").json().get(0).get("recipe");
    }

    private static String deliver(Browser browser, String shot, JsonNode recipe) {
        return browser.send(
                        "POST",
                        "/api/shots/" + shot + "/deliveries",
                        "{\"versionName\":\"First\",\"format\":\"jpeg\",\"quality\":0.9,\"longestSide\":null,\"recipe\":"
                                + recipe + "}")
                .json()
                .get("id")
                .asString();
    }

    private static List<String> states(Browser browser) {
        List<String> out = new ArrayList<>();
        browser.get("/api/deliveries?count=100")
                .json()
                .get("items")
                .forEach(each -> out.add(each.get("state").asString()));
        return out;
    }

    @Test
    void whatIsBroughtInAtOneNodeIsMadeByAnotherAndSeenAtTheThird() throws Exception {
        Browser at = new Browser(port(east)).signedUp("traveller");
        assertThat(at.cookie("yubble-node")).isEqualTo("east");
        String shot = ServerTest.readyShot(at, ServerTest.photo(400, 300, "jpg"));
        Browser then = at.at(port(west));
        String delivery = deliver(then, shot, recipe(then, shot));
        assertThat(then.cookie("yubble-node")).isEqualTo("west");
        ServerTest.waitFor(() -> states(at), states -> states.contains("done"));
        byte[] file = at.get("/api/deliveries/" + delivery + "/file").body();
        assertThat(file).hasSizeGreaterThan(1000);
        assertThat(then.get("/api/deliveries/" + delivery + "/file").body()).isEqualTo(file);
        assertThat(works.getEnvironment().getProperty("local.server.port")).isEqualTo("-1");
    }

    @Test
    void aPageIsToldWhatHappensAtOtherNodes() throws Exception {
        Browser at = new Browser(port(east)).signedUp("listener");
        try (BufferedReader events = at.stream("/api/events")) {
            String shot = ServerTest.readyShot(at.at(port(west)), ServerTest.photo(300, 200, "jpg"));
            String line = events.readLine();
            while (!line.contains("\"ready\"")) {
                line = events.readLine();
            }
            assertThat(line).contains(shot);
        }
    }

    @Test
    void aPageThatComesToAnotherNodeGetsAWholePictureAndThenPatches() {
        Browser at = new Browser(port(east)).signedUp("roamer");
        String shot = ServerTest.readyShot(at, ServerTest.photo(600, 400, "jpg"));
        JsonNode recipe = recipe(at, shot);
        Browser then = at.at(port(west));
        assertThat(preview(at, shot, recipe, 1, "").status()).isEqualTo(200);
        assertThat(preview(at, shot, recipe, 2, ",\"over\":1,\"order\":[]")
                        .raw()
                        .headers()
                        .firstValue("X-Over"))
                .hasValue("1");
        assertThat(preview(then, shot, recipe, 3, ",\"over\":2,\"order\":[]").status())
                .isEqualTo(412);
        assertThat(preview(then, shot, recipe, 4, ",\"over\":2").raw().headers().firstValue("X-Over"))
                .isEmpty();
        assertThat(preview(then, shot, recipe, 5, ",\"over\":4,\"order\":[]")
                        .raw()
                        .headers()
                        .firstValue("X-Over"))
                .hasValue("4");
    }

    private static Browser.Answer preview(Browser at, String shot, JsonNode recipe, int number, String more) {
        return at.send(
                "POST",
                "/api/shots/" + shot + "/preview",
                "{\"recipe\":" + recipe + ",\"longSide\":400,\"page\":\"p\",\"number\":" + number + more + "}");
    }

    @Test
    void whoAsksForMuchDoesNotHoldUpWhoAsksForLittle() {
        Browser greedy = new Browser(port(east)).signedUp("greedy");
        Browser modest = new Browser(port(west)).signedUp("modest");
        String many = ServerTest.readyShot(greedy, ServerTest.photo(2400, 1600, "jpg"));
        String one = ServerTest.readyShot(modest, ServerTest.photo(400, 300, "jpg"));
        JsonNode recipe = recipe(greedy, many);
        for (int i = 0; i < 16; i++) {
            deliver(greedy, many, recipe);
        }
        // The others have been asked for before; this comes in between, and a draft of depth before all.
        deliver(modest, one, recipe(modest, one));
        ServerTest.readyShot(modest, ServerTest.photo(500, 300, "jpg"));
        ServerTest.waitFor(() -> states(modest), states -> states.contains("done"));
        assertThat(states(greedy)).filteredOn(state -> state.equals("waiting")).hasSizeGreaterThan(5);
        greedy.get("/api/deliveries?count=100")
                .json()
                .get("items")
                .forEach(each ->
                        greedy.send("POST", "/api/deliveries/" + each.get("id").asString() + "/cancel", ""));
        assertThat(states(greedy)).doesNotContain("waiting").contains("done");
    }

    @Test
    void anAccountHasWhatTheSettingsSayOfItAndIsToldBefore() {
        Browser small = new Browser(port(east)).signedUp("small");
        JsonNode allowance = small.get("/api/account/allowance").json();
        assertThat(allowance.get("mostWork").asInt()).isEqualTo(2);
        assertThat(allowance.get("mostShots").asInt()).isEqualTo(7);
        assertThat(allowance.get("mostClipSeconds").asInt()).isEqualTo(36_000);
        String shot = ServerTest.readyShot(small, ServerTest.photo(1500, 1000, "jpg"));
        JsonNode recipe = recipe(small, shot);
        int[] answers = new int[8];
        for (int i = 0; i < answers.length; i++) {
            answers[i] = small.send(
                            "POST",
                            "/api/shots/" + shot + "/deliveries",
                            "{\"versionName\":\"First\",\"format\":\"jpeg\",\"quality\":0.9,\"longestSide\":null,\"recipe\":"
                                    + recipe + "}")
                    .status();
        }
        assertThat(Arrays.stream(answers).filter(status -> status == 422).count())
                .isPositive();
        ServerTest.waitFor(() -> states(small), states -> states.stream().allMatch("done"::equals));
    }

    @Test
    void whatIsBackedUpIsRestoredIntoAnEmptyPlaceWithAnotherStore() throws Exception {
        Browser keeper = new Browser(port(east)).signedUp("keeper");
        String shot = ServerTest.readyShot(keeper, ServerTest.photo(400, 300, "jpg"));
        byte[] photo = keeper.get("/api/shots/" + shot + "/thumbnail").body();
        Path folder = data.resolve("backup");
        assertThat(east.getBean(Backup.class).to(folder).told())
                .contains("backed up")
                .doesNotContain(" 0 files");
        assertThat(west.getBean(Backup.class).to(folder).told())
                .as("only what is new")
                .contains(" 0 files");
        assertThatThrownBy(() -> east.getBean(Backup.class).from(folder)).hasMessageContaining("holds data already");

        LocalMariaDb fresh = LocalMariaDb.start(data.resolve("fresh-database"));
        try (ConfigurableApplicationContext restored = node(fresh, "fresh", "web", Map.of())) {
            JdbcTemplate tables = restored.getBean(JdbcTemplate.class);
            tables.execute("create table of_a_newer_version (id int)");
            String damaged = "0".repeat(64);
            Files.writeString(folder.resolve("files").resolve(damaged), "not what its name says");
            Backup.Outcome outcome = restored.getBean(Backup.class).from(folder);
            assertThat(outcome.told()).contains("restored");
            assertThat(outcome.damaged())
                    .as("keeps nothing else from coming back")
                    .containsExactly(damaged);
            assertThat(tables.queryForList("show tables", String.class))
                    .as("tables that the backup does not know would be in the way of an upgrade")
                    .contains("shot")
                    .doesNotContain("of_a_newer_version");
            Browser again = new Browser(port(restored));
            again.get("/api/session");
            assertThat(again.form("/api/session", "name=keeper&password=long+enough+for+keeper")
                            .status())
                    .isEqualTo(204);
            assertThat(again.get("/api/shots/" + shot + "/thumbnail").body()).isEqualTo(photo);
            assertThat(Files.list(data.resolve("fresh/files"))).isNotEmpty();
        } finally {
            fresh.stop();
        }
    }

    @Test
    void whoRunsItSeesHowItIsAndNobodyElse() {
        Browser chief = new Browser(port(east)).signedUp("chief");
        assertThat(chief.get("/api/state").status()).isEqualTo(404);
        assertThat(chief.get("/api/session").json().get("administrator").asBoolean())
                .isFalse();
        east.getBean(Accounts.class).makeAdministrator("Chief");
        assertThat(chief.get("/api/session").json().get("administrator").asBoolean())
                .isTrue();
        JsonNode state = chief.at(port(west)).get("/api/state").json();
        List<String> nodes = new ArrayList<>();
        state.get("nodes")
                .forEach(each -> nodes.add(each.get("name").asString() + " "
                        + each.get("role").asString() + " " + each.get("state").asString()));
        assertThat(nodes).contains("east web ready", "west web ready", "works work ready");
        assertThat(state.get("store").get("accounts").asInt()).isPositive();
        assertThat(state.get("people").asInt()).isPositive();
    }
}
