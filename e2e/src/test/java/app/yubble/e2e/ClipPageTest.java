package app.yubble.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.BoundingBox;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** A clip on the Bench: time, marks, playing and delivering. */
class ClipPageTest extends BrowserTest {
    /** Milliseconds. */
    private static final double LONGEST_FOCUS = 30_000;

    /** Milliseconds; depth of the whole clip comes first. */
    private static final double LONGEST_KEPT = 120_000;

    private static final Path CLIP = Path.of("target/test-clip.mp4");

    /** A second of the demo clip, small: half of the browser tests' time would go into its depth otherwise. */
    private static Path clip() throws IOException {
        if (!Files.exists(CLIP)) {
            Files.createDirectories(CLIP.getParent());
            Process made = new ProcessBuilder(
                            "ffmpeg",
                            "-v",
                            "quiet",
                            "-nostdin",
                            "-y",
                            "-i",
                            "../demo/clips/arrival.mp4",
                            "-t",
                            "1",
                            "-vf",
                            "scale=480:-2",
                            "-c:v",
                            "libx264",
                            "-c:a",
                            "copy",
                            CLIP.toString())
                    .inheritIO()
                    .start();
            assertThat(made.onExit().join().exitValue()).isZero();
        }
        return CLIP;
    }

    @BeforeEach
    void openClip() throws IOException {
        page.locator("[data-test=files]").setInputFiles(clip());
        App.readyShot(page).click();
        page.locator("[data-test=time]").waitFor();
        finalPreview();
        page.locator("[data-test=hint] button").click();
    }

    private Locator clock() {
        return page.locator("[data-test=clock]").first();
    }

    private void pressAt(double share) {
        BoundingBox strip = page.locator("[data-test=strip]").boundingBox();
        page.mouse().click(strip.x + share * strip.width, strip.y + 68);
    }

    private void focusAt(double x, double y) {
        BoundingBox stage = page.locator("[data-test=stage]").boundingBox();
        page.mouse().click(stage.x + x * stage.width, stage.y + y * stage.height);
        saved();
    }

    /** The server reads the frame first, which takes a while on a busy machine. */
    private void hasNotches(int count) {
        assertThat(page.locator("[data-test=notch]"))
                .hasCount(count, new LocatorAssertions.HasCountOptions().setTimeout(LONGEST_FOCUS));
    }

    @Test
    void focusIsPulledByFocusingAtTwoMoments() {
        pressAt(0.2);
        assertThat(clock()).not().containsText("frame 1 of 24");
        finalPreview();
        focusAt(0.5, 0.75);
        hasNotches(1);
        String near = page.getByLabel("Near edge").inputValue();
        pressAt(0.8);
        finalPreview();
        focusAt(0.75, 0.3);
        hasNotches(2);
        String far = page.getByLabel("Near edge").inputValue();
        assertThat(far).isNotEqualTo(near);
        pressAt(0.5);
        eventually(() -> {
            double between = Double.parseDouble(page.getByLabel("Near edge").inputValue());
            assertThat(between)
                    .isStrictlyBetween(
                            Math.min(Double.parseDouble(near), Double.parseDouble(far)),
                            Math.max(Double.parseDouble(near), Double.parseDouble(far)));
        });
        page.locator("[data-test=undo]").click();
        assertThat(page.locator("[data-test=notch]")).hasCount(1);
        page.reload();
        assertThat(page.locator("[data-test=notch]")).hasCount(1);
    }

