package app.yubble.core.clip;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import java.util.List;
import java.util.Random;
import java.util.function.IntFunction;
import org.junit.jupiter.api.Test;

class CutsTest {
    private static final Size SIZE = new Size(40, 24);

    private static Plane noise(int seed) {
        Plane out = new Plane(SIZE);
        Random random = new Random(seed);
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = random.nextFloat();
        }
        return out;
    }

    private static List<Integer> found(int frames, IntFunction<Plane> frame) {
        Cuts cuts = new Cuts();
        for (int i = 0; i < frames; i++) {
            cuts.add(frame.apply(i));
        }
        return cuts.found();
    }

    @Test
    void aCutIsTheFirstFrameOfTheNewShot() {
        assertThat(found(30, i -> noise(i < 12 ? 1 : 2))).containsExactly(12);
    }

    @Test
    void aFlashIsNoCut() {
        assertThat(found(30, i -> i == 12 ? Plane.filled(SIZE, 1) : noise(1))).isEmpty();
    }

    @Test
    void pictureThatChangesAllTheTimeHasNoCuts() {
        assertThat(found(30, CutsTest::noise)).isEmpty();
    }

    @Test
    void aSlowFadeIsNoCut() {
        assertThat(found(30, i -> Plane.filled(SIZE, i / 30f))).isEmpty();
    }
}
