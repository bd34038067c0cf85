package app.yubble.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.BoundingBox;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Blur that is placed by hand. */
class ShapesTest extends BrowserTest {
    @BeforeEach
    void toShapes() {
        open(DOG);
        page.locator("[data-test=step-shapes]").click();
    }

    private void drag(Locator from, double dx, double dy) {
        BoundingBox box = from.boundingBox();
        drag(box.x + box.width / 2, box.y + box.height / 2, dx, dy);
    }

    private void drag(double x, double y, double dx, double dy) {
        page.mouse().move(x, y);
        page.mouse().down();
        page.mouse().move(x + dx / 2, y + dy / 2);
        page.mouse().move(x + dx, y + dy);
        page.mouse().up();
        saved();
    }

    private double of(String what) {
        Object found = page.evaluate("""
                async (what) => {
                  const shot = location.pathname.split('/').pop()
                  const [version] = await (await fetch(`/api/shots/${shot}/versions`)).json()
                  const shape = version.recipe.shapes.at(-1)
                  return what === 'count' ? version.recipe.shapes.length : Number(shape?.[what] ?? -9)
                }""", what);
        return ((Number) found).doubleValue();
    }

    private void becomes(String what, double least, double most) {
        eventually(() -> assertThat(of(what)).as(what).isBetween(least, most));
    }

    @Test
    void aShapeIsDrawnMovedSizedTurnedAndTakenAway() {
        assertThat(page.getByText("blurred on its own")).isVisible();
        BoundingBox stage = page.locator("[data-test=stage]").boundingBox();
        page.locator("[data-test=new-rectangle]").click();
        drag(stage.x + stage.width * 0.3, stage.y + stage.height * 0.3, stage.width * 0.2, stage.height * 0.2);
        becomes("count", 1, 1);
        double x = of("x");
        double width = of("width");
        drag(page.locator("[data-test=shape-right]"), 40, 0);
        becomes("width", width + 0.05, width + 0.3);
        drag(stage.x + stage.width * 0.4, stage.y + stage.height * 0.4 + 10, 60, 0);
        becomes("x", x + 0.02, x + 0.2);
        drag(page.locator("[data-test=shape-turn]"), 40, 20);
        eventually(() -> assertThat(Math.abs(of("turn"))).isGreaterThan(5));
        // What has been drawn last has the keys.
        double before = of("x");
        page.keyboard().press("Shift+ArrowRight");
        becomes("x", before + 0.019, before + 0.021);
        page.keyboard().press("d");
        becomes("count", 2, 2);
        page.keyboard().press("Delete");
        becomes("count", 1, 1);
        page.reload();
        finalPreview();
        becomes("count", 1, 1);
        page.locator("[data-test=step-shapes]").click();
        page.locator("[data-test=covers-behind]").click();
        assertThat(page.locator("[data-test=depth-here]")).isVisible();
        page.locator("[data-test=shape-remove]").click();
        becomes("count", 0, 0);
        page.locator("[data-test=undo]").click();
        becomes("count", 1, 1);
    }

    @Test
    void onlyWhatLiesInAShapeIsBlurred() {
        page.locator("[data-test=step-focus]").click();
        page.locator("[data-test=everything]").click();
        saved();
        finalPreview();
        double left = contrast(0.05);
        double right = contrast(0.55);
        page.locator("[data-test=step-shapes]").click();
        page.locator("[data-test=new-line]").click();
        BoundingBox stage = page.locator("[data-test=stage]").boundingBox();
        // Upright, and wide enough for the right half when it is laid over it.
        drag(stage.x + stage.width * 0.75, stage.y + stage.height * 0.2, 0, stage.height * 0.5);
        for (int i = 0; i < 20; i++) {
            page.keyboard().press("]");
        }
        saved();
        becomes("height", 0.4, 0.7);
        eventually(() -> assertThat(contrast(0.55)).isLessThan(0.5 * right));
        assertThat(contrast(0.05)).isGreaterThan(0.9 * left);
    }

    /** How much neighbours differ in the shown result, over 35 % of its width from there. */
    private double contrast(double from) {
        return ((Number) page.evaluate("""
                async (from) => {
                  const canvas = document.querySelector('[data-test=stage] canvas')
                  const { data, width, height } = canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height)
                  let sum = 0
                  for (let y = Math.round(height * 0.2); y < height * 0.8; y++)
                    for (let x = Math.round(width * from); x < width * (from + 0.35); x++)
                      sum += Math.abs(data[4 * (y * width + x) + 1] - data[4 * (y * width + x + 1) + 1])
                  return sum / height / width
                }""", from)).doubleValue();
    }
}
