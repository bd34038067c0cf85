package app.yubble.core.lens;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.Pictures;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import java.util.Arrays;
import java.util.Random;
import java.util.function.IntBinaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Small lights far out of focus: what is taken for one, and how it is composed with what is before and behind it. */
class LampsTest {
    private static final int SIDE = 256;
    private static final float LIGHT = 400;

    private static Plane render(Picture source, Plane radius) {
        return LensRender.render(source, radius, Disc.ROUND, Glints.NONE, Progress.NONE)
                .red();
    }

    /** A dark picture with one lamp in the middle; the radius of every pixel as told. */
    private static Plane withLamp(IntBinaryOperator radiusAt) {
        Picture source = Pictures.grey(SIDE, SIDE, (x, y) -> x == 128 && y == 128 ? LIGHT : 0.02);
        return render(source, Pictures.plane(SIDE, SIDE, radiusAt::applyAsInt));
    }

    private static double level(double radius) {
        return LIGHT / (Math.PI * radius * radius);
    }

    @ParameterizedTest
    @ValueSource(floats = {4.3f, 9.7f, 23.4f, 31.7f, 58.2f, -17.3f, -41.9f})
    void aRadiusBetweenTwoStepsGivesOneDiscAndNotTwo(float radius) {
        Picture source = Pictures.grey(SIDE, SIDE, (x, y) -> x == 128 && y == 128 ? LIGHT : 0);
        Plane out = render(source, Plane.filled(source.size(), radius));
        double size = Math.abs(radius);
        for (int degrees = 0; degrees < 360; degrees += 20) {
            double cos = Math.cos(Math.toRadians(degrees));
            double sin = Math.sin(Math.toRadians(degrees));
            assertThat((double) out.nearestTo(128.5 + cos * (size - 1.2), 128.5 + sin * (size - 1.2)))
                    .isCloseTo(level(size), within(0.15 * level(size)));
            assertThat((double) out.nearestTo(128.5 + cos * (size + 1.2), 128.5 + sin * (size + 1.2)))
                    .isLessThan(0.1 * level(size));
        }
        assertThat(Pictures.sum(out)).isCloseTo(LIGHT, within(0.002 * LIGHT));
    }

    @Test
    void aLampBehindASharpPostIsHiddenByIt() {
        Plane out = withLamp((x, y) -> x >= 140 && x < 150 ? 0 : 30);
        assertThat((double) out.at(145, 128)).isCloseTo(0.02, within(0.004));
        // Beside the post the disc goes on.
        assertThat((double) out.at(155, 128)).isGreaterThan(0.7 * level(30));
        assertThat((double) out.at(120, 128)).isGreaterThan(0.7 * level(30));
    }

    @Test
    void aLampBehindABlurredPostShinesThroughItsBorderOnly() {
        Plane out = withLamp((x, y) -> x >= 136 && x < 166 ? 6 : 40);
        double inside = out.at(151, 128) - 0.02;
        double border = out.at(136, 128) - 0.02;
        double outside = out.at(120, 128) - 0.02;
        assertThat(inside).isLessThan(0.1 * level(40));
        assertThat(border).isBetween(0.2 * outside, 0.85 * outside);
    }

    @Test
    void aLampInFrontSpreadsOverWhatIsSharpBehindIt() {
        Picture source = Pictures.grey(
                SIDE, SIDE, (x, y) -> Math.abs(x - 128) < 3 && Math.abs(y - 128) < 3 ? LIGHT / 25 : x / 8 % 2 * 0.1);
        Plane radius = Pictures.plane(SIDE, SIDE, (x, y) -> Math.abs(x - 128) < 3 && Math.abs(y - 128) < 3 ? -30 : 0);
        Plane out = render(source, radius);
        // The stripes behind stay as sharp as they were, with the disc's light on top.
        assertThat((double) out.at(108, 128) - out.at(100, 128)).isCloseTo(0.1, within(0.02));
        assertThat((double) out.at(108, 128)).isGreaterThan(0.1 + 0.6 * level(30));
        assertThat(out.at(60, 128)).isEqualTo(source.red().at(60, 128));
    }

