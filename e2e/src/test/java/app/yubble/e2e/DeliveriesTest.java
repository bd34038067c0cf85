package app.yubble.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.assertions.LocatorAssertions;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.Test;

/** Several shots chosen, delivered together and fetched as one zip. */
class DeliveriesTest extends BrowserTest {
    private static final Path DUSK = Path.of("../demo/photos/dusk.jpg");
    private static final double LONGEST = 60_000;

    @Test
    void severalShotsAreDeliveredUnderNamesThatAreSeenBefore() throws IOException {
        page.locator("[data-test=files]").setInputFiles(new Path[] {DOG, DUSK});
        Locator ready = page.locator("[data-test=shot][data-state=ready], [data-test=shot][data-state=refining]");
        assertThat(ready).hasCount(2, new LocatorAssertions.HasCountOptions().setTimeout(LONGEST));
        page.getByLabel("Choose dog.jpg").click();
        page.locator("[data-test=choose-all]").click();
        assertThat(page.locator("[data-test=chosen]")).containsText("2 chosen");
        page.locator("[data-test=deliver-chosen]").click();
        Locator dialog = page.locator("[data-test=batch]");
        assertThat(dialog.getByRole(com.microsoft.playwright.options.AriaRole.LISTITEM))
                .hasText(new String[] {"dog - First.jpg", "dusk - First.jpg"});
        page.locator("[data-test=pattern]").fill("same");
        assertThat(page.locator("[data-test=batch-problem]")).containsText("the name of two files");
        assertThat(page.locator("[data-test=deliver-many]")).isDisabled();
        page.locator("[data-test=pattern]").fill("club {number}");
        page.getByLabel("Longer side").selectOption("1200");
        page.getByLabel("Name of the preset").fill("Club page");
        page.locator("[data-test=keep-preset]").click();
        assertThat(page.locator("[data-test=preset]")).hasText("Club page");
        page.locator("[data-test=deliver-many]").click();
        assertThat(dialog).isHidden();

        page.navigate(app.address + "/deliveries");
        assertThat(page.locator("tr[data-state=done]"))
                .hasCount(2, new LocatorAssertions.HasCountOptions().setTimeout(LONGEST));
        Download zip =
                page.waitForDownload(() -> page.locator("[data-test=zip]").click());
        List<String> names = new ArrayList<>();
        try (ZipInputStream in = new ZipInputStream(Files.newInputStream(zip.path()))) {
            for (ZipEntry each = in.getNextEntry(); each != null; each = in.getNextEntry()) {
                names.add(each.getName());
            }
        }
        assertThat(names).containsExactly("club 01.jpg", "club 02.jpg");
        page.locator("[data-test=sheet]").click();
        assertThat(page.locator("[data-test=contact-sheet] li")).hasText(new String[] {"club 01.jpg", "club 02.jpg"});
        page.reload();
        assertThat(page.locator("[data-test=contact-sheet] li")).hasCount(2);
        page.navigate(app.address + "/guide");
        assertThat(page.locator("[data-test=guide]")).containsText("Judge the shot");
    }

    @Test
    void aRecipeIsSavedAndLoadedAsANewVersion() {
        open(DOG);
        page.locator("[data-test=versions]").click();
        Download file = page.waitForDownload(
                () -> page.locator("[data-test=save-recipe]").click());
        page.locator("[data-test=recipe-file]").setInputFiles(file.path());
        assertThat(page.locator("[data-test=version]")).hasCount(2);
        finalPreview();
    }
}
