package app.yubble.core.atmosphere;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.Pictures;
import app.yubble.core.raster.Luminance;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class AtmosphereTest {
    private static final Size SIZE = new Size(101, 80);

    /** From far at the left to near at the right. */
    private static final Plane NEARNESS = Pictures.plane(101, 80, (x, y) -> x / 100.0);

    private static final Picture SCENE =
            new Picture(Plane.filled(SIZE, 0.2f), Plane.filled(SIZE, 0.1f), Plane.filled(SIZE, 0.05f));
    private static final Mist PALE = Mist.NONE.withStart(1).withPicked(0.7, 0.8, 0.9);

    private static Picture in(Atmosphere atmosphere, Plane radii) {
        return new Air(atmosphere, MistColour.of(atmosphere.mist()), SIZE.longSide()).of(SCENE, NEARNESS, radii);
    }

    private static Picture in(Mist mist) {
        return in(Atmosphere.CLEAR.withMist(mist), new Plane(SIZE));
    }

    @ParameterizedTest
    @ValueSource(doubles = {0.25, 0.7, 1})
    void mistHidesAsTheFormulaSays(double density) {
        Picture out = in(PALE.withDensity(density));
        for (int x = 0; x <= 100; x += 10) {
            // The way through the mist over that to what lies farthest.
            double way = (1 / (x / 100.0 + 0.15) - 1 / 1.15) / (1 / 0.15 - 1 / 1.15);
            double left = Math.exp(-4 * density * way);
            assertThat(out.red().at(x, 40)).isCloseTo((float) (left * 0.2 + (1 - left) * 0.7), within(1e-3f));
            assertThat(out.blue().at(x, 40)).isCloseTo((float) (left * 0.05 + (1 - left) * 0.9), within(1e-3f));
        }
    }

    @Test
    void itBeginsWhereItIsSetAndReachesUpToAHeight() {
        Picture from = in(PALE.withDensity(1).withStart(0.5));
        assertThat(from.red().at(50, 10)).isEqualTo(0.2f);
        assertThat(from.red().at(40, 10)).isGreaterThan(0.22f);
        Picture low = in(PALE.withDensity(1).withHeight(0.3));
        Picture full = in(PALE.withDensity(1));
        assertThat(low.red().at(20, 70)).isEqualTo(full.red().at(20, 70));
        assertThat(low.red().at(20, 30)).isBetween(0.25f, full.red().at(20, 30) - 0.1f);
        assertThat(low.red().at(20, 0)).isLessThan(0.22f);
    }

    @Test
    void contrastIsGivenBackToWhatIsSharp() {
        Plane radii = Pictures.plane(101, 80, (x, y) -> y < 40 ? 0 : 5);
        Picture out = in(Atmosphere.CLEAR.withMist(PALE.withDensity(1).withClearing(1)), radii);
        assertThat(out.red().at(10, 10)).isEqualTo(0.2f);
        assertThat(out.red().at(10, 60)).isEqualTo(in(PALE.withDensity(1)).red().at(10, 60));
    }

    @Test
    void theSceneGivesTheColourOfItsFarEnd() {
        Picture sky = new Picture(
                Pictures.plane(101, 80, (x, y) -> x < 12 ? 0.4 : 0.9),
                Pictures.plane(101, 80, (x, y) -> x < 12 ? 0.5 : 0.1),
                Pictures.plane(101, 80, (x, y) -> x < 12 ? 0.8 : 0.1));
        MistColour colour = MistColour.ofScene(sky, NEARNESS);
        assertThat(colour.red()).isBetween(0.4f, 0.5f);
        assertThat(colour.blue()).isBetween(0.6f, 0.8f);
        assertThat(colour.blue() - colour.red()).as("paler than the sky itself").isCloseTo(0.2f, within(0.02f));
    }

    @Test
    void toneActsByHowMuchIsBlurredAndOnItsSide() {
        Plane radii = Pictures.plane(101, 80, (x, y) -> x < 30 ? 12 : x < 60 ? 0 : x < 80 ? -0.5 : -12);
        Tone warm = new Tone(1, 0, 0, 0);
        Tone dark = new Tone(0, 0, -1, -1);
        Picture out = in(Atmosphere.CLEAR.withFront(dark).withBehind(warm), radii);
        assertThat(out.red().at(40, 40)).isEqualTo(0.2f);
        assertThat(out.blue().at(40, 40)).isEqualTo(0.05f);
        assertThat(out.red().at(10, 40) / out.blue().at(10, 40))
                .as("0.7 stops between red and blue")
                .isCloseTo((float) (4 * Math.pow(2, 0.7)), within(0.05f));
        float grey = 0.2126f * 0.2f + 0.7152f * 0.1f + 0.0722f * 0.05f;
        assertThat(out.red().at(90, 40)).isCloseTo(grey / 2, within(1e-3f));
        assertThat(out.blue().at(90, 40)).isCloseTo(grey / 2, within(1e-3f));
        assertThat(out.red().at(70, 40)).isBetween(grey, 0.2f);
    }

    @Test
    void warmthAndCastKeepTheBrightnessOfGrey() {
        for (Tone tone : new Tone[] {new Tone(1, 0.5, 0, 0), new Tone(-1, -1, 0, 0)}) {
            float[] gains = tone.gains();
            assertThat(Luminance.of(gains[0], gains[1], gains[2])).isCloseTo(1, within(1e-6));
        }
        assertThat(new Tone(1, 0, 0, 0).gains()[0]).isGreaterThan(1.1f);
        assertThat(new Tone(0, 1, 0, 0).gains()[1]).isLessThan(0.95f);
    }
}
