package app.yubble.core.lens;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.Pictures;
import app.yubble.core.raster.BlockRanges;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

class LensTest {
    private static Picture render(Picture source, Plane radius) {
        return LensRender.render(source, radius, Disc.ROUND, Glints.NONE, Progress.NONE);
    }

    @Test
    void theFormulaOfAThinLensGivesTheRadius() {
        // 50 mm at f/2 focused at 2.5 m on 36 mm: 2500 / (2 * 2450 * 36) = 1.4172 % of the width is the diameter at
        // infinity; at focus nearness 0.5 a unit of nearness is twice that; half of it is the radius.
        double radius = Aperture.DEFAULT.radiusPerNearness(new Size(6000, 4000), 0.5);
        assertThat(radius).isCloseTo(0.0141723 * 6000 / 2 / 0.5, within(0.01));
        assertThat(Aperture.DEFAULT.withFNumber(4).radiusPerNearness(new Size(6000, 4000), 0.5))
                .isCloseTo(radius / 2, within(1e-9));
    }

    @Test
    void aLensInsideItsOwnFocalLengthIsRefused() {
        assertThatThrownBy(() -> Aperture.DEFAULT.withLens(200, 36, 0.1))
                .hasMessageContaining("beyond the focal length");
        assertThatThrownBy(() -> Aperture.DEFAULT.withFNumber(0))
                .hasMessageContaining("aperture must be in 0.5..64, found 0");
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 5, 6, 7, 9, 11})
    void everyDiscHasTheAreaOfItsCircle(int blades) {
        DiscShape shape = new DiscShape(Disc.bladed(blades, blades == 0 ? 0 : 0.3, 20));
        DiscShape.Ring ring = shape.kernel(40, false, 0, 0, 0).rings()[0];
        double area = 0;
        for (int i = 0; i < ring.from().length; i++) {
            area += ring.to()[i] - ring.from()[i];
        }
        assertThat(area).isCloseTo(Math.PI * 40 * 40, within(Math.PI * 40 * 40 * 0.003));
        assertThat(area * ring.weight()).isCloseTo(1, within(1e-4));
    }

    @ParameterizedTest
    @ValueSource(floats = {0.4f, 1, 3.3f, 9, 25, 70, -9, -40})
    void aConstantPictureStaysConstant(float radius) {
        Picture source = Pictures.grey(210, 170, (x, y) -> 0.37);
        Picture out = render(source, Plane.filled(source.size(), radius));
        assertThat(Pictures.distance(out.red(), source.red())).isLessThan(1e-4);
    }

    @Test
    void aConstantPictureStaysConstantOnASlopeThroughTheBand() {
        Picture source = Pictures.grey(300, 300, (x, y) -> 0.6);
        Picture out = render(source, Pictures.plane(300, 300, (x, y) -> 30 - y * 0.2));
        assertThat(Pictures.distance(out.red(), source.red())).isLessThan(2e-3);
    }

    @Test
    void insideTheBandThePictureComesBackBitForBit() {
        Picture source = Pictures.noise(150, 90, 3);
        Picture out = render(source, Plane.filled(source.size(), 0));
        assertThat(out.red().samples()).isEqualTo(source.red().samples());
    }

    @ParameterizedTest
    @ValueSource(floats = {6, 20, 50, -20})
    void aPointOfLightBecomesADiscOfItsRadiusAndKeepsItsLight(float radius) {
        int side = 260;
        Picture source = Pictures.grey(side, side, (x, y) -> x == 130 && y == 130 ? 1000 : 0);
        Plane out = render(source, Plane.filled(source.size(), radius)).red();
        double level = 1000 / (Math.PI * radius * radius);
        int inside = 0;
        for (float sample : out.samples()) {
            inside += sample > level / 2 ? 1 : 0;
        }
        assertThat(Pictures.sum(out)).isCloseTo(1000, within(2.0));
        assertThat(Math.sqrt(inside / Math.PI)).isCloseTo(Math.abs(radius), within(0.04 * Math.abs(radius) + 0.5));
        assertThat((double) out.at(130, 130)).isCloseTo(level, within(level * 0.08));
    }

    @Test
    void aBladedDiscHasItsCorners() {
        Picture source = Pictures.grey(200, 200, (x, y) -> x == 100 && y == 100 ? 1000 : 0);
        Disc disc = Disc.bladed(6, 0, 0);
        Plane out = LensRender.render(source, Plane.filled(source.size(), 30), disc, Glints.NONE, Progress.NONE)
                .red();
        double level = 1000 / (Math.PI * 900);
        for (int degrees = 0; degrees < 360; degrees += 15) {
            double edge = 30 * disc.edge(Math.toRadians(degrees));
            double cos = Math.cos(Math.toRadians(degrees));
            double sin = Math.sin(Math.toRadians(degrees));
            assertThat((double) out.nearestTo(100.5 + cos * (edge - 1), 100.5 + sin * (edge - 1)))
                    .isGreaterThan(level * 0.5);
            assertThat((double) out.nearestTo(100.5 + cos * (edge + 1), 100.5 + sin * (edge + 1)))
                    .isLessThan(level * 0.5);
        }
    }

    @Test
    void aSharpBlackSubjectDoesNotDarkenTheWhiteWallBehindIt() {
        Picture source = Pictures.grey(300, 200, (x, y) -> x < 150 ? 0 : 1);
        Plane radius = Pictures.plane(300, 200, (x, y) -> x < 150 ? 0 : 24);
        Plane out = render(source, radius).red();
        for (int x = 0; x < 300; x++) {
            float expected = x < 150 ? 0 : 1;
            if (x < 148 || x > 151) {
                assertThat(out.at(x, 100)).as("at %d", x).isCloseTo(expected, within(0.01f));
            }
        }
    }

    @Test
    void aSharpWhiteSubjectLeaksNoLightIntoTheDarkBehindIt() {
        Picture source = Pictures.grey(300, 200, (x, y) -> Math.hypot(x - 150, y - 100) < 50 ? 1 : 0.02);
        Plane radius = Pictures.plane(300, 200, (x, y) -> Math.hypot(x - 150, y - 100) < 50 ? 0 : 30);
        Plane out = render(source, radius).red();
        assertThat(out.at(150 + 54, 100)).isCloseTo(0.02f, within(0.01f));
        assertThat(out.at(150 + 44, 100)).isCloseTo(1f, within(0.01f));
    }

    @Test
    void aThirdThingFartherAwayDoesNotShineThroughBetweenTwoOthers() {
        // Left: a grey hill (radius 20). Right: a black house (radius 14). Only the sky above (radius 30) is white.
        Picture source = Pictures.grey(400, 400, (x, y) -> y < 60 ? 1 : x < 200 ? 0.3 : 0.0);
        Plane radius = Pictures.plane(400, 400, (x, y) -> y < 60 ? 30 : x < 200 ? 20 : 14);
        Plane out = render(source, radius).red();
        for (int x = 150; x < 260; x++) {
            assertThat(out.at(x, 300)).as("at %d", x).isBetween(-0.003f, 0.303f);
        }
    }

    @Test
    void aBlurredBarInFrontIsSeeThroughAndShowsTheSharpPictureBehind() {
        Picture source = Pictures.grey(300, 200, (x, y) -> Math.abs(x - 150) < 4 ? 0 : 0.8);
        Plane radius = Pictures.plane(300, 200, (x, y) -> Math.abs(x - 150) < 4 ? -20 : 0);
        Plane out = render(source, radius).red();
        // The bar covers 7 of about 39 pixels at the disc's widest: 4 * 7 * 20 / (pi * 400) or 22 % in the middle.
        assertThat(out.at(150, 100)).isCloseTo(0.8f * (1 - 0.22f), within(0.03f));
        assertThat(out.at(150 + 30, 100)).isCloseTo(0.8f, within(0.005f));
    }

    @Test
    void aRegionIsThePartOfTheWhole() {
        Picture source = Pictures.noise(700, 500, 5);
        Plane radius = Pictures.plane(700, 500, (x, y) -> Math.hypot(x - 350, y - 250) < 120 ? 0 : (x - 350) / 12.0);
        Picture whole = render(source, radius);
        Region region = new Region(301, 173, 222, 190);
        Picture part =
                LensRender.render(source, radius, Disc.ROUND, Lift.of(Glints.NONE.lift(source)), region, Progress.NONE);
        assertThat(Pictures.distance(part.red(), Resample.crop(whole.red(), region)))
                .isLessThan(2e-3);
    }

    @Test
    void glintsLiftBlurredLampsAndLeaveSharpOnesAlone() {
        Picture source = Pictures.grey(200, 100, (x, y) -> (x == 50 || x == 150) && y == 50 ? 1 : 0);
        Plane radius = Pictures.plane(200, 100, (x, y) -> x < 100 ? 0 : 10);
        Plane out = LensRender.render(source, radius, Disc.ROUND, Glints.of(1), Progress.NONE)
                .red();
        assertThat(out.at(50, 50)).isEqualTo(1f);
        assertThat((double) out.at(150, 50)).isGreaterThan(10 / (Math.PI * 100));
    }

    @Test
    void glintsLiftLampsButNotWhiteWalls() {
        Picture source = Pictures.grey(600, 400, (x, y) -> x < 300 || Math.hypot(x - 450, y - 200) < 3 ? 1 : 0);
        Plane lift = Glints.of(0.5).lift(source);
        assertThat(lift.at(450, 200)).isGreaterThan(8);
        assertThat(lift.at(150, 200)).isZero();
        assertThat(lift.at(400, 200)).isZero();
        // Not even the wall's corner.
        assertThat(lift.at(299, 0)).isZero();
    }

    @Test
    void panesOfAWindowAreNotLampsThoughEachIsSmall() {
        Picture source = Pictures.grey(
                600, 400, (x, y) -> x >= 100 && x < 160 && y >= 100 && y < 180 && x % 8 != 0 && y % 10 != 0 ? 1 : 0);
        Plane lift = Glints.of(1).lift(source);
        assertThat(lift.at(103, 103)).isLessThan(8);
        assertThat(lift.at(124, 135)).isZero();
    }

    @Test
    void theThresholdOfGlintsSaysWhatCountsAsClipped() {
        Picture source = Pictures.grey(600, 400, (x, y) -> Math.hypot(x - 450, y - 200) < 3 ? 0.6 : 0);
        assertThat(Glints.of(1).lift(source).at(450, 200)).isZero();
        assertThat(new Glints(1, 0.4).lift(source).at(450, 200)).isGreaterThan(20);
        assertThatThrownBy(() -> new Glints(1, 0.1)).hasMessageContaining("0.3..1");
    }

    @Test
    void aHighlightWithOneClippedChannelWasHardlyBrighterThanItLooks() {
        Picture white = Pictures.grey(600, 400, (x, y) -> Math.hypot(x - 450, y - 200) < 3 ? 1 : 0);
        Plane black = new Plane(white.size());
        Picture red = new Picture(white.red(), black, black);
        assertThat(Glints.of(1).lift(red).at(450, 200))
                .isLessThan(Glints.of(1).lift(white).at(450, 200) / 2);
    }

    @Test
    void oddPicturesHaveADefinedResult() {
        Picture dot = Pictures.grey(1, 1, (x, y) -> 0.5);
        assertThat(render(dot, Plane.filled(dot.size(), 90)).red().at(0, 0)).isCloseTo(0.5f, within(1e-3f));
        Picture line = Pictures.grey(1, 3000, (x, y) -> 0.25);
        Plane out = render(line, Plane.filled(line.size(), -7)).red();
        assertThat(Pictures.distance(out, line.red())).isLessThan(1e-3);
        Picture small = Pictures.grey(40, 30, (x, y) -> 0.25);
        assertThat(Pictures.distance(
                        render(small, Plane.filled(small.size(), 5000)).red(), small.red()))
                .isLessThan(1e-3);
        assertThatThrownBy(() -> render(small, Plane.filled(small.size(), Float.NaN)))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void renderingStopsWhenItIsCancelled() {
        Picture source = Pictures.noise(900, 900, 6);
        assertThatThrownBy(() ->
                        LensRender.render(source, Plane.filled(source.size(), 12), Disc.ROUND, Glints.NONE, done -> {
                            throw new CancellationException();
                        }))
                .isInstanceOf(CancellationException.class);
    }

    @ParameterizedTest
    @EnumSource(DiscCharacter.class)
    void aPointOfLightIsTheDiscOfItsCharacter(DiscCharacter character) {
        int side = 1000;
        float radius = 40;
        Disc whole = character.disc();
        // In the middle of the picture next to nothing is squeezed; a rim that fades has no outline to measure.
        Disc disc = whole.withRim(0);
        Picture source = Pictures.grey(side, side, (x, y) -> x == 500 && y == 500 ? 1000 : 0);
        Plane out = LensRender.render(source, Plane.filled(source.size(), radius), disc, Glints.NONE, Progress.NONE)
                .red();
        double share = 1 - disc.hollow() * disc.hollow();
        double level = 1000 / (Math.PI * radius * radius * share);
        int inside = 0;
        for (float sample : out.samples()) {
            inside += sample > level / 2 ? 1 : 0;
        }
        assertThat(Pictures.sum(out)).isCloseTo(1000, within(1.0));
        assertThat(inside / (Math.PI * radius * radius * share)).isCloseTo(1, within(0.02));
        for (int degrees = 0; degrees < 360; degrees += 10) {
            double cos = Math.cos(Math.toRadians(degrees));
            double sin = Math.sin(Math.toRadians(degrees));
            double edge = radius * disc.edge(Math.toRadians(degrees));
            assertThat((double) out.nearestTo(500.5 + cos * (edge - 1), 500.5 + sin * (edge - 1)))
                    .as("within at %d degrees", degrees)
                    .isGreaterThan(level * 0.5);
            assertThat((double) out.nearestTo(500.5 + cos * (edge + 1), 500.5 + sin * (edge + 1)))
                    .as("outside at %d degrees", degrees)
                    .isLessThan(level * 0.5);
        }
    }

    @Test
    void theDiscIsNarrowedTowardsTheCornersAndKeepsItsPlaceAndLight() {
        int side = 1000;
        Disc squeezed = Disc.ROUND.withSqueeze(1);
        Picture source = Pictures.grey(side, side, (x, y) -> (x == 500 || x == 900) && y == 500 ? 1000 : 0);
        Plane out = LensRender.render(source, Plane.filled(source.size(), 30), squeezed, Glints.NONE, Progress.NONE)
                .red();
        float level = (float) (1000 / (Math.PI * 900));
        assertThat(out.at(500 + 25, 500)).isGreaterThan(level * 0.7f);
        assertThat(out.at(500, 500 + 25)).isGreaterThan(level * 0.7f);
        // 400 of 707 pixels out the two circles are 0.51 radii apart: 22 px are left outwards and 29 px sideways.
        assertThat(out.at(900, 500 + 22)).isGreaterThan(level * 0.7f);
        assertThat(out.at(900 + 31, 500)).isLessThan(level * 0.4f);
        assertThat(out.at(900 - 31, 500)).isLessThan(level * 0.4f);
        assertThat(Pictures.sum(out)).isCloseTo(2000, within(40.0));
    }

    @Test
    void grassBehindAFenceIsSeenThroughTheFenceWhenBothAreInFront() {
        // Grey grass at radius 4 before a sharp white wall; a black bar, 12 px wide, at radius 24 before the grass.
        Picture source = Pictures.grey(400, 300, (x, y) -> Math.abs(x - 200) < 6 ? 0 : y < 100 ? 1 : 0.3);
        Plane radius = Pictures.plane(400, 300, (x, y) -> Math.abs(x - 200) < 6 ? -24 : y < 100 ? 0 : -4);
        Plane out = render(source, radius).red();
        // The bar covers about 11 * 2 * 24 / (pi * 576), a third, at its middle; the rest is grass and none of the
        // wall.
        assertThat(out.at(200, 240)).isBetween(0.3f * 0.6f, 0.3f * 0.78f);
        assertThat(out.at(200 + 20, 240)).isLessThan(0.302f);
    }

    @Test
    void mixedPixelsOfASubjectsEdgeTakeNoBackgroundWithThem() {
        // A dark disc before a white wall, its border pixels half and half as a camera draws them.
        Picture source = Pictures.grey(300, 200, (x, y) -> {
            double inside = Math.max(0, Math.min(1, 50 - Math.hypot(x - 150, y - 100) + 0.5));
            return 1 - 0.9 * inside;
        });
        Plane radius = Pictures.plane(300, 200, (x, y) -> Math.hypot(x - 150, y - 100) < 50 ? 0 : 25);
        Plane out = render(source, radius).red();
        for (int x = 150; x < 300; x++) {
            float was = source.red().at(x, 100);
            assertThat(out.at(x, 100)).as("at %d", x).isCloseTo(was, within(0.012f));
        }
    }

    @ParameterizedTest
    @CsvSource({"1,5000,9", "5000,1,-9", "3,2,40", "33,65,3", "64,31,-120"})
    void narrowPicturesStayWhatTheyAreWhenTheyAreConstant(int width, int height, float radius) {
        Picture source = Pictures.grey(width, height, (x, y) -> 0.7);
        Plane out = render(source, Plane.filled(source.size(), radius)).red();
        assertThat(Pictures.distance(out, source.red())).isLessThan(2e-3);
    }

    @Test
    void highlightsOfAHundredTimesWhiteLeaveNoTraceInTheDarkBesideThem() {
        Picture source = Pictures.grey(900, 700, (x, y) -> x < 300 && y < 600 ? 100 : 0.01);
        Plane out = render(source, Plane.filled(source.size(), 20)).red();
        for (int y = 0; y < 700; y += 7) {
            assertThat(out.at(420, y)).as("beside, at %d", y).isCloseTo(0.01f, within(2e-4f));
        }
        assertThat(out.at(150, 660)).as("below").isCloseTo(0.01f, within(1e-3f));
    }

    @Test
    void aFloorThatRisesThroughTheBandShowsNoSteps() {
        // A ramp of light on a floor whose radius goes from 40 behind to 40 in front: the light must stay a ramp.
        Picture source = Pictures.grey(500, 400, (x, y) -> 0.2 + x / 1000.0);
        Plane out =
                render(source, Pictures.plane(500, 400, (x, y) -> 40 - y * 0.2)).red();
        for (int y = 60; y < 340; y++) {
            assertThat(out.at(250, y)).as("at %d", y).isCloseTo(0.45f, within(0.004f));
            assertThat(Math.abs(out.at(250, y) - out.at(250, y + 1))).isLessThan(0.002f);
        }
    }

    @Test
    void anAntialiasedDepthMapIsAsGoodAsAHardOne() {
        Picture source = Pictures.grey(300, 200, (x, y) -> x < 150 ? 0.05 : 0.9);
        Plane hard = Pictures.plane(300, 200, (x, y) -> x < 150 ? 0 : 24);
        Plane soft = Pictures.plane(300, 200, (x, y) -> 24 * Math.max(0, Math.min(1, (x - 147.5) / 4.0)));
        Plane withHard = render(source, hard).red();
        Plane withSoft = render(source, soft).red();
        for (int x = 0; x < 300; x++) {
            if (Math.abs(x - 149.5) > 3) {
                assertThat(withSoft.at(x, 100)).as("at %d", x).isCloseTo(withHard.at(x, 100), within(0.03f));
            }
        }
    }

    @Test
    void aWireThinnerThanItsBlurKeepsItsDarknessBehindTheBand() {
        // A black wire, 2 px wide, at radius 6 before a white sky at radius 12: what it takes away is spread, not lost.
        Picture source = Pictures.grey(300, 200, (x, y) -> Math.abs(x - 149.5) < 1 ? 0 : 1);
        Plane radius = Pictures.plane(300, 200, (x, y) -> Math.abs(x - 149.5) < 1 ? 6 : 12);
        Plane out = render(source, radius).red();
        double missing = 0;
        for (int x = 100; x < 200; x++) {
            missing += 1 - out.at(x, 100);
        }
        assertThat(missing).isCloseTo(2, within(0.1));
    }

    @Test
    void aRegionOfALargePictureIsThePartOfTheWholeAcrossTiles() {
        Picture source = Pictures.noise(1900, 300, 9);
        Plane radius = Pictures.plane(1900, 300, (x, y) -> (x - 900) / 40.0);
        Picture whole = render(source, radius);
        Region region = new Region(1400, 20, 300, 200);
        Picture part =
                LensRender.render(source, radius, Disc.ROUND, Lift.of(Glints.NONE.lift(source)), region, Progress.NONE);
        assertThat(Pictures.distance(part.red(), Resample.crop(whole.red(), region)))
                .isLessThan(2e-3);
    }

    @Test
    void whatIsHardlyOutOfFocusLetsNothingShineThroughItsRim() {
        // A dark arm with a radius of 0.6 px at its rim before a bright, uneven wall far behind.
        Picture source = Pictures.grey(160, 120, (x, y) -> x < 80 ? 0.02 : (x / 3 + y / 5) % 2 == 0 ? 0.3 : 0.8);
        Plane out = render(source, Pictures.plane(160, 120, (x, y) -> x < 80 ? 0.6 : 9))
                .red();
        for (int y = 20; y < 100; y++) {
            assertThat(out.at(78, y)).as("one pixel within, row " + y).isCloseTo(0.02f, within(0.01f));
            assertThat(out.at(79, y)).as("rim, row " + y).isCloseTo(0.02f, within(0.09f));
        }
    }

    /** An edge blurred by a disc has a spread of half the radius: between the steps of radius, and on every level. */
    @ParameterizedTest
    @ValueSource(floats = {1.4f, 2.5f, 3.3f, 4, 5, 6.3f, 8, 11, 15, 21, 30, 47, 70})
    void anEdgeIsSpreadAsFarAsTheRadiusSays(float radius) {
        double variance = 0;
        int places = 8;
        for (int place = 0; place < places; place++) {
            int edge = 200 + place;
            Picture source = Pictures.grey(400, 240, (x, y) -> x < edge ? 0 : 1);
            // The last column is far more out of focus, so that the radius is not the last step.
            Plane out = render(source, Pictures.plane(400, 240, (x, y) -> x < 399 ? radius : 100))
                    .red();
            double mean = 0;
            double square = 0;
            for (int x = 90; x < 310; x++) {
                double light = out.at(x, 120) - out.at(x - 1, 120);
                mean += light * x;
                square += light * x * x;
            }
            assertThat(mean).isCloseTo(edge, within(1.01));
            variance += (square - mean * mean) / places;
        }
        assertThat(2 * Math.sqrt(variance)).isCloseTo(radius, within(0.2 + 0.028 * radius));
    }

    @Test
    void radiiAreComputedOnlyWhereTheyAreSeen() {
        Picture picture = Pictures.noise(1500, 900, 3);
        Plane radii = Pictures.plane(1500, 900, (x, y) -> x > 700 && y > 300 ? 6 : -3);
        AtomicLong computed = new AtomicLong();
        RadiusField field = new RadiusField(picture.size(), BlockRanges.of(radii), (to, part) -> {
            computed.addAndGet(part.size().pixels());
            Resample.copy(radii, to, part);
        });
        assertThat(field.largest()).isEqualTo(6);
        Region seen = new Region(600, 200, 200, 150);
        Lift none = Lift.of(new Plane(picture.size()));
        Picture part = LensRender.render(picture, field, Disc.ROUND, none, seen, Progress.NONE);
        Picture again = LensRender.render(picture, field, Disc.ROUND, none, seen, Progress.NONE);
        assertThat(computed.get()).isBetween(200 * 150L, 400_000L);
        Picture whole = LensRender.render(picture, radii, Disc.ROUND, none, seen, Progress.NONE);
        assertThat(Picture.difference(part, whole)).isNull();
        assertThat(Picture.difference(again, whole)).isNull();
        assertThat(field.completed().radii().samples()).isEqualTo(radii.samples());
        assertThat(computed).hasValue(1500 * 900L);
    }

    @Test
    void aFieldWhosePartIsRenewedIsThatOfTheNewRadii() {
        Picture picture = Pictures.noise(300, 200, 3);
        // The largest radius, on which all steps depend, lies elsewhere.
        Plane radii = Pictures.plane(300, 200, (x, y) -> x < 10 && y < 10 ? 9 : 4);
        Plane was = radii.copy();
        RadiusField field = new RadiusField(radii);
        for (int y = 90; y < 120; y++) {
            for (int x = 130; x < 170; x++) {
                radii.samples()[y * 300 + x] = y < 100 ? -9 : 0;
            }
        }
        Region changed = new Region(130, 90, 40, 30);
        field.renew(changed);
        assertThat(field.largest()).isEqualTo(9);
        Picture before = LensRender.render(picture, was, Disc.ROUND, Glints.NONE, Progress.NONE);
        Picture after = LensRender.render(picture, radii, Disc.ROUND, Glints.NONE, Progress.NONE);
        Region told = field.seenFrom(changed, Disc.ROUND);
        assertThat(told.size().pixels()).isLessThan(300 * 200 / 4);
        assertThat(Pictures.distance(before.red(), after.red())).isGreaterThan(0.1);
        Resample.paste(Resample.crop(after, told), before, told.x(), told.y());
        assertThat(Pictures.distance(before.red(), after.red())).isLessThan(1e-6);
        Picture kept = LensRender.render(
                picture,
                field,
                Disc.ROUND,
                Lift.of(new Plane(picture.size())),
                Region.all(picture.size()),
                Progress.NONE);
        assertThat(Picture.difference(kept, after)).isNull();
    }

    /** By the numbers of a lens where there is one, and by free strength where its sensor is too small for it. */
    @ParameterizedTest
    @CsvSource({"50,36,1.2,F_NUMBER", "85,36,3,F_NUMBER", "50,36,2.5,FREE", "4.2,4.8,1.5,FREE"})
    void theFirstApertureDrawsTheWidestDiscAsWideAsWanted(
            double focal, double sensor, double distance, Aperture.Mode mode) {
        Size size = new Size(3000, 2000);
        Aperture lens = Aperture.DEFAULT.withLens(focal, sensor, distance);
        Aperture chosen = lens.withWidestDisc(0.025, 0.4, size, 0.5);
        double diameter = 2 * chosen.radiusPerNearness(size, 0.5) * 0.4;
        assertThat(diameter / 3000).isCloseTo(0.025, within(0.001));
        assertThat(chosen.mode()).isEqualTo(mode);
    }
}
