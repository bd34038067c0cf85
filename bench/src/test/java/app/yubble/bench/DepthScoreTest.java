package app.yubble.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Plane;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DepthScoreTest {
    private static final int WIDTH = 120;
    private static final int HEIGHT = 90;

    /** A floor that comes nearer downwards and a box on it, moved {@code right} pixels. */
    private static Plane scene(int right) {
        Plane out = new Plane(WIDTH, HEIGHT);
        for (int y = 0; y < HEIGHT; y++) {
            for (int x = 0; x < WIDTH; x++) {
                boolean box = x >= 40 + right && x < 80 + right && y >= 20 && y < 60;
                out.samples()[y * WIDTH + x] = box ? 0.9f : 0.1f + 0.3f * y / HEIGHT;
            }
        }
        return out;
    }

    private static Plane turned(Plane plane, float scale, float shift) {
        Plane out = new Plane(plane.size());
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = scale * plane.samples()[i] + shift;
        }
        return out;
    }

    @ParameterizedTest
    @CsvSource({"1,0", "0.3,0.2", "0.05,0.9"})
    void theExactMapScoresFullWhateverItsScaleAndShift(float scale, float shift) {
        DepthScore score = DepthScore.of(turned(scene(0), scale, shift), scene(0));
        assertThat(score.absRel()).isCloseTo(0, within(1e-3));
        assertThat(score.within()).isEqualTo(1);
        assertThat(score.order()).isCloseTo(1, within(1e-6));
        assertThat(score.edges()).isEqualTo(1);
    }

    @Test
    void aMapTheWrongWayRoundHasTheOppositeOrderAndGainsNothingFromAScale() {
        DepthScore score = DepthScore.of(turned(scene(0), -1, 1), scene(0));
        DepthScore constant = DepthScore.of(Plane.filled(scene(0).size(), 0.5f), scene(0));
        assertThat(score.order()).isCloseTo(-1, within(1e-6));
        assertThat(score.absRel()).isCloseTo(constant.absRel(), within(1e-3));
        assertThat(constant.order()).isZero();
        assertThat(constant.edges()).isZero();
    }

    @Test
    void edgesCountWhenTheyLieWithinTwoPixels() {
        assertThat(DepthScore.of(scene(2), scene(0)).edges()).isEqualTo(1);
        // Level edges overlap for 34 of 40 pixels and are one pixel thick, upright ones are off and two pixels thick:
        // 2 * 36 of 2 * 40 + 2 * 2 * 40, or 0.3, and a little more at the corners.
        assertThat(DepthScore.of(scene(6), scene(0)).edges()).isBetween(0.25, 0.45);
    }

    /** By hand: slope 0.7561, shift 0.2293, fitted 0.305, 0.380, 0.834, 0.380; ratios 0.328, 0.526, 0.959, 2.10. */
    @Test
    void theFiguresOfFourPixelsAreThoseComputedByHand() {
        Plane exact = new Plane(4, 1);
        Plane found = new Plane(4, 1);
        System.arraycopy(new float[] {0.1f, 0.2f, 0.8f, 0.8f}, 0, exact.samples(), 0, 4);
        System.arraycopy(new float[] {0.1f, 0.2f, 0.8f, 0.2f}, 0, found.samples(), 0, 4);
        DepthScore score = DepthScore.of(found, exact);
        assertThat(score.within()).isEqualTo(0.25);
        assertThat(score.absRel()).isCloseTo(0.5725, within(1e-3));
        // Ranks, ties shared: 0, 1.5, 3, 1.5 and 0, 1, 2.5, 2.5 around 1.5: 3.75 / 4.5.
        assertThat(score.order()).isCloseTo(0.8333, within(1e-3));
    }
}