    @Test
    void keysMoveInTimeAndMarksAreChosenMovedAndRemoved() {
        assertThat(clock()).containsText("frame 1 of 24");
        page.keyboard().press("ArrowRight");
        page.keyboard().press("ArrowRight");
        assertThat(clock()).containsText("frame 3 of 24");
        page.keyboard().press("ArrowLeft");
        assertThat(clock()).containsText("frame 2 of 24");
        page.locator("[data-test=mark-opacity]").click();
        page.keyboard().press("Shift+ArrowRight");
        page.locator("[data-test=mark-band]").click();
        saved();
        Locator notch = page.locator("[data-test=notch]");
        assertThat(notch).hasCount(1);
        page.keyboard().press("Control+ArrowLeft");
        assertThat(clock()).containsText("frame 2 of 24");
        String before = notch.getAttribute("data-at");
        BoundingBox strip = page.locator("[data-test=strip]").boundingBox();
        double x = strip.x + strip.width * Double.parseDouble(before);
        page.mouse().move(x, strip.y + 30);
        page.mouse().down();
        page.mouse().move(x + 60, strip.y + 30);
        page.mouse().move(x + 90, strip.y + 30);
        page.mouse().up();
        saved();
        assertThat(notch).not().hasAttribute("data-at", before);
        page.locator("[data-test=ease-hold]").click();
        assertThat(page.locator("[data-test=ease-hold]")).hasAttribute("aria-pressed", "true");
        page.keyboard().press("Delete");
        assertThat(notch).hasCount(0);
    }

    @Test
    void aTouchUpActsOverATimeOfItsOwn() {
        page.locator("[data-test=step-touchup]").click();
        page.locator("[data-test=new-blur]").click();
        saved();
        Locator row = page.locator("[data-test=span-row]");
        assertThat(row).containsText("whole clip");
        pressAt(0.5);
        page.locator("[data-test=span-from]").click();
        saved();
        assertThat(row).containsText("0:00.50 to the end");
        page.locator("[data-test=fade]").fill("0.2");
        saved();
        BoundingBox strip = page.locator("[data-test=strip]").boundingBox();
        page.mouse().move(strip.x + strip.width - 2, strip.y + 5);
        page.mouse().down();
        page.mouse().move(strip.x + 0.75 * strip.width, strip.y + 5);
        page.mouse().up();
        saved();
        assertThat(row).containsText("0:00.50 to 0:00.75");
        page.reload();
        page.locator("[data-test=step-touchup]").click();
        page.locator("[data-test=touchup] .name").click();
        assertThat(row).containsText("0:00.50 to 0:00.75");
        assertThat(row).containsText("0.20 s");
        page.locator("[data-test=span-all]").click();
        assertThat(row).containsText("whole clip");
    }

    @Test
    void focusIsPulledInTwoClicksAsOneStep() {
        Locator pull = page.locator("[data-test=pull]");
        pull.click();
        BoundingBox stage = page.locator("[data-test=stage]").boundingBox();
        page.mouse().click(stage.x + 0.5 * stage.width, stage.y + 0.75 * stage.height);
        assertThat(pull)
                .hasText("Click where it ends", new LocatorAssertions.HasTextOptions().setTimeout(LONGEST_FOCUS));
        page.mouse().click(stage.x + 0.75 * stage.width, stage.y + 0.3 * stage.height);
        assertThat(page.getByText("Go to another moment first")).isVisible();
        pressAt(0.8);
        assertThat(clock()).not().containsText("frame 1 of 24");
        finalPreview();
        page.mouse().click(stage.x + 0.75 * stage.width, stage.y + 0.3 * stage.height);
        hasNotches(2);
        assertThat(pull).hasText("Pull focus");
        saved();
        page.locator("[data-test=undo]").click();
        assertThat(page.locator("[data-test=notch]")).hasCount(0);
    }

