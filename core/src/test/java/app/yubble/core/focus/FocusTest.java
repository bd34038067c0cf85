package app.yubble.core.focus;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.Pictures;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Face;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class FocusTest {
    private final SharpBand band = new SharpBand(0.6, 0.5, 0.1, 0);

    @Test
    void insideTheBandNothingIsOutside() {
        assertThat(band.outside(0.5)).isZero();
        assertThat(band.outside(0.55)).isZero();
        assertThat(band.outside(0.6)).isZero();
    }

    @Test
    void distanceIsLinearBeyondTheFalloffAndSmoothWithin() {
        // Behind, no falloff: plain distance. In front, falloff 0.1: x^2 / 0.2 below 0.1, then x - 0.05.
        assertThat(band.outside(0.2)).isCloseTo(0.3, within(1e-12));
        assertThat(band.outside(0.65)).isCloseTo(-0.0125, within(1e-12));
        assertThat(band.outside(0.7)).isCloseTo(-0.05, within(1e-12));
        assertThat(band.outside(0.9)).isCloseTo(-0.25, within(1e-12));
    }

    @Test
    void aBandOutsideItsRangeIsRefusedWithTheValue() {
        assertThatThrownBy(() -> new SharpBand(0.4, 0.5, 0, 0)).hasMessageContaining("near 0.4, far 0.5");
        assertThatThrownBy(() -> new SharpBand(1.4, 0.5, 0, 0)).hasMessageContaining("1.4");
        assertThatThrownBy(() -> new SharpBand(Double.NaN, 0.5, 0, 0)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Gain(5, 1)).hasMessageContaining("blur in front must be in 0..4, found 5");
    }

    @Test
    void theFieldIsSignedAndScaledByEachSidesGain() {
        Plane nearness = Pictures.plane(3, 1, (x, y) -> new double[] {0.2, 0.55, 0.9}[x]);
        Plane field = DefocusField.of(nearness, band, new Gain(2, 0.5), 100);
        assertThat(field.at(0, 0)).isCloseTo(0.3f * 100 * 0.5f, within(0.01f));
        assertThat(field.at(1, 0)).isZero();
        assertThat(field.at(2, 0)).isCloseTo(-0.25f * 100 * 2, within(0.01f));
    }

    @Test
    void aTiltedBandFollowsAPlaneThroughThePicture() {
        SharpBand level = new SharpBand(0.52, 0.48, 0, 0);
        SharpBand tilted = level.tilted(0.3, -0.1);
        // Exactly the plane that the band is tilted to: all of it is sharp, and not when level.
        Plane plane = Pictures.plane(
                101, 51, (x, y) -> 0.5 + 0.3 * (2 * (x + 0.5) / 101 - 1) - 0.1 * (2 * (y + 0.5) / 51 - 1));
        for (float radius : DefocusField.of(plane, tilted, Gain.EVEN, 100).samples()) {
            assertThat(radius).isZero();
        }
        assertThat(DefocusField.of(plane, level, Gain.EVEN, 100).at(100, 25)).isLessThan(-20);
        // Out of it the distance counts along the nearness.
        Plane flat = Plane.filled(plane.size(), 0.5f);
        assertThat(DefocusField.of(flat, tilted, Gain.EVEN, 100).at(100, 25)).isCloseTo(28f, within(0.4f));
        assertThat(DefocusField.of(flat, tilted, Gain.EVEN, 100).at(0, 25)).isCloseTo(-28f, within(0.4f));
        assertThat(DefocusField.of(flat, SharpBand.EVERYTHING.tilted(0.9, 0.9), Gain.EVEN, 100)
                        .at(0, 0))
                .isZero();
    }

    @Test
    void aFaceIsSharpAndItsNearerEyeAlways() {
        // Turned to the left: nearness falls from the left to the right over the face, the wall lies far behind.
        Plane nearness = Pictures.plane(
                400, 300, (x, y) -> Math.hypot((x - 200) / 60.0, (y - 140) / 80.0) < 1 ? 0.8 - 0.001 * (x - 140) : 0.1);
        Face face = new Face(0.35, 0.2, 0.3, 0.53, new Face.Point(0.43, 0.4), new Face.Point(0.57, 0.4), 0.9);
        SharpBand found = FocusFinder.subject(Pictures.grey(400, 300, (x, y) -> 0.5), nearness, null, List.of(face));
        double nearerEye = 0.8 - 0.001 * (172 - 140);
        assertThat(found.near()).isBetween(nearerEye, 0.82);
        assertThat(found.far()).isBetween(0.67, 0.73);
        Face small = new Face(0.5, 0.4, 0.02, 0.05, face.one(), face.other(), 0.9);
        assertThat(FocusFinder.subject(Pictures.grey(400, 300, (x, y) -> 0.5), nearness, null, List.of(small)))
                .as("of a small face the figure is what counts")
                .isEqualTo(FocusFinder.subject(Pictures.grey(400, 300, (x, y) -> 0.5), nearness, null));
        Face border = new Face(0.9, 0.9, 0.3, 0.3, new Face.Point(1.1, 1), new Face.Point(1.2, 1.1), 0.9);
        assertThat(FocusFinder.face(nearness, border).centre()).isCloseTo(0.1, within(0.05));
    }

    @Test
    void aSpotIsMetByATiltedBandToo() {
        Plane nearness = Pictures.plane(300, 200, (x, y) -> x < 150 ? 0.3 : 0.8);
        SharpBand tilt = new SharpBand(0.5, 0.5, 0, 0).tilted(0.2, 0.1);
        SharpBand found = FocusFinder.tiltedAs(tilt, nearness, plane -> FocusFinder.spot(plane, 270, 40));
        assertThat(found.tiltAcross()).isEqualTo(0.2);
        Plane field = DefocusField.of(nearness, found, Gain.EVEN, 100);
        assertThat(field.at(270, 40)).isZero();
        assertThat(field.at(20, 40)).isNotZero();
    }

    @Test
    void whatNoBandOfThatTiltReachesIsMetByALevelOne() {
        Plane nearness = Plane.filled(new Size(300, 200), 0.9f);
        SharpBand tilt = new SharpBand(0.5, 0.5, 0, 0).tilted(0.9, 0);
        for (FocusFinder.Finding finding : List.<FocusFinder.Finding>of(
                plane -> FocusFinder.spot(plane, 5, 100), plane -> FocusFinder.patch(plane, 0, 80, 30, 40))) {
            SharpBand found = FocusFinder.tiltedAs(tilt, nearness, finding);
            assertThat(DefocusField.of(nearness, found, Gain.EVEN, 100).at(5, 100))
                    .isZero();
        }
    }

    @Test
    void edgesTellHowSoftThePhotoAlreadyIs() {
        for (double sigma : new double[] {0.8, 1.5, 3}) {
            Plane step = Pictures.plane(200, 60, (x, y) -> 0.5 + 0.3 * Math.tanh((x - 99.7) / (1.25 * sigma)));
            Plane widths = EdgeWidth.of(step);
            float at = 0;
            for (int x = 95; x < 105; x++) {
                at = Math.max(at, widths.at(x, 30));
            }
            assertThat((double) at).isCloseTo(sigma, within(0.3 * sigma));
            assertThat(widths.at(40, 30)).isZero();
        }
    }

    @Test
    void aDepthThatIsNoNumberIsRefused() {
        Plane nearness = Pictures.plane(4, 4, (x, y) -> x == 2 && y == 1 ? Double.NaN : 0.5);
        assertThatThrownBy(() -> DefocusField.of(nearness, band, Gain.EVEN, 10)).hasMessageContaining("2,1");
    }

    @Test
    void aSpotIgnoresAFewWrongPixels() {
        Plane nearness = Pictures.plane(300, 200, (x, y) -> x == 150 && y == 100 ? 1 : 0.4);
        assertThat(FocusFinder.spot(nearness, 150.5, 100.5).centre()).isCloseTo(0.4, within(1e-6));
        assertThat(FocusFinder.spot(nearness, -50, 1e9).centre()).isCloseTo(0.4, within(1e-6));
    }

    @Test
    void aPatchSpansWhatLiesInItWithoutItsOutliers() {
        Plane nearness = Pictures.plane(100, 100, (x, y) -> y == 50 && x == 50 ? 0 : 0.5 + 0.002 * x);
        SharpBand found = FocusFinder.patch(nearness, 0, 0, 100, 100);
        assertThat(found.far()).isBetween(0.45, 0.52);
        assertThat(found.near()).isBetween(0.68, 0.73);
        assertThat(FocusFinder.patch(nearness, 20, 20, 0, 0).centre()).isCloseTo(0.54, within(0.01));
    }

    @Test
    void theSubjectIsTheDetailedThingInTheMiddle() {
        Picture picture = Pictures.grey(
                300, 200, (x, y) -> Math.hypot(x - 150, y - 100) < 50 ? ((x / 3 + y / 3) % 2 == 0 ? 0.1 : 0.8) : 0.4);
        Plane nearness = Pictures.plane(300, 200, (x, y) -> Math.hypot(x - 150, y - 100) < 50 ? 0.7 : 0.2);
        SharpBand found = FocusFinder.subject(picture, nearness, null);
        assertThat(found.near()).isGreaterThan(0.7);
        assertThat(found.far()).isLessThan(0.7).isGreaterThan(0.5);
    }

    @Test
    void theSharpestEdgeOfACellIsKept() {
        Plane widths = Pictures.plane(4, 2, (x, y) -> new double[][] {{0, 3, 0, 0}, {2, 5, 0, 0}}[y][x]);
        assertThat(EdgeWidth.sharpest(widths, new Size(2, 1)).samples()).containsExactly(2, 0);
    }

    @Test
    void grainIsNoEdge() {
        Random random = new Random(4);
        Plane grain = Pictures.plane(200, 200, (x, y) -> 0.5 + 0.008 * random.nextGaussian());
        for (float width : EdgeWidth.of(grain).samples()) {
            assertThat(width).isZero();
        }
    }

    /** A limb that fades from the body on, and a ball or a second person beside it. */
    @ParameterizedTest
    @ValueSource(doubles = {20, 60})
    void aFigureKeepsItsLimbsBesideItsBallButNotBesideAnotherFigure(double ball) {
        Plane matte = Pictures.plane(
                400,
                200,
                (x, y) -> x >= 20 && x < 220 && y >= 80 && y < 110
                                || x >= 20 && x < 100 && y >= 40 && y < 160
                                || Math.hypot(x - 320, y - 100) < ball
                        ? 1
                        : 0);
        Plane nearness = Pictures.plane(400, 200, (x, y) -> x < 100 ? 0.8 : x < 230 ? 0.8 - 0.003 * (x - 100) : 0.4);
        SharpBand found = FocusFinder.thing(nearness, matte, 1);
        if (ball < 50) {
            assertThat(found.far()).isLessThan(0.46);
        } else {
            assertThat(found.far()).isGreaterThan(0.46);
        }
        assertThat(found.near()).isGreaterThan(0.8);
    }

    @Test
    void thingsOfAMatteAreCountedReducedAndHaveTheirMiddles() {
        Plane matte = Pictures.plane(
                400, 300, (x, y) -> Math.hypot(x - 100, y - 150) < 60 || Math.hypot(x - 300, y - 90) < 40 ? 1 : 0);
        var things = FocusFinder.things(matte);
        assertThat(things.count()).isEqualTo(2);
        var small = things.reduced(new Size(80, 60), 9);
        assertThat(small.middle(1)[0]).isCloseTo(0.25, within(0.01));
        assertThat(small.middle(2)[1]).isCloseTo(0.3, within(0.01));
        assertThat(small.middle(3)).isNull();
        assertThat(things.reduced(new Size(80, 60), 1).middle(2)).isNull();
        Plane nearness = Pictures.plane(400, 300, (x, y) -> x < 200 ? 0.8 : 0.3);
        assertThat(FocusFinder.thing(nearness, matte, 1).centre()).isCloseTo(0.8, within(0.01));
        assertThat(FocusFinder.thing(nearness, matte, 2).centre()).isCloseTo(0.3, within(0.01));
    }

    /** A figure whose depth fades along an arm and a leg, as estimates do. */
    @Test
    void theBandOfASingleFigureHoldsItsHandsAndFeet() {
        Plane matte = Pictures.plane(300, 200, (x, y) -> isFigure(x, y) ? 1 : 0);
        Plane nearness = Pictures.plane(
                300, 200, (x, y) -> !isFigure(x, y) ? 0.2 : 0.7 - Math.max(0, Math.abs(x - 150) - 20) * 0.003);
        SharpBand band = FocusFinder.subject(Pictures.grey(300, 200, (x, y) -> 0.5), nearness, matte);
        assertThat(heldOfFigure(nearness, band)).isGreaterThanOrEqualTo(0.98);
        assertThat(band.outside(0.2)).as("the ground behind").isGreaterThan(0.1);
    }

    private static double heldOfFigure(Plane nearness, SharpBand band) {
        int figure = 0;
        int held = 0;
        for (int y = 0; y < nearness.height(); y++) {
            for (int x = 0; x < nearness.width(); x++) {
                if (isFigure(x, y)) {
                    figure++;
                    held += band.outside(nearness.at(x, y)) == 0 ? 1 : 0;
                }
            }
        }
        return (double) held / figure;
    }

    private static boolean isFigure(int x, int y) {
        boolean body = Math.abs(x - 150) < 20 && y > 20 && y < 180;
        boolean arm = y > 60 && y < 68 && x >= 150 && x < 250;
        boolean leg = y > 150 && y < 160 && x <= 150 && x > 60;
        return body || arm || leg;
    }

    @Test
    void whatAMatteTookInByMistakeDoesNotWidenTheBand() {
        Plane matte = Pictures.plane(300, 200, (x, y) -> isFigure(x, y) || y >= 180 ? 1 : 0);
        Plane nearness = Pictures.plane(
                300, 200, (x, y) -> isFigure(x, y) ? 0.7 - Math.abs(x - 150) * 0.001 : y >= 180 ? 0.3 : 0.1);
        SharpBand band = FocusFinder.subject(Pictures.grey(300, 200, (x, y) -> 0.5), nearness, matte);
        assertThat(heldOfFigure(nearness, band)).isGreaterThanOrEqualTo(0.98);
        assertThat(band.outside(0.3)).as("what is on the ground").isGreaterThan(0.1);
    }
}
