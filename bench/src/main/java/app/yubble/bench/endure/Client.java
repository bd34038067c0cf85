package app.yubble.bench.endure;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.ConnectException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.UnaryOperator;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Somebody with an account who talks to the server as the page does; to several nodes in turn, and to the next one when one is away. */
final class Client {
    private static final Duration LONGEST = Duration.ofMinutes(3);
    private static final String BOUNDARY = "----part";
    private static final int OK = 200;
    private static final int REDIRECT = 300;

    private final int[] ports;
    private final AtomicInteger requests = new AtomicInteger();
    private final CookieManager cookies = new CookieManager();
    private final HttpClient http = HttpClient.newBuilder()
            .cookieHandler(cookies)
            .connectTimeout(Duration.ofSeconds(5))
            .build();

    Client(int... ports) {
        this.ports = ports;
    }

    /** What came back, and after how long. */
    record Answer(int status, byte[] body, long millis) {
        boolean isGood() {
            return status >= OK && status < REDIRECT;
        }

        JsonNode json() {
            return JsonMapper.shared().readTree(body);
        }

        String text() {
            return new String(body, StandardCharsets.UTF_8);
        }

        /** @throws IOException when it was refused */
        Answer required() throws IOException {
            if (!isGood()) {
                throw new IOException("answered " + status + ": " + text());
            }
            return this;
        }
    }

    /** Makes an account and signs in. */
    Client signedUp(String name) throws IOException {
        String password = "a long word for " + name;
        get("/api/session");
        post("/api/accounts", "{\"name\":\"" + name + "\",\"password\":\"" + password + "\"}")
                .required();
        send(
                        "/api/session",
                        request -> request.header("Content-Type", "application/x-www-form-urlencoded")
                                .POST(HttpRequest.BodyPublishers.ofString(
                                        "name=" + name + "&password=" + password.replace(' ', '+'))))
                .required();
        // The token is another one now.
        get("/api/session");
        return this;
    }

    Answer get(String path) throws IOException {
        return send(path, HttpRequest.Builder::GET);
    }

    Answer post(String path, String json) throws IOException {
        return json("POST", path, json);
    }

    Answer put(String path, String json) throws IOException {
        return json("PUT", path, json);
    }

    Answer delete(String path) throws IOException {
        return send(path, HttpRequest.Builder::DELETE);
    }

    private Answer json(String method, String path, String json) throws IOException {
        return send(
                path,
                request -> request.header("Content-Type", "application/json")
                        .method(method, HttpRequest.BodyPublishers.ofString(json)));
    }

    Answer upload(String path, String name, byte[] content) throws IOException {
        ByteArrayOutputStream body = new ByteArrayOutputStream(content.length + 300);
        body.writeBytes(("--" + BOUNDARY + "\r\nContent-Disposition: form-data; name=\"file\"; filename=\"" + name
                        + "\"\r\nContent-Type: application/octet-stream\r\n\r\n")
                .getBytes(StandardCharsets.UTF_8));
        body.writeBytes(content);
        body.writeBytes(("\r\n--" + BOUNDARY + "--\r\n").getBytes(StandardCharsets.UTF_8));
        return send(
                path,
                request -> request.header("Content-Type", "multipart/form-data; boundary=" + BOUNDARY)
                        .POST(HttpRequest.BodyPublishers.ofByteArray(body.toByteArray())));
    }

    private HttpRequest.Builder request(int port, String path) {
        String token = cookies.getCookieStore().getCookies().stream()
                .filter(cookie -> cookie.getName().equals("XSRF-TOKEN"))
                .map(HttpCookie::getValue)
                .findFirst()
                .orElse("none");
        return HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
                .timeout(LONGEST)
                .header("X-XSRF-TOKEN", token);
    }

    private Answer send(String path, UnaryOperator<HttpRequest.Builder> how) throws IOException {
        ConnectException away = null;
        for (int tries = 0; tries < ports.length; tries++) {
            int port = ports[Math.floorMod(requests.getAndIncrement(), ports.length)];
            try {
                return answer(how.apply(request(port, path)));
            } catch (ConnectException notThere) {
                away = notThere;
            }
        }
        throw away == null ? new IOException("there is no node") : away;
    }

    private Answer answer(HttpRequest.Builder request) throws IOException {
        long start = System.nanoTime();
        try {
            HttpResponse<byte[]> response = http.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
            return new Answer(response.statusCode(), response.body(), (System.nanoTime() - start) / 1_000_000);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", stopped);
        }
    }

    /** Brings a photo into a shoot of its own and gives the shot's id. */
    String shot(String name, byte[] photo) throws IOException {
        String shoot =
                text(post("/api/shoots", "{\"name\":\"Trial\"}").required().json(), "id");
        return text(
                upload("/api/shoots/" + shoot + "/shots", name, photo)
                        .required()
                        .json(),
                "id");
    }

    /** Waits until a shot has its depth. */
    void awaitReady(String shot) throws IOException {
        while (true) {
            JsonNode seen = get("/api/shots/" + shot).required().json();
            if (text(seen, "state").equals("ready")) {
                return;
            }
            if (text(seen, "state").equals("failed")) {
                throw new IOException("depth failed: " + text(seen, "problem"));
            }
            Waiting.millis(100);
        }
    }

    static String text(JsonNode of, String name) {
        return of.path(name).asString("");
    }
}
