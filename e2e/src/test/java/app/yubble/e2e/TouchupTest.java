package app.yubble.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.BoundingBox;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Painting: strokes, the list of touch-ups, what survives, and how fast a dab is seen. */
class TouchupTest extends BrowserTest {

    private void toPaint(Path photo) {
        open(photo);
        page.locator("[data-test=step-touchup]").click();
    }

    /** Paints from one place to another, in shares of the stage. */
    private void paint(double x0, double y0, double x1, double y1) {
        BoundingBox box = page.locator("[data-test=paint]").boundingBox();
        page.mouse().move(box.x + x0 * box.width, box.y + y0 * box.height);
        page.mouse().down();
        for (int i = 1; i <= 8; i++) {
            double t = i / 8.0;
            page.mouse().move(box.x + (x0 + t * (x1 - x0)) * box.width, box.y + (y0 + t * (y1 - y0)) * box.height);
        }
        page.mouse().up();
    }

    private Locator rows() {
        return page.locator("[data-test=touchup]");
    }

    private int strokes() {
        return ((Number) page.evaluate("""
                async () => {
                  const shot = location.pathname.split('/').pop()
                  const [version] = await (await fetch(`/api/shots/${shot}/versions`)).json()
                  return version.recipe.touchups.reduce((sum, each) => sum + each.strokes.length, 0)
                }""")).intValue();
    }

    private void strokesBecome(int count) {
        eventually(() -> assertThat(strokes()).isEqualTo(count));
    }

    @Test
    void strokesAreStepsThatCanBeUndoneAndSurviveAReload() {
        toPaint(DOG);
        paint(0.45, 0.5, 0.55, 0.5);
        assertThat(rows()).hasCount(1);
        assertThat(rows()).containsText("Focus 1");
        strokesBecome(1);
        paint(0.45, 0.6, 0.55, 0.6);
        strokesBecome(2);
        page.keyboard().press("Control+z");
        strokesBecome(1);
        page.keyboard().press("Control+Shift+z");
        strokesBecome(2);
        page.reload();
        finalPreview();
        page.locator("[data-test=step-touchup]").click();
        assertThat(rows()).hasCount(1);
        assertThat(strokes()).isEqualTo(2);
    }

    @Test
    void touchUpsAreHiddenOrderedDuplicatedAndRemoved() {
        toPaint(DOG);
        page.locator("[data-test=new-blur]").click();
        paint(0.4, 0.5, 0.5, 0.5);
        page.locator("[data-test=new-match]").click();
        paint(0.5, 0.3, 0.6, 0.3);
        assertThat(page.locator("[data-test=target]")).not().hasText("0.00");
        strokesBecome(2);
        page.locator("[data-test=duplicate]").click();
        assertThat(rows()).hasCount(3);
        assertThat(rows().nth(2)).containsText("Match 1 copy");
        page.getByLabel("Match 1 copy earlier").click();
        assertThat(rows().nth(1)).containsText("Match 1 copy");
        rows().nth(0).locator("[data-test=shown]").click();
        assertThat(rows().nth(0).locator("[data-test=shown]")).hasAttribute("aria-label", "Show Blur 1");
        rows().nth(0).locator("button.name").click();
        page.locator("[data-test=strength] input").fill("-0.5");
        page.locator("[data-test=strength] input").dispatchEvent("change");
        assertThat(rows().nth(0)).containsText("50 % in front");
        page.locator("[data-test=delete]").click();
        assertThat(rows()).hasCount(2);
        page.locator("[data-test=reset]").click();
        assertThat(rows()).hasCount(0);
        page.keyboard().press("Control+z");
        assertThat(rows()).hasCount(2);
        finalPreview();
    }

    @Test
    void theKeysOfTheBrushWork() {
        toPaint(DOG);
        Locator size = page.getByLabel("Size");
        String before = size.inputValue();
        page.keyboard().press("]");
        assertThat(Double.parseDouble(size.inputValue())).isGreaterThan(Double.parseDouble(before));
        page.keyboard().press("[");
        paint(0.45, 0.5, 0.5, 0.5);
        strokesBecome(1);
        page.keyboard().down("e");
        assertThat(page.locator(".brush.erase")).isVisible();
        paint(0.47, 0.5, 0.48, 0.5);
        page.keyboard().up("e");
        strokesBecome(2);
        // A straight line from where the last stroke ended, and one dab from the keyboard.
        BoundingBox box = page.locator("[data-test=paint]").boundingBox();
        page.keyboard().down("Shift");
        page.mouse().click(box.x + 0.6 * box.width, box.y + 0.6 * box.height);
        page.keyboard().up("Shift");
        strokesBecome(3);
        // With Shift a drag is held level.
        page.keyboard().down("Shift");
        paint(0.3, 0.3, 0.5, 0.35);
        page.keyboard().up("Shift");
        strokesBecome(4);
        @SuppressWarnings("unchecked")
        List<Number> points = (List<Number>) page.evaluate("""
                async () => {
                  const shot = location.pathname.split('/').pop()
                  const [version] = await (await fetch(`/api/shots/${shot}/versions`)).json()
                  return version.recipe.touchups[0]?.strokes.at(-1).points
                }""");
        assertThat(points.get(points.size() - 2)).isEqualTo(points.get(1));
        assertThat(points.size()).isEqualTo(6);
        page.locator("[data-test=stage]").focus();
        page.keyboard().press("ArrowLeft");
        page.keyboard().press("Enter");
        strokesBecome(5);
        // Beyond the picture is no fault, and Escape drops a stroke.
        paint(0.01, 0.99, 0.02, 0.99);
        strokesBecome(6);
        page.mouse().move(box.x + 0.5 * box.width, box.y + 0.5 * box.height);
        page.mouse().down();
        page.mouse().move(box.x + 0.6 * box.width, box.y + 0.5 * box.height);
        page.keyboard().press("Escape");
        page.mouse().up();
        saved();
        assertThat(strokes()).isEqualTo(6);
        finalPreview();
    }

