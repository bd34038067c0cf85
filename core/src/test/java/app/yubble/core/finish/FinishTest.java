package app.yubble.core.finish;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.Pictures;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.raster.BoxMean;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.HeldPhoto;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageCache;
import app.yubble.core.refocus.View;
import app.yubble.core.refocus.Viewer;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class FinishTest {
    private static final int WIDTH = 640;
    private static final int HEIGHT = 480;
    private static final int HALF = WIDTH / 2;

    /** What noise there is in a part of a channel, in square roots of light. */
    record Measured(double level, double beside) {
        static Measured of(Plane plane, int x0, int x1, int y0, int y1) {
            Plane root = plane.rooted();
            Plane smooth = BoxMean.of(root, 12);
            double squares = 0;
            double products = 0;
            int count = 0;
            for (int y = y0; y < y1; y++) {
                for (int x = x0; x < x1; x++) {
                    double own = root.at(x, y) - smooth.at(x, y);
                    squares += own * own;
                    products += own * (root.at(x + 1, y) - smooth.at(x + 1, y));
                    count++;
                }
            }
            return new Measured(Math.sqrt(squares / count), products / squares);
        }
    }

    /** Noise of a standard deviation, of boxes as wide as {@code size}. */
    private static Plane noise(double level, int size, long seed) {
        Random random = new Random(seed);
        Plane white = Pictures.plane(WIDTH + 2, HEIGHT, (x, y) -> random.nextGaussian());
        return Pictures.plane(WIDTH, HEIGHT, (x, y) -> {
            double sum = 0;
            for (int dy = 0; dy < size; dy++) {
                for (int dx = 0; dx < size; dx++) {
                    sum += white.at(Math.min(WIDTH + 1, x + dx), Math.min(HEIGHT - 1, y + dy));
                }
            }
            return level * sum / size;
        });
    }

    private static Plane noisy(Plane light, Plane noise) {
        return Pictures.plane(WIDTH, HEIGHT, (x, y) -> {
            double root = Math.sqrt(light.at(x, y)) + noise.at(x, y);
            return root * Math.abs(root);
        });
    }

    /** A ramp from dark to light with a post before it. */
    private static Plane ramp() {
        return Pictures.plane(WIDTH, HEIGHT, (x, y) -> y > 400 && y < 430 ? 0.02 : 0.05 + 0.6 * x / WIDTH);
    }

    @ParameterizedTest
    @CsvSource({"0.01,1", "0.03,1", "0.02,2", "0.006,2"})
    void noiseIsMeasuredWithItsLevelAndSizeAndWhatTheChannelsShare(double level, int size) {
        Plane shared = noise(level * Math.sqrt(0.5), size, 1);
        Plane[] own = {noise(level * Math.sqrt(0.5), size, 2), noise(level * Math.sqrt(0.5), size, 3)};
        Plane[] both = new Plane[2];
        for (int i = 0; i < 2; i++) {
            Plane each = own[i];
            both[i] = Pictures.plane(WIDTH, HEIGHT, (x, y) -> shared.at(x, y) + each.at(x, y));
        }
        Plane blue = noise(2 * level, size, 5);
        Noise found = Noise.of(new Picture(noisy(ramp(), both[0]), noisy(ramp(), both[1]), noisy(ramp(), blue)));
        for (float brightness : new float[] {0.3f, 0.5f, 0.7f}) {
            assertThat(found.level(0, brightness)).isCloseTo((float) level, within((float) (0.1 * level)));
            assertThat(found.level(2, brightness)).isCloseTo((float) (2 * level), within((float) (0.2 * level)));
        }
        assertThat(found.beside()).isCloseTo(size == 1 ? 0 : 0.5, within(0.06));
        // Half of one pair of channels, nothing of the noisier two.
        assertThat(found.alike()).isBetween(0.02, 0.3);
    }

    @ParameterizedTest
    @CsvSource({"1,2", "1,3.2", "2,2"})
    void aSmallerPictureHasLessNoise(int size, double factor) {
        Plane own = noisy(Plane.filled(new Size(WIDTH, HEIGHT), 0.2f), noise(0.04, size, 21));
        Noise full = Noise.of(new Picture(own, own, own));
        Plane small = Resample.toSize(own, new Size((int) (WIDTH / factor), (int) (HEIGHT / factor)));
        Noise measured = Noise.of(new Picture(small, small, small));
        float predicted = full.shrunk(factor).level(0, 0.45f);
        assertThat(predicted / measured.level(0, 0.45f)).isBetween(0.8f, 1.15f);
        assertThat(full.shrunk(1).level(0, 0.45f)).isCloseTo(full.level(0, 0.45f), within(1e-6f));
    }

    @Test
    void aPhotoThatIsNoisierInTheDarkGetsMoreThere() {
        Plane level = noise(1, 1, 7);
        Plane light = ramp();
        Plane noise = Pictures.plane(WIDTH, HEIGHT, (x, y) -> level.at(x, y) * (light.at(x, y) < 0.3 ? 0.02 : 0.01));
        Plane plane = noisy(light, noise);
        Noise found = Noise.of(new Picture(plane, plane, plane));
        assertThat(found.level(0, 0.3f)).isCloseTo(0.02f, within(0.002f));
        assertThat(found.level(0, 0.75f)).isCloseTo(0.01f, within(0.0015f));
        assertThat(found.alike()).isGreaterThan(0.98);
    }

    @Test
    void whatHasNoNoiseHasNone() {
        Plane smooth = Pictures.plane(WIDTH, HEIGHT, (x, y) -> 0.1 + 0.5 * x / WIDTH);
        assertThat(Noise.of(new Picture(smooth, smooth, smooth)).isNone()).isTrue();
        Plane rounded = Pictures.plane(WIDTH, HEIGHT, (x, y) -> {
            double root = Math.round(255 * Math.sqrt(smooth.at(x, y) + 0.1 * y / HEIGHT)) / 255.0;
            return root * root;
        });
        assertThat(Noise.of(new Picture(rounded, rounded, rounded)).isNone()).isTrue();
        Plane waves = Pictures.plane(WIDTH, HEIGHT, (x, y) -> 0.4 + 0.2 * Math.sin(x / 5.0) * Math.sin(y / 6.0));
        assertThat(Noise.of(new Picture(waves, waves, waves)).isNone())
                .as("structure of several pixels is no noise")
                .isTrue();
        Plane lines = Pictures.plane(WIDTH, HEIGHT, (x, y) -> y % 8 < 4 ? 0.2 : 0.25);
        assertThat(Noise.of(new Picture(lines, lines, lines)).isNone())
                .as("lines are no noise")
                .isTrue();
        assertThat(Noise.of(Pictures.noise(WIDTH, HEIGHT, 5)).isNone())
                .as("no photo is that noisy")
                .isTrue();
        assertThat(Noise.of(Pictures.noise(20, 20, 3)).isNone())
                .as("too small to tell")
                .isTrue();
    }

    static final Recipe BLURRED =
            Recipe.INITIAL.withDepth(DepthChoice.of(DepthChoice.Source.FILE)).withBand(SharpBand.around(0.9, 0.1, 0));

    /** Sharp on the left, behind the band on the right; grey with noise. */
    static HeldPhoto halves(double level, int size) {
        Plane grey = Plane.filled(new Size(WIDTH, HEIGHT), 0.2f);
        Picture photo = new Picture(
                noisy(grey, noise(level, size, 11)),
                noisy(grey, noise(level, size, 12)),
                noisy(grey, noise(level, size, 13)));
        return HeldPhoto.of(photo, Pictures.plane(WIDTH, HEIGHT, (x, y) -> x < HALF ? 0.9 : 0.4));
    }

    static Picture rendered(HeldPhoto photo, Recipe recipe, Region part, double radius) {
        return new RefocusLine(StageCache.keepingAll())
                .render(
                        new Viewer(),
                        photo,
                        recipe,
                        new View(photo.size(), part),
                        radius / BLURRED.band().outside(0.4),
                        Progress.NONE);
    }

    @ParameterizedTest
    @CsvSource({"0.7,1", "1,1", "1.5,1", "3,1", "8,1", "25,1", "1,2", "2,2", "4,2", "12,2"})
    void aBlurredPatchHasTheNoiseOfASharpOne(double radius, int size) {
        HeldPhoto photo = halves(0.02, size);
        Picture out = rendered(photo, BLURRED, Region.all(photo.size()), radius);
        for (Plane each : out.planes()) {
            Measured sharp = Measured.of(each, 40, HALF - 60, 20, HEIGHT - 20);
            Measured blurred = Measured.of(each, HALF + 60, WIDTH - 40, 20, HEIGHT - 20);
            assertThat(blurred.level() / sharp.level()).as("level").isBetween(0.9, 1.1);
            assertThat(blurred.beside() - sharp.beside()).as("size").isBetween(-0.1, 0.1);
        }
        Picture without = rendered(photo, BLURRED.withFinish(Finish.NONE), Region.all(photo.size()), radius);
        assertThat(Pictures.mean(out.red())).isCloseTo(Pictures.mean(without.red()), within(2e-4));
    }

    @Test
    void grainIsFixedByPlace() {
        HeldPhoto photo = halves(0.02, 1);
        Region part = new Region(HALF + 30, 100, 200, 150);
        Picture whole = rendered(photo, BLURRED, Region.all(photo.size()), 9);
        Picture alone = rendered(photo, BLURRED, part, 9);
        double most = 0;
        for (int y = 0; y < part.height(); y++) {
            for (int x = 0; x < part.width(); x++) {
                most = Math.max(
                        most, Math.abs(alone.red().at(x, y) - whole.red().at(x + part.x(), y + part.y())));
            }
        }
        assertThat(most).isLessThan(1e-4);
    }

    @Test
    void lessGrainCanBeAskedFor() {
        HeldPhoto photo = halves(0.02, 1);
        Picture out = rendered(photo, BLURRED.withFinish(new Finish(0.5, 0)), Region.all(photo.size()), 10);
        Measured blurred = Measured.of(out.green(), HALF + 60, WIDTH - 40, 20, HEIGHT - 20);
        assertThat(blurred.level()).isCloseTo(0.01, within(0.001));
        Picture none = rendered(photo, BLURRED.withFinish(Finish.NONE), Region.all(photo.size()), 10);
        assertThat(Measured.of(none.green(), HALF + 60, WIDTH - 40, 20, HEIGHT - 20)
                        .level())
                .isLessThan(0.002);
    }

    /** A border between dark and light, over as many pixels. */
    private static Picture border(double over) {
        return Pictures.grey(200, 120, (x, y) -> {
            double share = Math.max(0, Math.min(1, (x - 100) / over + 0.5));
            double root = 0.3 + 0.4 * share;
            return root * root;
        });
    }

    private static Picture crisp(Picture photo, Plane radii, Noise noise, double amount) {
        Picture out = photo.copy();
        Crispness.raise(out, Region.all(photo.size()), photo, radii, noise, amount);
        return out;
    }

    private static double steepest(Plane plane) {
        double most = 0;
        for (int x = 1; x < plane.width(); x++) {
            most = Math.max(most, Math.sqrt(plane.at(x, 60)) - Math.sqrt(plane.at(x - 1, 60)));
        }
        return most;
    }

    @ParameterizedTest
    @ValueSource(doubles = {3, 5})
    void edgesGetSteeperWithoutHalos(double over) {
        Picture photo = border(over);
        Picture out = crisp(photo, new Plane(photo.size()), Noise.none(), 1);
        assertThat(steepest(out.red())).isGreaterThan(1.15 * steepest(photo.red()));
        Plane root = out.red().rooted();
        assertThat(root.range().low()).isGreaterThan(0.3f - 0.03f);
        assertThat(root.range().high()).isLessThan(0.7f + 0.03f);
    }

    @Test
    void crispnessLeavesNoiseAndBlurAlone() {
        HeldPhoto noisy = halves(0.02, 1);
        Noise noise = Noise.of(noisy.full());
        Plane sharp = new Plane(noisy.size());
        Picture out = crisp(noisy.full(), sharp, noise, 1);
        double before = Measured.of(noisy.full().green(), 40, 600, 20, 460).level();
        assertThat(Measured.of(out.green(), 40, 600, 20, 460).level() / before).isLessThan(1.35);
        Picture photo = border(3);
        Picture blurred = crisp(photo, Plane.filled(photo.size(), 3), Noise.none(), 1);
        assertThat(Pictures.distance(blurred.red(), photo.red())).isZero();
    }
}
