package app.yubble.e2e;

import app.yubble.server.YubbleServer;
import app.yubble.server.database.LocalMariaDb;
import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;

/**
 * The real application with its own database, and a headless Chromium in front of it. With {@code -Dyubble.outside=ADDRESS} and
 * {@code -Dyubble.outside.data=FOLDER} it is one that runs elsewhere, perhaps of several nodes, and the folder of its demo account.
 */
final class App implements AutoCloseable {
    private static final List<String> FLAGS = List.of(
            "--no-sandbox",
            "--disable-gpu",
            "--disable-quic",
            "--no-first-run",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync");

    private static @Nullable App shared;

    final String address;
    private final Path data;
    private final @Nullable Own running;
    private final Playwright playwright;
    private final Browser chromium;

    /** One for all tests that do not mind each other; it ends with the machine. */
    static synchronized App shared() throws IOException {
        if (shared == null) {
            shared = new App();
        }
        return shared;
    }

    App() throws IOException {
        String outside = System.getProperty("yubble.outside");
        if (outside == null) {
            running = new Own();
            address = running.address();
            data = running.data;
        } else {
            // Of the node with the demo account.
            running = null;
            address = outside;
            data = Path.of(System.getProperty("yubble.outside.data"));
        }
        playwright = Playwright.create(
                new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
        chromium = playwright
                .chromium()
                .launch(new BrowserType.LaunchOptions()
                        .setExecutablePath(Path.of("/usr/bin/chromium"))
                        .setArgs(FLAGS));
    }

    /** A fresh browser with nothing in it. */
    BrowserContext visitor() {
        BrowserContext visitor = chromium.newContext(
                new Browser.NewContextOptions().setViewportSize(1280, 800).setAcceptDownloads(true));
        visitor.setDefaultTimeout(30_000);
        return visitor;
    }

    /** A page of somebody who has an account of that name, signed in. */
    Page signedUp(BrowserContext visitor, String name) {
        Page page = visitor.newPage();
        page.navigate(address);
        page.getByText("Create an account").click();
        page.getByLabel("Name").fill(name);
        page.getByLabel("Password").fill("a password for " + name);
        page.getByText("Create the account").click();
        page.getByText("Drop photos and clips anywhere on this page.").waitFor();
        return page;
    }

    String demoPassword() {
        Path file = data.resolve("demo-password");
        try {
            // It is made when the application is ready.
            for (int tries = 0; Files.notExists(file) && tries < 100; tries++) {
                Thread.sleep(100);
            }
            return Files.readString(file).strip();
        } catch (IOException fault) {
            throw new UncheckedIOException(fault);
        } catch (InterruptedException stopped) {
            throw new IllegalStateException(stopped);
        }
    }

    /** The first shot that is ready; on a busy machine its depth may take long. */
    static Locator readyShot(Page page) {
        Locator ready = page.locator("[data-test=shot][data-state=ready] a").first();
        ready.waitFor(new Locator.WaitForOptions().setTimeout(240_000));
        return ready;
    }

    @Override
    public void close() {
        chromium.close();
        playwright.close();
        if (running != null) {
            running.stop();
        }
    }

    /** One in this process. */
    private static final class Own {
        private final Path data = Files.createTempDirectory("yubble-e2e");
        private final LocalMariaDb database;
        private final ConfigurableApplicationContext context;

        Own() throws IOException {
            database = LocalMariaDb.start(data.resolve("database"));
            // Also when something below fails; stopping twice does no harm.
            Runtime.getRuntime().addShutdownHook(new Thread(database::stop));
            SpringApplication application = new SpringApplication(YubbleServer.class);
            application.setRegisterShutdownHook(false);
            application.setDefaultProperties(database.properties());
            context = application.run(
                    "--server.port=0",
                    "--management.server.port=0",
                    "--yubble.data=" + data,
                    "--yubble.demo=true",
                    "--yubble.accounts-per-hour=10000",
                    // The finer networks would be at work beside every test.
                    "--yubble.first-depth=draft",
                    "--yubble.models="
                            + Path.of("../var/models").toAbsolutePath().normalize(),
                    "--yubble.demo-folder="
                            + Path.of("../demo").toAbsolutePath().normalize());
        }

        String address() {
            return "http://127.0.0.1:" + context.getEnvironment().getProperty("local.server.port");
        }

        void stop() {
            context.close();
            database.stop();
        }
    }
}
