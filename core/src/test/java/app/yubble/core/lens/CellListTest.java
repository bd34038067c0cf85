package app.yubble.core.lens;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;

class CellListTest {
    private static final Size SIZE = new Size(64, 32);

    @Test
    void whatIsBlurredAlikeIsListedOnceForSixteenPixels() {
        RadiusSteps steps = new RadiusSteps(30, 8);
        Listed[] lists = listed(flat(20), steps, false);
        assertThat(lists[2].places).hasSize(64 * 32 / 16);
        assertThat(lists[1].places).isEmpty();
        assertThat(lists[0].places).isEmpty();
        assertThat(listed(flat(20), steps, true)[2].places).isEmpty();
    }

    @Test
    void smallDiscsAreListedPixelByPixel() {
        assertThat(listed(flat(1.5f), new RadiusSteps(30, 8), false)[0].places).hasSize(64 * 32);
    }

    @Test
    void everyPixelIsListedOnceAtItsOwnStep() {
        RadiusSteps steps = new RadiusSteps(30, 8);
        Plane radius = new Plane(SIZE);
        Random random = new Random(5);
        for (int i = 0; i < radius.samples().length; i++) {
            boolean calm = i % 64 < 40;
            radius.samples()[i] = calm ? (i % 64 - 20) * 0.7f : 60 * random.nextFloat() - 30;
        }
        for (boolean inFront : new boolean[] {false, true}) {
            Listed[] lists = listed(radius, steps, inFront);
            int[] seen = new int[radius.samples().length];
            for (int level = 0; level < lists.length; level++) {
                for (int step = 0; step < steps.count(); step++) {
                    for (int o = lists[level].starts[step]; o < lists[level].starts[step + 1]; o++) {
                        mark(lists[level].places[o], level, step, radius, steps, seen);
                    }
                }
            }
            for (int i = 0; i < seen.length; i++) {
                float signed = inFront ? -radius.samples()[i] : radius.samples()[i];
                assertThat(seen[i]).as("pixel %d", i).isEqualTo(signed > 0 ? 1 : 0);
            }
        }
    }

    private static void mark(int place, int level, int step, Plane radius, RadiusSteps steps, int[] seen) {
        int x = (place & 0xffff) << level;
        int y = place >>> 16 << level;
        for (int i = 0; i < 1 << 2 * level; i++) {
            int at = (y + (i >> level)) * SIZE.width() + x + (i & (1 << level) - 1);
            seen[at]++;
            assertThat(steps.at(Math.abs(radius.samples()[at]))).isEqualTo(step);
        }
    }

    private static Plane flat(float radius) {
        Plane plane = new Plane(SIZE);
        Arrays.fill(plane.samples(), radius);
        return plane;
    }

    private static Listed[] listed(Plane radius, RadiusSteps steps, boolean inFront) {
        Picture grey = Picture.blank(SIZE);
        Lift none = Lift.of(Glints.NONE.lift(grey));
        try (Shelf shelf = Shelf.open()) {
            return CellList.of(
                    new TilePixels(grey, radius, none, Region.all(SIZE), shelf), steps, inFront, 0, SIZE.height());
        }
    }
}
