package app.yubble.core.clip;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import org.junit.jupiter.api.Test;

class FlowTest {
    private static final Size SIZE = new Size(12, 8);

    private static Plane slope() {
        Plane out = new Plane(SIZE);
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = i % SIZE.width() + 10 * (i / SIZE.width());
        }
        return out;
    }

    private static Flow moved(float across, float down) {
        return new Flow(Plane.filled(SIZE, across), Plane.filled(SIZE, down));
    }

    @Test
    void fetchingReadsBetweenPixelsAndHoldsTheBorder() {
        Plane fetched = moved(0.5f, 1).fetch(slope());
        assertThat(fetched.at(3, 2)).isCloseTo(3.5f + 30, within(1e-4f));
        assertThat(fetched.at(11, 7)).as("beyond the corner").isCloseTo(11 + 70, within(1e-4f));
    }

    @Test
    void aWayThatLeadsBackAgreesAndOneThatDoesNotHasNoWeight() {
        assertThat(moved(2, 1).agreement(moved(-2, -1)).at(5, 3)).isEqualTo(1);
        assertThat(moved(2, 1).agreement(moved(2, 1)).at(5, 3)).isZero();
        assertThat(moved(2, 1).agreement(moved(-2, -1)).at(11, 3))
                .as("out of the picture")
                .isZero();
    }
}