    @Test
    void focusFollowsAPointThatIsPutRightByHand() {
        page.locator("[data-test=follow]").click();
        BoundingBox stage = page.locator("[data-test=follows]").boundingBox();
        // The near lamp post's lamp.
        page.mouse().click(stage.x + stage.width * 0.62, stage.y + stage.height * 0.2);
        saved();
        Locator told = page.locator("[data-test=follow-told]");
        assertThat(told)
                .containsText(
                        Pattern.compile("sure|not seen"),
                        new LocatorAssertions.ContainsTextOptions().setTimeout(LONGEST_FOCUS));
        // The way is short, and depth under it comes a little later than the track.
        pressAt(0.7);
        assertThat(clock()).not().containsText("frame 1 of 24");
        Locator point = page.locator("[data-test^=follow-]:is(g)").first();
        BoundingBox there = point.boundingBox();
        page.mouse().move(there.x + there.width / 2, there.y + there.height / 2);
        page.mouse().down();
        page.mouse().move(there.x + there.width / 2 + 12, there.y + there.height / 2 + 3);
        page.mouse().up();
        saved();
        page.locator("[data-test=history]").click();
        assertThat(page.getByText("Point put right").first()).isVisible();
        page.keyboard().press("Escape");
        page.reload();
        assertThat(told)
                .containsText(
                        Pattern.compile("sure|not seen"),
                        new LocatorAssertions.ContainsTextOptions().setTimeout(LONGEST_FOCUS));
        page.locator("[data-test=follow-remove]").click();
        assertThat(told).isHidden();
    }

    @Test
    void aSubjectIsKeptByAClickAndPutRightByALine() {
        page.locator("[data-test=step-touchup]").click();
        page.locator("[data-test=tool-keep]").click();
        BoundingBox stage = page.locator("[data-test=pick-layer]").boundingBox();
        // The near lamp post.
        page.mouse().click(stage.x + stage.width * 0.62, stage.y + stage.height * 0.45);
        Locator told = page.locator("[data-test=keep-told]");
        LocatorAssertions.ContainsTextOptions patient =
                new LocatorAssertions.ContainsTextOptions().setTimeout(LONGEST_KEPT);
        assertThat(told).containsText("Seen in", patient);
        saved();
        pressAt(0.7);
        assertThat(clock()).not().containsText("frame 1 of 24");
        finalPreview();
        assertThat(page.locator("[data-test=keep-less]")).isDisabled();
        page.mouse().move(stage.x + stage.width * 0.2, stage.y + stage.height * 0.6);
        page.mouse().down();
        page.mouse().move(stage.x + stage.width * 0.25, stage.y + stage.height * 0.62);
        page.mouse().up();
        saved();
        assertThat(page.locator("[data-test=keep-less]")).isEnabled();
        assertThat(told).containsText("Seen in", patient);
        page.locator("[data-test=keep-blurred]").click();
        saved();
        page.reload();
        page.locator("[data-test=step-touchup]").click();
        page.locator("[data-test=touchup] .name").click();
        page.locator("[data-test=tool-keep]").click();
        assertThat(told).containsText("Seen in", patient);
        assertThat(page.locator("[data-test=keep-less]")).isEnabled();
    }

    @Test
    void aStretchIsRenderedPlayedAndDelivered() {
        page.keyboard().press("i");
        for (int i = 0; i < 9; i++) {
            page.keyboard().press("ArrowRight");
        }
        assertThat(clock()).containsText("frame 10 of 24");
        page.keyboard().press("Shift+I");
        page.locator("[data-test=render]").click();
        page.locator("[data-test=render]:has-text('Rendered')")
                .waitFor(new Locator.WaitForOptions().setTimeout(120_000));
        page.keyboard().press("Space");
        Locator film = page.locator("[data-test=film]").first();
        assertThat(film).hasAttribute("data-rendered", "true");
        // It runs, and stays within the stretch; on a busy machine the first frames take a while.
        assertThat(clock())
                .containsText(
                        Pattern.compile("frame [2-7] of 24"),
                        new LocatorAssertions.ContainsTextOptions().setTimeout(LONGEST_FOCUS));
        assertThat(film).hasCount(1);
        page.keyboard().press("k");
        assertThat(film).hasCount(0);
        page.locator("[data-test=step-deliver]").click();
        page.getByText("Frames 1 to 10,").waitFor();
        page.getByLabel("Format").selectOption("ffv1");
        page.locator("[data-test=deliver]").click();
        Locator done = page.locator("[data-test=delivery][data-state=done]");
        done.waitFor(new Locator.WaitForOptions().setTimeout(120_000));
        Download file =
                page.waitForDownload(() -> page.locator("[data-test=download]").click());
        assertThat(file.suggestedFilename()).isEqualTo("test-clip - First.mkv");
    }
}
