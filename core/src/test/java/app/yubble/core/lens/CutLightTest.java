package app.yubble.core.lens;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CutLightTest {
    private static final int SIDE = 400;
    /** Samples of a pixel's side. */
    private static final int FINE = 8;

    /** Round lamps of one brightness on a dark ground, cut off at white; some edges of plain things beside them. */
    private static Picture lamps(double brightness, double radius, double spread) {
        float[] light = new float[SIDE * SIDE];
        java.util.Arrays.fill(light, 0.05f);
        for (int i = 0; i < 12; i++) {
            double cx = 40 + 83.3 * (i % 4) + 0.37 * i;
            double cy = 40 + 71.7 * (i / 4) + 0.29 * i;
            for (int y = (int) (cy - radius - 2); y < cy + radius + 2; y++) {
                for (int x = (int) (cx - radius - 2); x < cx + radius + 2; x++) {
                    light[y * SIDE + x] += (float) (brightness * coverage(x - cx, y - cy, radius));
                }
            }
        }
        for (int y = 260; y < 380; y++) {
            for (int x = 20; x < 380; x++) {
                light[y * SIDE + x] = (x / 12 + y / 40) % 2 == 0 ? 0.1f : 0.7f;
            }
        }
        Plane seen = new Plane(new Size(SIDE, SIDE));
        float[] blurred = spread == 0 ? light : gaussian(light, spread);
        for (int i = 0; i < blurred.length; i++) {
            seen.samples()[i] = Math.min(1, blurred[i]);
        }
        return new Picture(seen, seen, seen);
    }

    private static double coverage(double dx, double dy, double radius) {
        int in = 0;
        for (int v = 0; v < FINE; v++) {
            for (int u = 0; u < FINE; u++) {
                in += Math.hypot(dx + (u + 0.5) / FINE, dy + (v + 0.5) / FINE) < radius ? 1 : 0;
            }
        }
        return in / (double) (FINE * FINE);
    }

    private static float[] gaussian(float[] of, double width) {
        float[] across = new float[of.length];
        float[] out = new float[of.length];
        blur(of, across, width, 1);
        blur(across, out, width, SIDE);
        return out;
    }

    private static void blur(float[] from, float[] to, double width, int step) {
        for (int i = 0; i < from.length; i++) {
            double sum = 0;
            double weights = 0;
            for (int k = -4; k <= 4; k++) {
                int at = Math.max(0, Math.min(from.length - 1, i + k * step));
                double weight = Math.exp(-k * k / (2 * width * width));
                sum += weight * from[at];
                weights += weight;
            }
            to[i] = (float) (sum / weights);
        }
    }

    private static double found(Picture photo) {
        float[] cut = CutLight.of(photo).samples();
        double sum = 0;
        int count = 0;
        for (int i = 0; i < SIDE * 250; i++) {
            sum += cut[i];
            count += photo.green().samples()[i] >= 1 ? 1 : 0;
        }
        return 1 + sum / Math.max(1, count);
    }

    @ParameterizedTest
    @CsvSource({"1.3, 4", "2, 4", "4, 4", "8, 3", "8, 6"})
    void lampsAreAboutAsBrightAsTheyWere(double brightness, double radius) {
        assertThat(found(lamps(brightness, radius, 0)) / brightness).isBetween(0.45, 1.6);
    }

    @Test
    void brighterLampsAreFoundBrighterAlsoBehindARealLens() {
        double dim = found(lamps(1.4, 4, 0.7));
        double bright = found(lamps(4, 4, 0.7));
        double brightest = found(lamps(12, 4, 0.7));
        assertThat(dim).isLessThan(2.2);
        assertThat(bright).isGreaterThan(1.1 * dim);
        assertThat(brightest).isGreaterThan(1.1 * bright).isLessThan(CutLight.BRIGHTEST);
    }

    @Test
    void aWideWindowAndAPictureWithoutLightsGetNothing() {
        assertThat(found(lamps(6, 30, 0))).isCloseTo(1, within(0.01));
        assertThat(CutLight.of(Picture.blank(new Size(40, 30))).samples()).containsOnly(0f);
    }

    @Test
    void theSettingScalesTheEstimateAndSmallerPicturesGetTheSameLight() {
        Picture photo = lamps(6, 4, 0);
        Plane cut = CutLight.of(photo);
        Plane usual = Glints.of(0.25).lift(photo, cut);
        Plane twice = Glints.of(0.5).lift(photo, cut);
        int lit = 0;
        for (int i = 0; i < usual.samples().length; i++) {
            assertThat(twice.samples()[i]).isCloseTo(2 * usual.samples()[i], within(1e-4f));
            lit += usual.samples()[i] > 0 ? 1 : 0;
        }
        assertThat(lit).isGreaterThan(300);
        assertThat(Glints.NONE.lift(photo, cut).samples()).containsOnly(0f);
        Size half = new Size(SIDE / 2, SIDE / 2);
        Picture small = Resample.toSize(photo, half);
        Plane lifts = Glints.of(0.25).lift(small, Resample.toSize(cut, half));
        assertThat(light(small, lifts) * 4).isCloseTo(light(photo, usual), within(0.02 * light(photo, usual)));
    }

    @Test
    void theThresholdLeavesOutWhatDoesNotReachItAndLiftsDimmerLightsBitByBit() {
        Picture photo = lamps(6, 4, 0);
        Plane cut = CutLight.of(photo);
        double usual = light(photo, Glints.of(0.25).lift(photo, cut));
        assertThat(light(photo, new Glints(0.25, 0.95).lift(photo, cut))).isCloseTo(usual, within(0.05 * usual));
        assertThat(light(photo, new Glints(0.25, 1).lift(photo, cut))).isZero();
        Picture dim = lamps(0.6, 2, 0);
        Plane none = CutLight.of(dim);
        assertThat(light(dim, Glints.of(0.25).lift(dim, none))).isZero();
        double little = light(dim, new Glints(0.25, 0.55).lift(dim, none));
        double more = light(dim, new Glints(0.25, 0.4).lift(dim, none));
        assertThat(little).isPositive();
        assertThat(more).isGreaterThan(little);
    }

    private static double light(Picture picture, Plane lift) {
        double sum = 0;
        for (int i = 0; i < lift.samples().length; i++) {
            sum += picture.green().samples()[i] * lift.samples()[i];
        }
        return sum;
    }
}
