package app.yubble.core.depth;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.Pictures;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.RunningExtreme;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class DepthTrimTest {
    private final Plane ramp = Pictures.plane(400, 40, (x, y) -> x / 399.0);

    @Test
    void nothingToDoGivesTheMapItself() {
        assertThat(Trimming.apply(ramp, DepthTrim.NONE)).isSameAs(ramp);
    }

    @Test
    void endsStretchAndFlipTurnsBeforeThem() {
        Plane out = Trimming.apply(ramp, new DepthTrim(true, 0.2, 0.6, 0, 0, 0));
        for (int x = 0; x < 400; x += 7) {
            double flipped = 1 - x / 399.0;
            double wanted = Math.max(0, Math.min(1, (flipped - 0.2) / 0.4));
            assertThat(out.at(x, 20)).isCloseTo((float) wanted, within(2e-3f));
        }
    }

    @Test
    void bendMovesTheMiddleAndLeavesTheEnds() {
        Plane nearer = Trimming.apply(ramp, new DepthTrim(false, 0, 1, 0.5, 0, 0));
        Plane farther = Trimming.apply(ramp, new DepthTrim(false, 0, 1, -0.5, 0, 0));
        // 0.5 ^ (4 ^ -0.5) = 0.5 ^ 0.5, and 0.5 ^ 2.
        assertThat(nearer.at(200, 5)).isCloseTo((float) Math.sqrt(200 / 399.0), within(1e-3f));
        assertThat(farther.at(200, 5)).isCloseTo((float) Math.pow(200 / 399.0, 2), within(1e-3f));
        assertThat(nearer.at(0, 5)).isZero();
        assertThat(nearer.at(399, 5)).isCloseTo(1, within(1e-6f));
    }

    @Test
    void growingMovesTheEdgeOfWhatIsNearOutwardsByAShareOfThePicture() {
        Plane disc = Pictures.plane(1000, 600, (x, y) -> Math.hypot(x - 500, y - 300) < 100 ? 0.8 : 0.3);
        Plane grown = Trimming.apply(disc, new DepthTrim(false, 0, 1, 0, 1, 0));
        Plane shrunk = Trimming.apply(disc, new DepthTrim(false, 0, 1, 0, -1, 0));
        // A hundredth of 1000 pixels in every direction, within what an octagon is off a circle.
        for (double angle = 0; angle < 6.28; angle += 0.1) {
            assertThat(onRay(grown, angle, 108)).isEqualTo(0.8f);
            assertThat(onRay(grown, angle, 113)).isEqualTo(0.3f);
            assertThat(onRay(shrunk, angle, 88)).isEqualTo(0.8f);
            assertThat(onRay(shrunk, angle, 92)).isEqualTo(0.3f);
        }
    }

    private static float onRay(Plane plane, double angle, double distance) {
        return plane.at(
                (int) Math.round(500 + Math.cos(angle) * distance), (int) Math.round(300 + Math.sin(angle) * distance));
    }

    @Test
    void settlingEvensOutTheInsideAndKeepsTheEdge() {
        Random random = new Random(3);
        Plane rough = Pictures.plane(300, 200, (x, y) -> (x < 150 ? 0.3 : 0.8) + 0.03 * random.nextGaussian());
        Plane settled = Trimming.apply(rough, new DepthTrim(false, 0, 1, 0, 0, 1));
        assertThat(spread(settled, 20, 130)).isLessThan(0.4 * spread(rough, 20, 130));
        assertThat(settled.at(152, 100) - settled.at(147, 100)).isGreaterThan(0.42f);
    }

    private static double spread(Plane plane, int from, int to) {
        double sum = 0;
        double squares = 0;
        int count = 0;
        for (int y = 20; y < 180; y++) {
            for (int x = from; x < to; x++) {
                sum += plane.at(x, y);
                squares += plane.at(x, y) * plane.at(x, y);
                count++;
            }
        }
        return Math.sqrt(squares / count - sum / count * (sum / count));
    }

    @Test
    void endsThatMeetAndValuesOutOfRangeAreRefusedByName() {
        assertThatThrownBy(() -> new DepthTrim(false, 0.5, 0.505, 0, 0, 0)).hasMessageContaining("near end");
        assertThatThrownBy(() -> new DepthTrim(false, 0, 1, 1.2, 0, 0)).hasMessageContaining("bend");
        assertThatThrownBy(() -> new DepthTrim(false, 0, 1, 0, Double.NaN, 0)).hasMessageContaining("shrink or grow");
        assertThatThrownBy(() -> new DepthTrim(false, 0, 1, 0, 0, -0.1)).hasMessageContaining("settle");
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 2, 5, 9, 40})
    void theRunningExtremeIsTheNaiveOneOverItsFourLines(int radius) {
        Plane noise = Pictures.noise(37, 23, 11).red();
        int slanting = (int) Math.round(radius * (1 - Math.sqrt(0.5)));
        int level = radius - 2 * slanting;
        Plane naive = noise;
        int[][] directions = {{1, 0, level}, {0, 1, level}, {1, 1, slanting}, {1, -1, slanting}};
        for (int[] d : directions) {
            Plane before = naive;
            naive = Pictures.plane(37, 23, (x, y) -> {
                float most = 0;
                for (int k = -d[2]; k <= d[2]; k++) {
                    int px = x + k * d[0];
                    int py = y + k * d[1];
                    if (px >= 0 && px < 37 && py >= 0 && py < 23) {
                        most = Math.max(most, before.at(px, py));
                    }
                }
                return most;
            });
        }
        assertThat(RunningExtreme.octagon(noise, radius, true).samples()).isEqualTo(naive.samples());
    }
}
