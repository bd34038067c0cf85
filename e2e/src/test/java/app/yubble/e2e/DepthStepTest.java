package app.yubble.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Mouse;
import com.microsoft.playwright.options.BoundingBox;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** The Depth step and Settings in a browser, with the real networks where set-up could fetch them. */
class DepthStepTest extends BrowserTest {

    private void openDog() {
        page.locator("[data-test=files]").setInputFiles(DOG);
        App.readyShot(page).click();
        page.locator("[data-test=step-depth]").click();
        finalPreview();
    }

    private String ridge() {
        Locator path = page.locator("[data-test=plan] path.ridge");
        assertThat(path).hasAttribute("d", Pattern.compile("M0,0L.+"));
        return path.getAttribute("d");
    }

    private void ridgeChangesFrom(String before) {
        assertThat(page.locator("[data-test=plan] path.ridge")).not().hasAttribute("d", before);
    }

    @Test
    void depthOfTheCameraIsUsedAndTheEstimateIsOneClickAway() {
        openDog();
        assertThat(page.locator("[data-test=source-camera]")).isChecked();
        page.getByText("depth metadata, 1.20 m to far away").waitFor();
        assertThat(page.locator("[data-test=source-file]")).isDisabled();
        String camera = ridge();
        page.locator("[data-test=source-estimated]").click();
        assertThat(page.getByLabel("Snap to edges")).hasValue("1");
        ridgeChangesFrom(camera);
        page.locator("[data-test=undo]").click();
        assertThat(page.locator("[data-test=source-camera]")).isChecked();
    }

    @Test
    void everyTrimMovesTheRidgeAndSurvivesAReload() {
        openDog();
        for (String name : List.of("Bend", "Far end", "Shrink or grow", "Settle", "Snap to edges")) {
            String before = ridge();
            Locator slider = page.getByLabel(name);
            slider.focus();
            slider.press("PageUp");
            slider.press("PageUp");
            slider.press("PageUp");
            ridgeChangesFrom(before);
        }
        String before = ridge();
        page.locator("[data-test=flip]").click();
        ridgeChangesFrom(before);
        String bend = page.getByLabel("Bend").inputValue();
        saved();
        page.reload();
        page.locator("[data-test=step-depth]").click();
        assertThat(page.getByLabel("Bend")).hasValue(bend);
        page.locator("[data-test=untrim]").click();
        assertThat(page.getByLabel("Bend")).hasValue("0");
        assertThat(page.locator("[data-test=untrim]")).isDisabled();
    }

    private void clickPicture(double x, double y) {
        BoundingBox box = page.locator("[data-test=ladder]").boundingBox();
        page.mouse().click(box.x + x * box.width, box.y + y * box.height);
    }

    @Test
    void aLadderIsClickedReorderedInThePlanAndUndone() {
        openDog();
        page.locator("[data-test=ladder-tool]").click();
        String before = ridge();
        // From the background to the floor: the wrong way round.
        clickPicture(0.5, 0.15);
        clickPicture(0.5, 0.85);
        assertThat(page.locator("[data-test=rung]")).hasCount(2);
        assertThat(page.locator("[data-test=plan-rung]")).hasCount(2);
        ridgeChangesFrom(before);
        String wrong = ridge();
        Locator rungs = page.locator("[data-test=plan-rung] circle");
        BoundingBox near = rungs.nth(0).boundingBox();
        BoundingBox far = rungs.nth(1).boundingBox();
        page.mouse().move(near.x + near.width / 2, near.y + near.height / 2);
        page.mouse().down();
        page.mouse().move(near.x + near.width / 2, far.y - 20, new Mouse.MoveOptions().setSteps(4));
        page.mouse().up();
        ridgeChangesFrom(wrong);
        saved();
        page.reload();
        page.locator("[data-test=step-depth]").click();
        page.locator("[data-test=ladder-tool]").click();
        assertThat(page.locator("[data-test=level]")).hasCount(2);
        page.locator("[data-test=remove-rung]").first().click();
        assertThat(page.locator("[data-test=level]")).hasCount(1);
        page.locator("[data-test=undo]").click();
        assertThat(page.locator("[data-test=level]")).hasCount(2);
        page.locator("[data-test=ladder-clear]").click();
        assertThat(page.locator("[data-test=level]")).hasCount(0);
    }

    @Test
    void anEstimateIsMadeAgainAndCanBeCancelled() {
        assumeTrue(Files.exists(Path.of("../var/models/subject-1024.onnx")), "set-up could fetch the networks");
        openDog();
        page.getByText("learned, draft, clear subject").waitFor();
        page.locator("[data-test=estimate-best]").click();
        page.getByText("learned, best, clear subject").waitFor();
        page.locator("[data-test=estimate-best]").click();
        page.locator("[data-test=cancel-depth]").click();
        page.locator("[data-test=estimate-draft]").waitFor();
        page.locator("[data-test=estimate-draft]").click();
        page.getByText("learned, draft, clear subject").waitFor();
    }

    @Test
    void aFileThatDoesNotFitIsToldAndChangesNothing() throws IOException {
        openDog();
        Path text = Files.writeString(Files.createTempDirectory("yubble").resolve("depth.exr"), "no picture");
        page.locator("[data-test=depth-file]").setInputFiles(text);
        page.getByText("depth.exr: not a picture").first().waitFor();
        assertThat(page.locator("[data-test=source-camera]")).isChecked();
    }

    @Test
    void settingsKeepTheChosenNetwork() {
        page.getByText("Settings").click();
        page.waitForResponse("**/api/settings/depth-engine", page.locator("[data-test=engine-layout]")::click);
        page.reload();
        assertThat(page.locator("[data-test=engine-layout]")).isChecked();
        page.getByText("Shoots").first().click();
        openDog();
        page.getByText("layout, draft").waitFor();
    }
}
