package app.yubble.server;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Talks to the server as a browser does: cookies, CSRF token, JSON. */
public final class Browser {
    private static final JsonMapper JSON = new JsonMapper();

    private final String address;
    private final CookieManager cookies;
    private final HttpClient client;

    public Browser(int port) {
        this(port, new CookieManager());
    }

    private Browser(int port, CookieManager cookies) {
        address = "http://127.0.0.1:" + port;
        this.cookies = cookies;
        client = HttpClient.newBuilder().cookieHandler(cookies).build();
    }

    /** The same browser, brought to another node. */
    public Browser at(int port) {
        return new Browser(port, cookies);
    }

    /** What a cookie holds; null when there is none. */
    public String cookie(String name) {
        return cookies.getCookieStore().getCookies().stream()
                .filter(cookie -> cookie.getName().equals(name))
                .map(HttpCookie::getValue)
                .findFirst()
                .orElse(null);
    }

    /** An answer; {@code body} is kept as bytes. */
    public record Answer(int status, byte[] body, HttpResponse<byte[]> raw) {
        public JsonNode json() {
            return JSON.readTree(body);
        }

        public String text() {
            return new String(body, StandardCharsets.UTF_8);
        }
    }

    public Answer get(String path) {
        return send(HttpRequest.newBuilder(URI.create(address + path)).GET());
    }

    public Answer send(String method, String path, String json) {
        return send(HttpRequest.newBuilder(URI.create(address + path))
                .header("Content-Type", "application/json")
                .header("X-XSRF-TOKEN", token())
                .method(method, HttpRequest.BodyPublishers.ofString(json)));
    }

    public Answer sendWithoutToken(String method, String path, String json) {
        return send(HttpRequest.newBuilder(URI.create(address + path))
                .header("Content-Type", "application/json")
                .method(method, HttpRequest.BodyPublishers.ofString(json)));
    }

    public Answer sendAs(String type, String path, byte[] body) {
        return send(HttpRequest.newBuilder(URI.create(address + path))
                .header("Content-Type", type)
                .header("X-XSRF-TOKEN", token())
                .POST(HttpRequest.BodyPublishers.ofByteArray(body)));
    }

    public Answer form(String path, String body) {
        return send(HttpRequest.newBuilder(URI.create(address + path))
                .header("Content-Type", "application/x-www-form-urlencoded")
                .header("X-XSRF-TOKEN", token())
                .POST(HttpRequest.BodyPublishers.ofString(body)));
    }

    public Answer upload(String path, String fileName, byte[] content) {
        String boundary = "----part";
        ByteArrayOutputStream body = new ByteArrayOutputStream();
        body.writeBytes(("--" + boundary + "\r\nContent-Disposition: form-data; name=\"file\"; filename=\"" + fileName
                        + "\"\r\nContent-Type: application/octet-stream\r\n\r\n")
                .getBytes(StandardCharsets.UTF_8));
        body.writeBytes(content);
        body.writeBytes(("\r\n--" + boundary + "--\r\n").getBytes(StandardCharsets.UTF_8));
        return send(HttpRequest.newBuilder(URI.create(address + path))
                .header("Content-Type", "multipart/form-data; boundary=" + boundary)
                .header("X-XSRF-TOKEN", token())
                .POST(HttpRequest.BodyPublishers.ofByteArray(body.toByteArray())));
    }

    /** An answer that does not end, line by line. */
    public java.io.BufferedReader stream(String path) throws IOException {
        try {
            var response = client.send(
                    HttpRequest.newBuilder(URI.create(address + path)).GET().build(),
                    HttpResponse.BodyHandlers.ofInputStream());
            return new java.io.BufferedReader(new java.io.InputStreamReader(response.body(), StandardCharsets.UTF_8));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(e);
        }
    }

    /** Makes an account and signs in. */
    public Browser signedUp(String name) {
        get("/api/session");
        send("POST", "/api/accounts", "{\"name\":\"" + name + "\",\"password\":\"long enough for " + name + "\"}");
        get("/api/session");
        Answer answer = form("/api/session", "name=" + name + "&password=long+enough+for+" + name);
        if (answer.status() != 204) {
            throw new AssertionError("signing in gave " + answer.status() + " " + answer.text());
        }
        get("/api/session");
        return this;
    }

    private String token() {
        String token = cookie("XSRF-TOKEN");
        return token == null ? "none" : token;
    }

    private Answer send(HttpRequest.Builder request) {
        try {
            HttpResponse<byte[]> response = client.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
            return new Answer(response.statusCode(), response.body(), response);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }
}
