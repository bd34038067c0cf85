package app.yubble.core.clip;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Ways of a camera before steps of different nearness, as flow with the noise that found flow has. */
class ApproachTest {
    private static final Size SIZE = new Size(120, 68);
    private static final Plane AGREED = Plane.filled(SIZE, 1);

    private static Plane steps() {
        Plane out = new Plane(SIZE);
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = 0.1f + 0.2f * (i / 7 % 5);
        }
        return out;
    }

    /** @param moving share of the rows, from the top, in which something goes its own way */
    private static Flow flow(double ahead, double aside, double pan, double zoom, double moving) {
        Random random = new Random(3);
        Plane near = steps();
        Flow out = Flow.none(SIZE);
        for (int i = 0; i < near.samples().length; i++) {
            double x = i % SIZE.width() + 0.5 - SIZE.width() / 2.0;
            double y = i / SIZE.width() + 0.5 - SIZE.height() / 2.0;
            double n = near.samples()[i];
            boolean own = i / SIZE.width() < moving * SIZE.height();
            double u = x * (ahead * n + zoom) + aside * n + pan + (own ? 4 : 0);
            double v = y * (ahead * n + zoom);
            out.across().samples()[i] = (float) (u + 0.1 * random.nextGaussian());
            out.down().samples()[i] = (float) (v + 0.1 * random.nextGaussian());
        }
        return out;
    }

    private static double rate(Flow flow) {
        return Approach.of(flow, steps(), AGREED).rate();
    }

    @Test
    void walkingAheadIsTold() {
        assertThat(rate(flow(0.05, 0, 0, 0, 0))).isCloseTo(0.05, within(0.003));
        assertThat(rate(flow(-0.05, 2, 3, 0.01, 0))).isCloseTo(-0.05, within(0.003));
    }

    @Test
    void whatMovesByItselfDoesNotCount() {
        assertThat(rate(flow(0.05, 0, 0, 0, 0.2))).isCloseTo(0.05, within(0.006));
    }

    @Test
    void goingAsideTurningAndZoomingAreNoApproach() {
        assertThat(rate(flow(0, 3, 0, 0, 0))).isZero();
        assertThat(rate(flow(0, 0, 5, 0, 0.2))).isZero();
        assertThat(rate(flow(0, 0, 0, 0.05, 0))).isZero();
        assertThat(rate(Flow.none(SIZE))).isZero();
    }

    @Test
    void whatIsNearGainsMore() {
        Plane moved = new Approach(0.1).appliedTo(new Plane(2, 1, new float[] {0.5f, 1}));
        assertThat(moved.samples()).containsExactly(new float[] {0.525f, 1.1f}, within(1e-6f));
    }
}
