package app.yubble.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.picture.DecodedPicture;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.PictureWriter;
import app.yubble.media.picture.ToneCurve;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Response;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.BoundingBox;
import java.awt.color.ColorSpace;
import java.awt.color.ICC_Profile;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.io.TempDir;

/** One photo from the file on disk to the refocused file, as a person does it. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class PhotoTest {
    private App app;
    private BrowserContext visitor;
    private Page page;
    private static final Locator.WaitForOptions ATTACHED =
            new Locator.WaitForOptions().setState(com.microsoft.playwright.options.WaitForSelectorState.ATTACHED);

    private final List<String> complaints = new ArrayList<>();

    @TempDir
    Path folder;

    @BeforeAll
    void start() throws IOException {
        app = new App();
    }

    @AfterAll
    void stop() {
        app.close();
    }

    @BeforeEach
    void open() {
        complaints.clear();
        visitor = app.visitor();
        page = app.signedUp(visitor, "visitor " + System.nanoTime());
        page.onPageError(complaints::add);
    }

    @AfterEach
    void leave() {
        visitor.close();
        assertThat(complaints).as("errors in the page").isEmpty();
    }

    /** Fine stripes everywhere, a depth map whose lower half is near, and a profile of its own. */
    private Path stripedPhoto() throws IOException {
        Size size = new Size(1500, 1000);
        Picture picture = Picture.blank(size);
        for (Plane plane : picture.planes()) {
            for (int i = 0; i < plane.samples().length; i++) {
                plane.samples()[i] = i % 1500 / 6 % 2 == 0 ? 0.1f : 0.7f;
            }
        }
        byte[] profile = ICC_Profile.getInstance(ColorSpace.CS_LINEAR_RGB).getData();
        Origin plain = Origin.srgb(size);
        Origin origin =
                new Origin("JPEG", size, profile, ToneCurve.ofProfile(profile).orElseThrow(), plain.camera());
        ByteArrayOutputStream jpeg = new ByteArrayOutputStream();
        PictureWriter.write(picture, origin, PictureWriter.Format.JPEG, 0.95, jpeg);
        return Files.write(folder.resolve("stripes.jpg"), jpeg.toByteArray());
    }

    private Path halvesDepth() throws IOException {
        Plane map = new Plane(750, 500);
        for (int i = 0; i < map.samples().length; i++) {
            map.samples()[i] = i / 750 < 250 ? 0.2f : 0.8f;
        }
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        PictureWriter.writeGrey(map, png);
        return Files.write(folder.resolve("halves.png"), png.toByteArray());
    }

    private void bringIn(Path... files) {
        page.locator("[data-test=files]").setInputFiles(files);
    }

    private void openFirst() {
        App.readyShot(page).click();
        finalPreview();
    }

    private void finalPreview() {
        Waits.finalPreview(page);
    }

    private static double contrast(Plane plane, int y) {
        return Math.abs(plane.at(703, y) - plane.at(709, y));
    }

    private static int blueOver(int[] rgb) {
        return rgb[2] - rgb[0];
    }

    /** What the stage shows at a share of the picture, as red, green, blue. */
    private int[] pixel(double x, double y) {
        try {
            BufferedImage stage = ImageIO.read(
                    new ByteArrayInputStream(page.locator("[data-test=stage]").screenshot()));
            double scale = Math.min((stage.getWidth() - 24) / 1500.0, (stage.getHeight() - 24) / 1000.0);
            int rgb = stage.getRGB((int) (stage.getWidth() / 2.0 + (x - 0.5) * 1500 * scale), (int)
                    (stage.getHeight() / 2.0 + (y - 0.5) * 1000 * scale));
            return new int[] {rgb >> 16 & 255, rgb >> 8 & 255, rgb & 255};
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    @Test
    void fromTheFileOnDiskToTheRefocusedFile() throws IOException {
        bringIn(stripedPhoto());
        openFirst();
        // Depth from a file, seen in the grey view.
        page.locator("[data-test=step-depth]").click();
        page.locator("[data-test=depth-file]").setInputFiles(halvesDepth());
        PlaywrightAssertions.assertThat(page.getByLabel("From a file")).isChecked();
        finalPreview();
        page.locator("[data-test=view-grey]").click();
        Waits.eventually(page, () -> assertThat(pixel(0.5, 0.25)[0]).isBetween(40, 62));
        assertThat(pixel(0.5, 0.75)[0]).isBetween(194, 214);

        // A click focuses on the lower half; zones tint the upper one blue and leave the lower one alone.
        page.locator("[data-test=step-focus]").click();
        page.locator("[data-test=view-zones]").click();
        clickPicture(0.5, 0.8);
        PlaywrightAssertions.assertThat(page.getByLabel("Near edge")).hasValue("0.83");
        Waits.eventually(page, () -> assertThat(blueOver(pixel(0.503, 0.25))).isGreaterThan(20));
        int[] lower = pixel(0.503, 0.9);
        assertThat(Math.abs(lower[2] - lower[0])).isLessThan(4);

        // The band is dragged in the plan, the aperture turned by keys.
        double before = Double.parseDouble(page.getByLabel("Far edge").inputValue());
        dragFarEdge(-30);
        finalPreview();
        assertThat(Double.parseDouble(page.getByLabel("Far edge").inputValue())).isLessThan(before - 0.01);
        page.locator("[data-test=step-lens]").click();
        Locator dial =
                page.getByRole(com.microsoft.playwright.options.AriaRole.SLIDER).and(page.getByLabel("aperture"));
        dial.press("Home");
        PlaywrightAssertions.assertThat(dial).hasAttribute("aria-valuetext", "f/0.7");
        finalPreview();

        // Original while held, and the split.
        page.locator("[data-test=view-photo]").click();
        Waits.painted(page);
        int[] blurred = pixel(0.5, 0.25);
        page.keyboard().down("o");
        page.getByText("original", new Page.GetByTextOptions().setExact(true)).waitFor();
        Waits.painted(page);
        int[] original = pixel(0.5, 0.25);
        page.keyboard().up("o");
        assertThat(Math.abs(original[0] - blurred[0])).isGreaterThan(25);
        page.locator("[data-test=split]").click();
        page.getByLabel("Split between original and result").waitFor();

        // Delivered, downloaded, opened.
        page.locator("[data-test=step-deliver]").click();
        page.locator("[data-test=deliver]").click();
        page.locator("[data-test=delivery][data-state=done]").waitFor();
        Download download = page.waitForDownload(
                () -> page.locator("[data-test=download]").first().click());
        assertThat(download.suggestedFilename()).isEqualTo("stripes - First.jpg");
        DecodedPicture result = PictureReader.DEFAULT.read(download.path());
        assertThat(result.picture().size()).isEqualTo(new Size(1500, 1000));
        assertThat(result.origin().profile())
                .isEqualTo(ICC_Profile.getInstance(ColorSpace.CS_LINEAR_RGB).getData());
        assertThat(contrast(result.picture().red(), 800)).as("subject").isGreaterThan(0.5);
        assertThat(contrast(result.picture().red(), 200)).as("background").isLessThan(0.12);
    }

    @Test
    void aCharacterSetsTheWholeDiscAndTheRealityLineSaysWhatLensItWouldTake() throws IOException {
        bringIn(stripedPhoto());
        openFirst();
        page.locator("[data-test=step-lens]").click();
        Locator reality = page.locator("[data-test=reality]");
        // The photo tells no lens; the f-number depends on its depth.
        PlaywrightAssertions.assertThat(reality).hasText(Pattern.compile("Like 85 mm f/\\d\\.\\d at 2\\.5 m"));
        page.getByLabel("Character").selectOption("Mirror");
        PlaywrightAssertions.assertThat(page.getByLabel("Hollow")).hasValue("0.5");
        finalPreview();
        // A slider moved by hand makes it an own disc; undo gives the character back, also after a reload.
        page.getByLabel("Hollow").press("Home");
        PlaywrightAssertions.assertThat(page.getByLabel("Character")).hasValue("");
        page.locator("[data-test=undo]").click();
        PlaywrightAssertions.assertThat(page.getByLabel("Character")).hasValue("Mirror");
        Waits.saved(page);
        page.reload();
        finalPreview();
        page.locator("[data-test=step-lens]").click();
        PlaywrightAssertions.assertThat(page.getByLabel("Character")).hasValue("Mirror");
        // Wider open than any lens of this focal length.
        page.getByRole(com.microsoft.playwright.options.AriaRole.SLIDER)
                .and(page.getByLabel("aperture"))
                .press("Home");
        PlaywrightAssertions.assertThat(reality).containsText("No 85 mm lens opens to f/0.70.");
        BoundingBox text = reality.boundingBox();
        double needed = ((Number) reality.evaluate("line => line.scrollHeight")).doubleValue();
        assertThat(needed).as("nothing of the line is cut").isLessThanOrEqualTo(text.height + 1);
    }

    @Test
    void mistIsTurnedUpSeenInThePlanAndUndone() throws IOException {
        bringIn(stripedPhoto());
        openFirst();
        page.locator("[data-test=step-atmosphere]").click();
        Waits.painted(page);
        int[] clear = pixel(0.5, 0.05);
        Locator dial = page.getByRole(com.microsoft.playwright.options.AriaRole.SLIDER)
                .and(page.getByLabel("mist", new Page.GetByLabelOptions().setExact(true)));
        dial.press("End");
        PlaywrightAssertions.assertThat(dial).hasAttribute("aria-valuetext", "100 %");
        page.getByText("Picked").click();
        finalPreview();
        page.locator("[data-test=plan-mist]").waitFor(ATTACHED);
        Waits.painted(page);
        int[] misty = pixel(0.5, 0.05);
        assertThat(Math.abs(misty[2] - clear[2]) + Math.abs(misty[0] - clear[0]))
                .as("%s, was %s", java.util.Arrays.toString(misty), java.util.Arrays.toString(clear))
                .isGreaterThan(20);
        // The tone of the blur has its side in its name; both steps are undone after a reload.
        page.getByLabel("Light").nth(1).press("End");
        finalPreview();
        Waits.saved(page);
        page.reload();
        finalPreview();
        page.locator("[data-test=step-atmosphere]").click();
        Locator light = page.getByLabel("Light").nth(1);
        PlaywrightAssertions.assertThat(light).hasAttribute("aria-valuetext", "+2.0 stops");
        page.locator("[data-test=undo]").click();
        PlaywrightAssertions.assertThat(light).hasAttribute("aria-valuetext", "0.0 stops");
        Locator picked = page.getByLabel("Picked colour of the mist");
        PlaywrightAssertions.assertThat(picked).isEnabled();
        page.locator("[data-test=undo]").click();
        PlaywrightAssertions.assertThat(picked).isDisabled();
        page.locator("[data-test=undo]").click();
        PlaywrightAssertions.assertThat(dial).hasAttribute("aria-valuetext", "0 %");
        PlaywrightAssertions.assertThat(page.locator("[data-test=plan-mist]")).hasCount(0);
    }

    private void clickPicture(double x, double y) {
        BoundingBox box = page.locator("[data-test=stage]").boundingBox();
        double scale = Math.min((box.width - 24) / 1500, (box.height - 24) / 1000);
        page.mouse()
                .click(
                        box.x + (box.width - 1500 * scale) / 2 + x * 1500 * scale,
                        box.y + (box.height - 1000 * scale) / 2 + y * 1000 * scale);
    }

    private void dragFarEdge(int by) {
        BoundingBox plan = page.locator("[data-test=plan]").boundingBox();
        double y = plan.y
                + Double.parseDouble(page.locator("[data-test=far-edge]")
                        .getAttribute("points")
                        .split("[ ,]")[1]);
        page.mouse().move(plan.x + 60, y);
        page.mouse().down();
        for (int i = 1; i <= 10; i++) {
            page.mouse().move(plan.x + 60, y + by * i / 10.0);
        }
        page.mouse().up();
    }

    @Test
    void everyChangeCanBeUndoneAlsoAfterAReload() throws IOException {
        bringIn(stripedPhoto());
        openFirst();
        String first = page.getByLabel("Near edge").inputValue();
        page.locator("[data-test=everything]").click();
        PlaywrightAssertions.assertThat(page.getByLabel("Near edge")).hasValue("1.00");
        PlaywrightAssertions.assertThat(page.locator("[data-test=undo]")).isEnabled();
        page.reload();
        finalPreview();
        PlaywrightAssertions.assertThat(page.getByLabel("Near edge")).hasValue("1.00");
        page.locator("[data-test=undo]").click();
        PlaywrightAssertions.assertThat(page.getByLabel("Near edge")).hasValue(first);
        page.locator("[data-test=redo]").click();
        PlaywrightAssertions.assertThat(page.getByLabel("Near edge")).hasValue("1.00");
    }

    @Test
    void theLaterOfTwoTabsIsTold() throws IOException {
        bringIn(stripedPhoto());
        openFirst();
        Page second = visitor.newPage();
        second.navigate(page.url());
        second.locator("[data-test=preview-state][data-state=final]").waitFor();
        page.locator("[data-test=everything]").click();
        PlaywrightAssertions.assertThat(page.locator("[data-test=undo]")).isEnabled();
        second.getByLabel("Near edge").fill("0.9");
        second.getByLabel("Near edge").press("Enter");
        second.locator("[data-test=saving]").getByText("another tab").waitFor();
        second.getByRole(com.microsoft.playwright.options.AriaRole.BUTTON)
                .getByText("Load it again")
                .click();
        PlaywrightAssertions.assertThat(second.getByLabel("Near edge")).hasValue("1.00");
    }

    @Test
    void anEditMadeWhileTheServerIsAwayIsKeptAndSentWhenItIsBack() throws IOException {
        bringIn(stripedPhoto());
        openFirst();
        visitor.route(
                "**/api/versions/**",
                route -> route.fulfill(new com.microsoft.playwright.Route.FulfillOptions()
                        .setStatus(503)
                        .setBody("{}")));
        page.locator("[data-test=everything]").click();
        page.locator("[data-test=saving]").getByText("kept and will be sent").waitFor();
        visitor.unroute("**/api/versions/**");
        PlaywrightAssertions.assertThat(page.locator("[data-test=saving]")).isHidden();
        PlaywrightAssertions.assertThat(page.locator("[data-test=undo]")).isEnabled();
        page.reload();
        finalPreview();
        PlaywrightAssertions.assertThat(page.getByLabel("Near edge")).hasValue("1.00");
    }

    @Test
    void filesThatCannotBeReadAreNamedWithTheReasonAndTheOthersComeIn() throws IOException {
        Path photo = stripedPhoto();
        byte[] bytes = Files.readAllBytes(photo);
        Path cut = Files.write(folder.resolve("cut.jpg"), Arrays.copyOf(bytes, bytes.length / 2));
        Path text = Files.writeString(folder.resolve("notes.jpg"), "the club meets on Thursdays, bring cake");
        bringIn(cut, photo, text);
        App.readyShot(page);
        Locator rows = page.locator("[data-test=incoming]");
        PlaywrightAssertions.assertThat(rows).hasCount(2);
        PlaywrightAssertions.assertThat(rows.first()).containsText("cut.jpg");
        PlaywrightAssertions.assertThat(rows.first()).containsText("cut off");
        PlaywrightAssertions.assertThat(rows.last()).containsText("not a picture");
        PlaywrightAssertions.assertThat(page.locator("[data-test=shot]")).hasCount(1);
    }

    @Test
    void previewsFollowADragWithoutQueueingUp() throws IOException {
        bringIn(stripedPhoto());
        openFirst();
        List<Integer> answers = java.util.Collections.synchronizedList(new ArrayList<>());
        int[] asked = {0, 0, 0};
        page.onRequest(request -> {
            if (request.url().endsWith("/preview")) {
                asked[0]++;
                asked[2] = Math.max(asked[2], ++asked[1]);
            }
        });
        page.onResponse((Response response) -> {
            if (response.url().endsWith("/preview")) {
                answers.add(response.status());
                asked[1]--;
            }
        });
        // Given up, for one that is wanted more.
        page.onRequestFailed(request -> {
            if (request.url().endsWith("/preview")) {
                asked[1]--;
            }
        });
        page.locator("[data-test=step-lens]").click();
        BoundingBox dial = page.getByRole(com.microsoft.playwright.options.AriaRole.SLIDER)
                .and(page.getByLabel("aperture"))
                .boundingBox();
        double cx = dial.x + dial.width / 2;
        double cy = dial.y + dial.height / 2;
        page.mouse().move(cx - 40, cy);
        page.mouse().down();
        for (int i = 0; i < 60; i++) {
            double angle = Math.PI - i * 0.03;
            page.mouse().move(cx + 40 * Math.cos(angle), cy - 40 * Math.sin(angle));
            // As a hand turns.
            page.waitForTimeout(8);
        }
        page.mouse().up();
        finalPreview();
        System.out.println(
                "60 moves of the dial asked for " + asked[0] + " previews, at most " + asked[2] + " at a time");
        assertThat(asked[2]).isLessThanOrEqualTo(2);
        // Where answers are quicker than moves, the press and each move get one, and the end of the drag a final one.
        // Where moves come slowly, each may be followed by a final one that the next gives up.
        assertThat(asked[0]).isLessThanOrEqualTo(2 * 62);
    }

    @Test
    void theDemoAccountShowsTheOpenDay() {
        BrowserContext guest = app.visitor();
        Page demo = guest.newPage();
        demo.navigate(app.address);
        demo.getByLabel("Name").fill("demo");
        demo.getByLabel("Password").fill(app.demoPassword());
        demo.keyboard().press("Enter");
        demo.getByRole(com.microsoft.playwright.options.AriaRole.HEADING)
                .getByText("Open day")
                .waitFor();
        PlaywrightAssertions.assertThat(demo.locator("[data-test=shot]")).hasCount(5);
        guest.close();
    }

    @Test
    void theAddressOfSomebodyElsesShotShowsThatItIsNotThere() throws IOException {
        bringIn(stripedPhoto());
        openFirst();
        BrowserContext other = app.visitor();
        Page stranger = app.signedUp(other, "stranger " + System.nanoTime());
        stranger.navigate(page.url());
        stranger.getByText("There is no such shot.").waitFor();
        other.close();
    }

    @Test
    void nothingIsLoadedFromElsewhere() throws IOException {
        List<String> foreign = java.util.Collections.synchronizedList(new ArrayList<>());
        page.onRequest(request -> {
            String url = request.url();
            if (!url.startsWith(app.address) && !url.startsWith("blob:") && !url.startsWith("data:")) {
                foreign.add(url);
            }
        });
        page.navigate(app.address + "/shoots");
        bringIn(stripedPhoto());
        openFirst();
        page.navigate(app.address + "/deliveries");
        page.getByText("Nothing delivered yet.").waitFor();
        assertThat(foreign).isEmpty();
    }
}