    @Test
    void aRegionHasTheLampsOfTheWholeAlsoThoseBesideIt() {
        Random random = new Random(5);
        Picture source = Pictures.grey(900, 500, (x, y) -> random.nextInt(3000) == 0 ? 60 : 0.05);
        Plane radius = Pictures.plane(900, 500, (x, y) -> 4 + x / 25.0);
        Plane whole = render(source, radius);
        Region region = new Region(257, 131, 300, 200);
        Plane part = LensRender.render(
                        source, radius, Disc.ROUND, Lift.of(Glints.NONE.lift(source)), region, Progress.NONE)
                .red();
        assertThat(Pictures.distance(part, Resample.crop(whole, region))).isLessThan(2e-3);
    }

    @Test
    void crowdsOfLampsAreDrawnTogetherAndKeepTheirLight() {
        Random random = new Random(7);
        Picture source = Pictures.grey(700, 700, (x, y) -> random.nextInt(30) == 0 ? 5 : 0);
        Plane radius = Pictures.plane(700, 700, (x, y) -> x < 120 || y < 120 || x >= 580 || y >= 580 ? 0.0 : 90.0);
        Plane out = render(source, radius);
        double within = 0;
        for (int y = 300; y < 400; y++) {
            for (int x = 300; x < 400; x++) {
                within += out.at(x, y);
            }
        }
        double mean = Pictures.mean(source.red());
        // In the middle every place gets light from all around: the mean.
        assertThat(within / 10_000).isCloseTo(mean, within(0.1 * mean));
    }

    private static Lamps taken(Picture source, float radius) {
        Shelf shelf = Shelf.open();
        Plane field = Plane.filled(source.size(), radius);
        TilePixels pixels =
                new TilePixels(source, field, Lift.of(new Plane(source.size())), Region.all(source.size()), shelf);
        Pieces[] none = new Pieces[source.height() / LayerCut.BAND];
        Arrays.setAll(none, band -> new Pieces());
        return Lamps.of(pixels, none, new RadiusSteps(Math.abs(radius), 8), 3.5f, 1);
    }

    private static int count(Lamps lamps, float radius) {
        int sum = 0;
        for (int step = 1; step < new RadiusSteps(Math.abs(radius), 8).count(); step++) {
            Lamps.Group group = lamps.at(step, radius < 0);
            sum += group == null ? 0 : group.count();
        }
        return sum;
    }

    @Test
    void wallsWindowsAndGreyThingsAreNotLamps() {
        Size size = new Size(256, 256);
        Picture wall = Pictures.grey(size.width(), size.height(), (x, y) -> x < 100 ? 3 : 0.1);
        assertThat(count(taken(wall, 20), 20)).isZero();
        Picture grey = Pictures.grey(size.width(), size.height(), (x, y) -> x == 128 && y == 128 ? 0.45 : 0.001);
        assertThat(count(taken(grey, 20), 20)).isZero();
        Picture lamp = Pictures.grey(size.width(), size.height(), (x, y) -> x == 128 && y == 128 ? 2 : 0.001);
        assertThat(count(taken(lamp, 20), 20)).isEqualTo(1);
        assertThat(count(taken(lamp, -20), -20)).isEqualTo(1);
        // Hardly out of focus there is no outline to lose.
        assertThat(taken(lamp, 2).any()).isFalse();
    }

    @Test
    void onlyTheLightAboveItsSurroundingsIsTakenFromALamp() {
        Picture source = Pictures.grey(256, 256, (x, y) -> x == 128 && y == 128 ? 8 : 0.1);
        Lamps lamps = taken(source, 20);
        Lamps.Group group = null;
        for (int step = 1; group == null; step++) {
            group = lamps.at(step, false);
        }
        assertThat(group.x(0)).isEqualTo(128);
        assertThat(group.radius(0)).isEqualTo(20);
        assertThat((double) group.light(0, 1)).isBetween(7.5, 7.95);
    }
}
