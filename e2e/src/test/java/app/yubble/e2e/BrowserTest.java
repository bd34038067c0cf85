package app.yubble.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.Page;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;

/** A test with a page of somebody who has just signed up; all such tests share one running application. */
abstract class BrowserTest {
    static final Path DOG = Path.of("../demo/photos/dog.jpg");
    static App app;

    private final List<String> complaints = new ArrayList<>();
    BrowserContext visitor;
    Page page;

    @BeforeAll
    static void start() throws IOException {
        app = App.shared();
    }

    @BeforeEach
    void arrive() {
        visitor = app.visitor();
        page = app.signedUp(visitor, "visitor " + System.nanoTime());
        page.onPageError(complaints::add);
    }

    @AfterEach
    void leave() {
        visitor.close();
        assertThat(complaints).as("errors in the page").isEmpty();
    }

    /** Brings a photo in and opens it on the Bench. */
    void open(Path photo) {
        page.locator("[data-test=files]").setInputFiles(photo);
        App.readyShot(page).click();
        finalPreview();
        page.locator("[data-test=hint] button").click();
    }

    void saved() {
        Waits.saved(page);
    }

    void painted() {
        Waits.painted(page);
    }

    void eventually(Runnable saying) {
        Waits.eventually(page, saying);
    }

    void finalPreview() {
        Waits.finalPreview(page);
    }
}
