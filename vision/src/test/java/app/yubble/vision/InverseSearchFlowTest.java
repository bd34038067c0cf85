package app.yubble.vision;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.clip.Flow;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import org.junit.jupiter.api.Test;

class InverseSearchFlowTest {
    private static final Size SIZE = new Size(160, 96);

    /** A texture of waves, moved. */
    private static Plane waves(double across, double down) {
        Plane out = new Plane(SIZE);
        for (int i = 0; i < out.samples().length; i++) {
            double x = i % SIZE.width() - across;
            double y = i / SIZE.width() - down;
            out.samples()[i] = (float) (0.5 + 0.2 * Math.sin(x / 5 + y / 9) + 0.2 * Math.cos(y / 4 - x / 11));
        }
        return out;
    }

    @Test
    void whatMovesIsFoundWithinHalfAPixelAndTheWayBackAgrees() {
        InverseSearchFlow finder = new InverseSearchFlow();
        Flow there = finder.between(waves(0, 0), waves(3.5, -2));
        Flow back = finder.between(waves(3.5, -2), waves(0, 0));
        for (int x = 30; x < 130; x += 10) {
            assertThat(there.across().at(x, 48)).isCloseTo(3.5f, within(0.5f));
            assertThat(there.down().at(x, 48)).isCloseTo(-2f, within(0.5f));
            assertThat(there.agreement(back).at(x, 48)).isGreaterThan(0.5f);
        }
    }
}
