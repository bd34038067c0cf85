package app.yubble.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.BoundingBox;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Path;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Pointing objects out, masks as files, and the edge inspector. */
class PickOutTest extends BrowserTest {
    @TempDir
    private static Path folder;

    /** Drags between two places of the picture, which lies in the stage with a little air around it. */
    private void drag(double x0, double y0, double x1, double y1) {
        BoundingBox box = page.locator("[data-test=pick-layer]").boundingBox();
        double scale = Math.min((box.width - 24) / 3, (box.height - 24) / 2);
        double left = box.x + (box.width - 3 * scale) / 2;
        double top = box.y + (box.height - 2 * scale) / 2;
        page.mouse().move(left + x0 * 3 * scale, top + y0 * 2 * scale);
        page.mouse().down();
        for (int i = 1; i <= 6; i++) {
            double t = i / 6.0;
            page.mouse().move(left + (x0 + t * (x1 - x0)) * 3 * scale, top + (y0 + t * (y1 - y0)) * 2 * scale);
        }
        page.mouse().up();
    }

    private Object recipe(String what) {
        return page.evaluate("""
                async () => {
                  const shot = location.pathname.split('/').pop()
                  const [version] = await (await fetch(`/api/shots/${shot}/versions`)).json()
                  const recipe = version.recipe
                  return\s""" + what + "}");
    }

    private void becomes(String what, Object value) {
        eventually(() -> assertThat(recipe(what)).as(what).isEqualTo(value));
    }

    private void toTouchups() {
        open(DOG);
        page.locator("[data-test=step-touchup]").click();
    }

    @Test
    void anObjectIsPickedOutWithABoxAndMarksWhichCanBeTakenAwayAgain() {
        toTouchups();
        page.locator("[data-test=new-blur]").click();
        page.locator("[data-test=tool-pick-out]").click();
        drag(0.3, 0.1, 0.75, 0.95);
        becomes("recipe.touchups[0]?.pickOut !== null && recipe.touchups[0]?.pickOut.marks.length", 0);
        drag(0.45, 0.4, 0.5, 0.6);
        becomes("recipe.touchups[0]?.pickOut.marks.length", 1);
        page.keyboard().down("e");
        drag(0.35, 0.2, 0.36, 0.3);
        page.keyboard().up("e");
        becomes("recipe.touchups[0]?.pickOut.marks.map((each) => each.erases).join()", "false,true");
        assertThat(page.locator("[data-test=unmark]")).hasCount(2);
        page.locator("[data-test=unmark]").last().click();
        becomes("recipe.touchups[0]?.pickOut.marks.length", 1);
        page.keyboard().press("Control+z");
        becomes("recipe.touchups[0]?.pickOut.marks.length", 2);
        // A side of the box is moved.
        drag(0.3, 0.5, 0.2, 0.5);
        becomes("Math.round(recipe.touchups[0]?.pickOut.left * 10)", 2);
        // The object is blurred: the picture differs there.
        finalPreview();
        page.reload();
        finalPreview();
        assertThat(recipe("recipe.touchups[0]?.pickOut.marks.length")).isEqualTo(2);
    }

    @Test
    void aMaskIsLoadedSavedAndRefusedWhenItHasAnotherShape() throws IOException {
        toTouchups();
        page.locator("[data-test=new-reveal]").click();
        page.locator("[data-test=mask-file]").setInputFiles(disc(600, 400));
        becomes("(recipe.touchups[0]?.maskFile ?? null) !== null", true);
        finalPreview();
        Download download =
                page.waitForDownload(() -> page.locator("[data-test=save-mask]").click());
        assertThat(download.suggestedFilename()).isEqualTo("dog Reveal 1.png");
        BufferedImage saved = ImageIO.read(download.path().toFile());
        assertThat(saved.getWidth()).isGreaterThan(1000);
        int middle = saved.getRaster().getSample(saved.getWidth() / 2, saved.getHeight() / 2, 0);
        assertThat(middle).isGreaterThan(60_000);
        page.locator("[data-test=mask-file]").setInputFiles(disc(400, 400));
        assertThat(page.getByText("must have the photo's shape")).isVisible();
        page.locator("[data-test=drop-mask]").click();
        becomes("recipe.touchups[0]?.maskFile === null", true);
    }

    private static Path disc(int width, int height) throws IOException {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_BYTE_GRAY);
        Graphics2D g = image.createGraphics();
        g.setColor(Color.WHITE);
        g.fillOval(width / 2 - 60, height / 2 - 60, 120, 120);
        g.dispose();
        Path file = folder.resolve("disc" + width + ".png");
        ImageIO.write(image, "png", file.toFile());
        return file;
    }

    @Test
    void theInspectorShowsAnIslandMendsItAndRemembersIt() throws IOException {
        open(DOG);
        page.locator("[data-test=step-depth]").click();
        page.locator("[data-test=depth-file]").setInputFiles(island());
        page.locator("[data-test=source-file]").click();
        becomes("recipe.depth.source", "file");
        finalPreview();
        page.locator("[data-test=step-touchup]").click();
        page.locator("[data-test=inspect]").click();
        assertThat(page.locator("[data-test=fault-kind]"))
                .hasText("Island", new LocatorAssertions.HasTextOptions().setTimeout(20_000));
        assertThat(page.locator("[data-test=fault-count]")).containsText("not looked at");
        finalPreview();
        page.locator("[data-test=fault-accept]").click();
        Locator rows = page.locator("[data-test=touchup]");
        assertThat(rows).hasCount(1);
        assertThat(rows.first()).containsText("Island 1");
        becomes("recipe.touchups.length", 1);
        page.keyboard().press("Control+z");
        becomes("recipe.touchups.length", 0);
        // Undone, it can be mended again.
        page.locator("[data-test=fault-previous]").click();
        assertThat(page.locator("[data-test=fault-accept]")).isEnabled();
        page.locator("[data-test=fault-accept]").click();
        becomes("recipe.touchups.length", 1);
        page.keyboard().press("Control+z");
        becomes("recipe.touchups.length", 0);
        page.locator("[data-test=inspector-close]").click();
        page.reload();
        finalPreview();
        page.locator("[data-test=step-touchup]").click();
        page.locator("[data-test=inspect]").click();
        assertThat(page.locator("[data-test=fault-count]"))
                .containsText("all looked at", new LocatorAssertions.ContainsTextOptions().setTimeout(20_000));
    }

    /** Depth that falls from the top to the bottom, with an island in the sky. */
    private static Path island() throws IOException {
        BufferedImage image = new BufferedImage(600, 400, BufferedImage.TYPE_BYTE_GRAY);
        Graphics2D g = image.createGraphics();
        for (int y = 0; y < 400; y++) {
            int value = 20 + y / 3;
            g.setColor(new Color(value, value, value));
            g.fillRect(0, y, 600, 1);
        }
        g.setColor(new Color(240, 240, 240));
        g.fillOval(500, 20, 30, 30);
        g.dispose();
        Path file = folder.resolve("island.png");
        ImageIO.write(image, "png", file.toFile());
        return file;
    }
}
