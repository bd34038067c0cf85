package app.yubble.load;

import static io.gatling.javaapi.core.CoreDsl.StringBody;
import static io.gatling.javaapi.core.CoreDsl.doWhile;
import static io.gatling.javaapi.core.CoreDsl.during;
import static io.gatling.javaapi.core.CoreDsl.exec;
import static io.gatling.javaapi.core.CoreDsl.global;
import static io.gatling.javaapi.core.CoreDsl.jsonPath;
import static io.gatling.javaapi.core.CoreDsl.pause;
import static io.gatling.javaapi.core.CoreDsl.rampUsers;
import static io.gatling.javaapi.core.CoreDsl.rendezVous;
import static io.gatling.javaapi.core.CoreDsl.scenario;
import static io.gatling.javaapi.http.HttpDsl.CookieKey;
import static io.gatling.javaapi.http.HttpDsl.getCookieValue;
import static io.gatling.javaapi.http.HttpDsl.http;
import static io.gatling.javaapi.http.HttpDsl.status;

import io.gatling.javaapi.core.ChainBuilder;
import io.gatling.javaapi.core.ScenarioBuilder;
import io.gatling.javaapi.core.Session;
import io.gatling.javaapi.core.Simulation;
import io.gatling.javaapi.http.HttpProtocolBuilder;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * An open day: people make an account, bring a photo, wait for its depth, drag the aperture for a while, paint, deliver and fetch the
 * file. Settings are system properties: {@code address}, {@code people}, {@code seconds} of dragging, {@code look} in seconds at the whole
 * picture after each {@value #STRETCH} seconds of it (0 to drag without a stop), {@code photo}, {@code arrive} in
 * seconds, {@code wait} between two pictures in milliseconds, {@code no-deliveries}.
 */
public final class OpenDay extends Simulation {
    private static final int PEOPLE = Integer.getInteger("people", 20);
    private static final int SECONDS = Integer.getInteger("seconds", 60);
    private static final int ARRIVE = Integer.getInteger("arrive", Math.max(1, PEOPLE / 4));
    /** Between the answer to one preview and the next request: a page asks as soon as it can, at most 30 times a second. */
    private static final int WAIT = Integer.getInteger("wait", 33);

    private static final int LOOK = Integer.getInteger("look", 0);
    private static final int STRETCH = 5;

    private static final boolean DELIVERS = !Boolean.getBoolean("no-deliveries");

    private static final String PHOTO = Path.of(System.getProperty("photo", "demo/photos/dog.jpg"))
            .toAbsolutePath()
            .toString();
    private static final String RUN = Long.toString(System.currentTimeMillis(), Character.MAX_RADIX);
    private static final int LONG_SIDE = 960;
    private static final int DRAFT_SIDE = 480;
    private static final int DABS = 5;

    private static final Iterator<Map<String, Object>> NAMES = IntStream.iterate(0, last -> last + 1)
            .mapToObj(number -> Map.<String, Object>of("name", "visitor-" + RUN + "-" + number))
            .iterator();

    private final HttpProtocolBuilder page = http.baseUrl(System.getProperty("address", "http://127.0.0.1:8080"))
            .acceptHeader("application/json, image/*;q=0.9, */*;q=0.8")
            .header("X-XSRF-TOKEN", "#{token}")
            .maxConnectionsPerHost(6)
            .disableCaching();

    /** The token is another one after signing in, and stands in a cookie. */
    private static ChainBuilder token() {
        return exec(http("session").get("/api/session").check(status().is(200)))
                .exec(getCookieValue(CookieKey("XSRF-TOKEN").saveAs("token")));
    }

    private static ChainBuilder arrive() {
        return exec(session -> session.set("token", "none"))
                .exec(token())
                .exec(http("make an account")
                        .post("/api/accounts")
                        .header("Content-Type", "application/json")
                        .body(StringBody("{\"name\":\"#{name}\",\"password\":\"six wagons and a #{name}\"}"))
                        .check(status().is(204)))
                .exec(http("sign in")
                        .post("/api/session")
                        .formParam("name", "#{name}")
                        .formParam("password", "six wagons and a #{name}")
                        .check(status().is(204)))
                .exec(token());
    }

    private static ChainBuilder bringIn() {
        return exec(http("make a shoot")
                        .post("/api/shoots")
                        .header("Content-Type", "application/json")
                        .body(StringBody("{\"name\":\"Open day\"}"))
                        .check(jsonPath("$.id").saveAs("shoot")))
                .exec(http("bring in")
                        .post("/api/shoots/#{shoot}/shots")
                        .formUpload("file", PHOTO)
                        .requestTimeout(Duration.ofMinutes(3))
                        .check(jsonPath("$.id").saveAs("shot")))
                .exitHereIfFailed()
                .exec(session -> session.set("state", "").set("asked", System.nanoTime()))
                .exec(doWhile(session -> !List.of("refining", "ready", "failed").contains(session.getString("state")))
                        .on(pause(Duration.ofMillis(500))
                                .exec(http("look whether depth is there")
                                        .get("/api/shots/#{shot}")
                                        .check(jsonPath("$.state").saveAs("state")))))
                .exec(http("versions")
                        .get("/api/shots/#{shot}/versions")
                        .check(
                                jsonPath("$[0].id").saveAs("version"),
                                jsonPath("$[0].lock").saveAs("lock"),
                                jsonPath("$[0].recipe").saveAs("recipe")))
                .exec(session -> session.set("number", 0).set("over", 0));
    }

    /** The recipe with another aperture each time, so that the lens has to be drawn. */
    private static String preview(Session session, int longSide, boolean draft) {
        int number = session.getInt("number");
        String recipe = session.getString("recipe")
                .replaceFirst("\"fNumber\":[0-9.]+", "\"fNumber\":" + (1.4 + number % 40 / 10.0))
                .replaceFirst("(\"aperture\":\\{[^}]*\"strength\":)[0-9.]+", "$1" + (20 + number % 40));
        return "{\"recipe\":" + recipe + ",\"longSide\":" + longSide + ",\"page\":\"page\",\"number\":" + number
                + ",\"draft\":" + draft + "}";
    }

    private static ChainBuilder previewed(String name, int longSide) {
        return exec(session -> session.set("number", session.getInt("number") + 1))
                .exec(http(name)
                        .post("/api/shots/#{shot}/preview")
                        .header("Content-Type", "application/json")
                        .body(StringBody(session -> preview(session, longSide, longSide == DRAFT_SIDE)))
                        .requestTimeout(Duration.ofMinutes(2))
                        .check(status().in(200, 204)));
    }

    private static ChainBuilder drag(int seconds) {
        return exec(during(Duration.ofSeconds(seconds))
                .on(previewed("preview while dragging", DRAFT_SIDE).pause(Duration.ofMillis(WAIT))));
    }

    /** Everybody drags, lets go and looks at times of their own. */
    private static ChainBuilder dragAndLook() {
        return exec(pause(Duration.ZERO, Duration.ofSeconds(STRETCH + LOOK)))
                .exec(during(Duration.ofSeconds(SECONDS))
                        .on(drag(STRETCH)
                                .exec(previewed("preview after letting go", LONG_SIDE))
                                .pause(Duration.ofSeconds(LOOK))));
    }

    private static ChainBuilder paint() {
        return exec(session -> session.set(
                        "recipe",
                        session.getString("recipe").replaceFirst("\"touchups\":\\[]", "\"touchups\":[" + dabs() + "]")))
                .exec(previewed("preview of paint", LONG_SIDE))
                .exec(http("save")
                        .put("/api/versions/#{version}/recipe")
                        .header("Content-Type", "application/json")
                        .body(StringBody("{\"lock\":#{lock},\"step\":\"Paint\",\"recipe\":#{recipe}}"))
                        .check(status().is(200)));
    }

    /** A touch-up that brings into focus, with some dabs in a row. */
    private static String dabs() {
        String points = IntStream.range(0, DABS)
                .mapToObj(i -> String.format(Locale.ROOT, "%.2f,0.5,1", 0.3 + i * 0.05))
                .collect(Collectors.joining(","));
        return "{\"id\":\"t1\",\"name\":\"paint\",\"action\":\"focus\",\"strength\":1,\"target\":0.5,\"shown\":true,"
                + "\"inverted\":false,\"strokes\":[{\"erases\":false,\"size\":0.06,\"softness\":0.3,\"buildUp\":1,\"cling\":0.6,"
                + "\"edges\":\"photo\",\"pressure\":\"nothing\",\"points\":[" + points + "]}]}";
    }

    private static ChainBuilder deliver() {
        return exec(http("deliver")
                        .post("/api/shots/#{shot}/deliveries")
                        .header("Content-Type", "application/json")
                        .body(
                                StringBody(
                                        "{\"versionName\":\"First\",\"format\":\"jpeg\",\"quality\":0.9,\"longestSide\":null,\"recipe\":#{recipe}}"))
                        .check(status().is(202), jsonPath("$.id").saveAs("delivery")))
                .exec(session -> session.set("state", ""))
                .exec(doWhile(session -> !List.of("done", "failed").contains(session.getString("state")))
                        .on(pause(Duration.ofSeconds(1))
                                .exec(http("look whether it is delivered")
                                        .get("/api/deliveries")
                                        .check(jsonPath("$.items[0].state").saveAs("state")))))
                .exec(http("fetch the file")
                        .get("/api/deliveries/#{delivery}/file")
                        .check(status().is(200)));
    }

    /** Made by the load tool. */
    public OpenDay() {
        ScenarioBuilder visitor = scenario("visitor")
                .feed(NAMES)
                .exec(arrive())
                .exec(bringIn())
                // All drag at the same time.
                .exec(rendezVous(PEOPLE))
                .exec(LOOK > 0 ? dragAndLook() : drag(SECONDS))
                .exec(previewed("preview after dragging", LONG_SIDE))
                .exec(paint())
                .exec(DELIVERS ? deliver() : exec(session -> session));
        setUp(visitor.injectOpen(rampUsers(PEOPLE).during(Duration.ofSeconds(ARRIVE))))
                .protocols(page)
                .assertions(global().failedRequests().count().is(0L));
    }
}
