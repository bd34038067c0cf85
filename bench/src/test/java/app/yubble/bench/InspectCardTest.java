package app.yubble.bench;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.inspect.Fault;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import java.util.List;
import org.junit.jupiter.api.Test;

class InspectCardTest {
    private static final Size SIZE = new Size(300, 200);

    /** Nearer downwards, with squares that are off. */
    private static Plane map(double large, double small) {
        Plane out = new Plane(SIZE);
        for (int y = 0; y < SIZE.height(); y++) {
            for (int x = 0; x < SIZE.width(); x++) {
                double z = 0.2 + 0.6 * y / SIZE.height();
                z += x >= 40 && x < 60 && y >= 40 && y < 60 ? large : 0;
                z += x >= 200 && x < 210 && y >= 120 && y < 130 ? small : 0;
                out.samples()[y * SIZE.width() + x] = (float) z;
            }
        }
        return out;
    }

    private static Fault at(double x, double y) {
        Stroke dab = new Stroke(Stroke.Brush.of(0.05), (float) x, (float) y, 1);
        return new Fault(
                Fault.Kind.EDGE, 0, 0, 1, 1, x, y, 1, Touchup.of("proposal", Touchup.Action.MATCH, 1, 0.5, dab));
    }

    @Test
    void placesAreThoseThatAreOffTheWorstFirstWhateverTheMapsScale() {
        Plane found = map(0.3, -0.3);
        for (int i = 0; i < found.samples().length; i++) {
            found.samples()[i] = 0.1f + 0.5f * found.samples()[i];
        }
        List<InspectCard.Place> worst = InspectCard.worst(found, map(0, 0));
        assertThat(worst).hasSize(2);
        assertThat(worst.get(0).count()).isBetween(380, 420);
        assertThat(worst.get(0).pixels()[50 * SIZE.width() + 50]).isTrue();
        assertThat(worst.get(1).count()).isBetween(90, 110);
        assertThat(worst.get(1).pixels()[125 * SIZE.width() + 205]).isTrue();
        assertThat(InspectCard.worst(map(0, 0), map(0, 0))).isEmpty();
    }

    @Test
    void aFaultMeansThePlaceOnWhichItsDabsLie() {
        List<InspectCard.Place> worst = InspectCard.worst(map(0.3, -0.3), map(0, 0));
        assertThat(InspectCard.place(at(50.5 / 300, 50.5 / 200), worst, SIZE)).isZero();
        assertThat(InspectCard.place(at(205.5 / 300, 133.5 / 200), worst, SIZE)).isEqualTo(1);
        assertThat(InspectCard.place(at(0.5, 0.5), worst, SIZE)).isEqualTo(-1);
    }
}
