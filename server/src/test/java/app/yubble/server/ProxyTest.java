package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.test.context.ActiveProfiles;
import org.springframework.test.context.TestPropertySource;

/** The server behind a proxy that speaks HTTPS with browsers. */
@ActiveProfiles("proxy")
@TestPropertySource(properties = "yubble.hosts=photos.example.org")
class ProxyTest extends ServerTest {
    private final HttpClient client = HttpClient.newHttpClient();

    private HttpRequest.Builder asked(String path) {
        return HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
                .header("X-Forwarded-Proto", "https")
                .header("X-Forwarded-Host", "photos.example.org");
    }

    private HttpResponse<String> send(HttpRequest.Builder request) throws IOException, InterruptedException {
        return client.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    private static String cookie(HttpResponse<String> answer, String name) {
        List<String> all = answer.headers().allValues("set-cookie");
        return all.stream()
                .filter(each -> each.startsWith(name + "="))
                .findFirst()
                .orElse("none of " + all);
    }

    @Test
    void cookiesAreForHttpsOnly() throws IOException, InterruptedException {
        browser().signedUp("proxied");
        HttpResponse<String> first = send(asked("/api/session").GET());
        String token = cookie(first, "XSRF-TOKEN");
        assertThat(token).contains("Secure");
        assertThat(first.headers().firstValue("strict-transport-security")).isPresent();
        String value = token.substring("XSRF-TOKEN=".length(), token.indexOf(';'));

        HttpResponse<String> signedIn = send(asked("/api/session")
                .header("Cookie", "XSRF-TOKEN=" + value)
                .header("X-XSRF-TOKEN", value)
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(HttpRequest.BodyPublishers.ofString("name=proxied&password=long+enough+for+proxied")));

        assertThat(signedIn.statusCode()).isEqualTo(204);
        assertThat(cookie(signedIn, "__Host-yubble"))
                .contains("Secure")
                .contains("HttpOnly")
                .contains("Path=/")
                .doesNotContain("Domain");
    }

    @ParameterizedTest
    @CsvSource({
        "photos.example.org,200",
        "PHOTOS.example.org:8080,200",
        "localhost,200",
        "127.0.0.1:1234,200",
        "elsewhere.example.org,421",
        "photos.example.org.elsewhere.example,421"
    })
    void itAnswersOnlyUnderItsNames(String host, int status) throws IOException {
        assertThat(statusFor(host)).isEqualTo(status);
    }

    private int statusFor(String host) throws IOException {
        try (Socket socket = new Socket("127.0.0.1", port)) {
            socket.getOutputStream()
                    .write(("GET /api/session HTTP/1.1\r\nHost: " + host + "\r\nConnection: close\r\n\r\n")
                            .getBytes(StandardCharsets.US_ASCII));
            String answer = new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            return Integer.parseInt(answer.split(" ")[1]);
        }
    }
}
