package app.yubble.server;

import app.yubble.server.database.LocalMariaDb;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.function.Supplier;
import javax.imageio.ImageIO;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;

/** The whole server on a free port over a real MariaDB of its own. */
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
abstract class ServerTest {
    static final Path DATA;
    static final LocalMariaDb DATABASE;

    static {
        try {
            DATA = Files.createTempDirectory("yubble-test");
            DATABASE = LocalMariaDb.start(DATA.resolve("database"));
            // After the contexts are closed, which still talk to it.
            SpringApplication.getShutdownHandlers().add(DATABASE::stop);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @LocalServerPort
    int port;

    @DynamicPropertySource
    static void settings(DynamicPropertyRegistry registry) {
        DATABASE.properties().forEach((name, value) -> registry.add(name, () -> value));
        registry.add("yubble.data", DATA::toString);
        // No networks of our own: what is tested here is the server, with the plainest estimate.
        registry.add("yubble.models", () -> TestNetworks.folder(DATA).toString());
        // Every test makes accounts of its own.
        registry.add("yubble.accounts-per-hour", () -> 10_000);
        registry.add("yubble.most-pixels", () -> 30_000_000);
        registry.add("yubble.most-clip-bytes", () -> 3_000_000);
        registry.add("yubble.most-clip-seconds", () -> 10);
        registry.add("spring.servlet.multipart.max-file-size", () -> "12MB");
    }

    Browser browser() {
        return new Browser(port);
    }

    /** A sky above a striped ground; grows with {@code width}. */
    static byte[] photo(int width, int height, String format) {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setColor(new Color(150, 190, 230));
        g.fillRect(0, 0, width, height * 2 / 5);
        for (int y = height * 2 / 5; y < height; y += 4) {
            g.setColor(y % 8 < 4 ? new Color(60, 90, 40) : new Color(110, 120, 60));
            g.fillRect(0, y, width, 4);
        }
        g.setColor(new Color(180, 30, 30));
        for (int x = width / 3; x < width * 2 / 3; x += 6) {
            g.fillRect(x, height / 3, 3, height / 3);
        }
        g.dispose();
        return encoded(image, format);
    }

    static byte[] encoded(BufferedImage image, String format) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, format, out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    static String newShoot(Browser browser) {
        return browser.send("POST", "/api/shoots", "{\"name\":\"Open day\"}")
                .json()
                .get("id")
                .asString();
    }

    /** Uploads a photo and waits for its first version. */
    static String readyShot(Browser browser, byte[] photo) {
        Browser.Answer answer = browser.upload("/api/shoots/" + newShoot(browser) + "/shots", "photo.jpg", photo);
        String id = answer.json().get("id").asString();
        waitFor(() -> browser.get("/api/shots/" + id).json(), shot -> {
            if (shot.get("state").asString().equals("failed")) {
                throw new AssertionError(shot.get("problem").asString());
            }
            return shot.get("state").asString().equals("ready");
        });
        return id;
    }

    static <T> T waitFor(Supplier<T> look, java.util.function.Predicate<T> enough) {
        long deadline = System.nanoTime() + 40_000_000_000L;
        while (true) {
            T seen = look.get();
            if (enough.test(seen)) {
                return seen;
            }
            if (System.nanoTime() > deadline) {
                throw new AssertionError("waited 40 s, last seen: " + seen);
            }
            try {
                Thread.sleep(60);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IllegalStateException(e);
            }
        }
    }
}