    /** From letting go of a dab to the pixels of the result, in milliseconds; sorted. */
    private List<Double> dabs(int count, double x, double y) {
        page.evaluate("""
                () => {
                  window.arrived = []
                  if (window.watched) return
                  window.watched = true
                  const real = window.fetch
                  window.fetch = async (path, options) => {
                    const answer = await real(path, options)
                    if (String(path).endsWith('/preview') && answer.status === 200) window.arrived.push(performance.now())
                    return answer
                  }
                }""");
        BoundingBox box = page.locator("[data-test=paint]").boundingBox();
        List<Double> times = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            finalPreview();
            saved();
            page.mouse().move(box.x + (x + 0.01 * (i % 5)) * box.width, box.y + (y + 0.01 * (i / 5)) * box.height);
            page.mouse().down();
            page.evaluate("window.arrived = []");
            double start = ((Number) page.evaluate("performance.now()")).doubleValue();
            page.mouse().up();
            for (int k = 0; k < 1000; k++) {
                @SuppressWarnings("unchecked")
                List<Number> arrived = (List<Number>) page.evaluate("window.arrived");
                if (!arrived.isEmpty()) {
                    times.add(arrived.get(0).doubleValue() - start);
                    break;
                }
                page.waitForTimeout(5);
            }
        }
        return times.stream().sorted().toList();
    }

    private void brush(int pixels) {
        // The slider runs by the logarithm from a thousandth to the whole.
        double at = Math.log(pixels / 6000.0 / 0.001) / Math.log(1000);
        page.getByLabel("Size").fill(String.valueOf(Math.round(at * 200) / 200.0));
    }

    @Test
    void aDabOnALargePhotoIsSeenAtOnce() throws IOException {
        toPaint(BenchTest.enlarged());
        brush(1500);
        // The first ones are for the compiler.
        dabs(5, 0.4, 0.45);
        List<Double> fit = dabs(5, 0.45, 0.5);
        page.locator("[data-test=full]").click();
        painted();
        finalPreview();
        brush(200);
        List<Double> full = dabs(5, 0.45, 0.5);
        System.out.printf(
                "24 megapixels, a dab of 200 px on screen: seen in the median after %.0f ms at fit size, %.0f ms at 100 %%%n",
                fit.get(fit.size() / 2), full.get(full.size() / 2));
        assertThat(fit).hasSize(5);
        assertThat(fit.get(2)).isLessThan(900);
        assertThat(full.get(2)).isLessThan(2000);
    }

    @Test
    void thousandsOfStrokesStayWorkable() {
        toPaint(DOG);
        paint(0.45, 0.5, 0.5, 0.5);
        strokesBecome(1);
        page.evaluate("""
                async () => {
                  const shot = location.pathname.split('/').pop()
                  const [version] = await (await fetch(`/api/shots/${shot}/versions`)).json()
                  const some = (i, k) => 0.1 + 0.8 * ((i * 37 + k * 101) % 997) / 997
                  const touchups = Array.from({ length: 200 }, (_, i) => ({
                    id: `t${i}`, name: `Many ${i}`, action: ['focus', 'blur', 'match'][i % 3], strength: 0.4, target: 0.5, shown: true, inverted: false,
                    strokes: Array.from({ length: 25 }, (_, k) => ({
                      erases: k % 9 === 8, size: 0.006, softness: 0.3, buildUp: 1, cling: k % 5 ? 0 : 0.6, edges: 'photo', pressure: 'nothing',
                      points: Array.from({ length: 12 }, (_, p) => [some(i, k) + 0.005 * p, some(k, i), 1]).flat(),
                    })),
                  }))
                  const token = document.cookie.match(/XSRF-TOKEN=([^;]*)/)[1]
                  const answer = await fetch(`/api/versions/${version.id}/recipe`, {
                    method: 'PUT', headers: { 'Content-Type': 'application/json', 'X-XSRF-TOKEN': token },
                    body: JSON.stringify({ lock: version.lock, step: 'Many', recipe: { ...version.recipe, touchups } }),
                  })
                  if (!answer.ok) throw new Error(await answer.text())
                }""");
        page.reload();
        finalPreview();
        long start = System.nanoTime();
        page.reload();
        finalPreview();
        double opening = (System.nanoTime() - start) / 1e9;
        page.locator("[data-test=step-touchup]").click();
        assertThat(rows()).hasCount(200);
        rows().nth(199).locator("button.name").click();
        dabs(3, 0.4, 0.45);
        List<Double> times = dabs(5, 0.45, 0.5);
        System.out.printf(
                "200 touch-ups with 5000 strokes: opened again in %.1f s, a dab seen in the median after %.0f ms%n",
                opening, times.get(2));
        assertThat(opening).isLessThan(20);
        assertThat(times.get(2)).isLessThan(1500);
    }
}
