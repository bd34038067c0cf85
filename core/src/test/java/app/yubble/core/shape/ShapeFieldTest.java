package app.yubble.core.shape;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import app.yubble.core.shape.BlurShape.Form;
import app.yubble.core.touchup.Span;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ShapeFieldTest {
    private static final Size SIZE = new Size(1200, 800);
    private static final double STRENGTH = 20;

    private static BlurShape shape(Form form, Place place, double soft, Cover cover, boolean outside) {
        return new BlurShape(
                "a", "", form, place, 0.5, soft, STRENGTH, outside, true, cover, Tie.NONE, List.of(), Span.ALL);
    }

    private static Plane even(float value) {
        Plane out = new Plane(SIZE);
        Arrays.fill(out.samples(), value);
        return out;
    }

    private static Plane field(BlurShape... shapes) {
        Plane radii = new Plane(SIZE);
        ShapeField.widen(radii, Region.all(SIZE), even(0.5f), List.of(shapes));
        return radii;
    }

    /** Where along a straight way from the middle to far outside the radius has fallen to a share of the whole, in pixels. */
    private static double fallen(Plane radii, double angle, double share) {
        double most = STRENGTH / 100 * 0.06 * Math.hypot(SIZE.width(), SIZE.height());
        double before = most;
        for (int i = 0; ; i++) {
            double x = 600 - 0.5 + i * Math.cos(angle);
            double y = 400 - 0.5 + i * Math.sin(angle);
            int px = (int) x;
            int py = (int) y;
            double fx = x - px;
            double fy = y - py;
            double value = (radii.at(px, py) * (1 - fx) + radii.at(px + 1, py) * fx) * (1 - fy)
                    + (radii.at(px, py + 1) * (1 - fx) + radii.at(px + 1, py + 1) * fx) * fy;
            if (value <= share * most) {
                return i - (share * most - value) / (before - value);
            }
            before = value;
        }
    }

    @ParameterizedTest
    @CsvSource({
        "ELLIPSE, 0.4, 0.1, 0, 0.02, 0",
        "ELLIPSE, 0.4, 0.1, 0, 0.02, 90",
        "ELLIPSE, 0.4, 0.1, 40, 0.02, 40",
        "ELLIPSE, 0.4, 0.2, 40, 0.1, 40",
        "ELLIPSE, 0.4, 0.2, 40, 0.1, 130",
        "ELLIPSE, 0.3, 0.3, 0, 0.005, 33",
        "RECTANGLE, 0.4, 0.2, 0, 0.05, 0",
        "RECTANGLE, 0.4, 0.2, 25, 0.05, 115",
        "RECTANGLE, 0.3, 0.3, 0, 0.04, 45",
        "LINE, 0.1, 0.3, 0, 0.1, 90",
        "LINE, 0.1, 0.3, 30, 0.004, 120",
    })
    void theBorderIsAsSoftAsSaid(Form form, double width, double height, double turn, double soft, int angle) {
        Plane radii = field(shape(form, new Place(0.5, 0.5, width, height, turn), soft, Cover.ALL, false));
        double towards = Math.toRadians(angle);
        double measured = fallen(radii, towards, 0.1) - fallen(radii, towards, 0.9);
        assertThat(measured).isCloseTo(soft * SIZE.longSide(), within(0.05 * soft * SIZE.longSide()));
    }

    @Test
    void halfOfItsStrengthLiesOnTheOutline() {
        Plane radii = field(shape(Form.ELLIPSE, new Place(0.5, 0.5, 0.5, 0.2, 0), 0.06, Cover.ALL, false));
        assertThat(fallen(radii, 0, 0.5)).isCloseTo(300, within(0.5));
        assertThat(fallen(radii, Math.PI / 2, 0.5)).isCloseTo(120, within(0.5));
    }

    @Test
    void theDistanceToAnEllipseIsThatOfItsNearestPoint() {
        // The radius tells the distance: over a border as wide as this it falls all the way.
        BlurShape wide = shape(Form.ELLIPSE, new Place(0.5, 0.5, 0.5, 0.12, 0), 0.3, Cover.ALL, false);
        BlurShape edge = shape(Form.LINE, new Place(0.5, 0.5, 0.1, 0.2, 0), 0.3, Cover.ALL, false);
        Plane radii = field(wide);
        Plane straight = field(edge);
        for (int[] at :
                new int[][] {{700, 420}, {640, 400}, {900, 405}, {850, 450}, {600, 520}, {320, 380}, {905, 520}}) {
            double nearest = IntStream.range(0, 100_000)
                    .mapToDouble(i -> Math.hypot(
                            at[0] + 0.5 - 600 - 300 * Math.cos(i * 2e-5 * Math.PI),
                            at[1] + 0.5 - 400 - 72 * Math.sin(i * 2e-5 * Math.PI)))
                    .min()
                    .orElseThrow();
            boolean inside = Math.hypot((at[0] + 0.5 - 600) / 300, (at[1] + 0.5 - 400) / 72) < 1;
            double alike = 400 + 120 + (inside ? -nearest : nearest) - 0.5;
            int row = (int) alike;
            double expected = straight.at(0, row) * (1 - alike + row) + straight.at(0, row + 1) * (alike - row);
            assertThat((double) radii.at(at[0], at[1]))
                    .as("at %d, %d", at[0], at[1])
                    .isCloseTo(expected, within(0.02));
        }
    }

    @Test
    void outsideIsTheRest() {
        Place place = new Place(0.3, 0.6, 0.3, 0.2, 20);
        Plane in = field(shape(Form.RECTANGLE, place, 0.05, Cover.ALL, false));
        Plane out = field(shape(Form.RECTANGLE, place, 0.05, Cover.ALL, true));
        float most = out.at(1199, 0);
        assertThat(most).isCloseTo((float) (STRENGTH / 100 * 0.06 * Math.hypot(1200, 800)), within(1e-4f));
        for (int i = 0; i < in.samples().length; i += 977) {
            assertThat(in.samples()[i] + out.samples()[i]).isCloseTo(most, within(1e-3f));
        }
    }

    @Test
    void itBlursOnlyWhatItCovers() {
        Place place = new Place(0.5, 0.5, 0.5, 0.5, 0);
        Plane nearness = even(0);
        for (int i = 0; i < nearness.samples().length; i++) {
            nearness.samples()[i] = i % SIZE.width() / (float) SIZE.width();
        }
        Plane behind = new Plane(SIZE);
        Plane front = new Plane(SIZE);
        Cover at = new Cover(Cover.Which.BEHIND, 0.5, 0.1);
        Cover before = new Cover(Cover.Which.IN_FRONT, 0.5, 0.1);
        ShapeField.widen(behind, Region.all(SIZE), nearness, List.of(shape(Form.RECTANGLE, place, 0, at, false)));
        ShapeField.widen(front, Region.all(SIZE), nearness, List.of(shape(Form.RECTANGLE, place, 0, before, false)));
        float most = behind.at(450, 400);
        assertThat(most).isPositive();
        assertThat(behind.at(599, 400)).isCloseTo(most / 2, within(most / 50));
        assertThat(behind.at(700, 400)).isZero();
        assertThat(front.at(450, 400)).isZero();
        assertThat(front.at(700, 400)).as("blurred as what is in front").isEqualTo(-most);
    }

    @Test
    void theStrongerBlurCountsAndKeepsItsSide() {
        BlurShape shape = shape(Form.ELLIPSE, new Place(0.5, 0.5, 0.5, 0.5, 0), 0, Cover.ALL, false);
        Plane radii = even(-2);
        ShapeField.widen(radii, Region.all(SIZE), even(0.5f), List.of(shape));
        double most = STRENGTH / 100 * 0.06 * Math.hypot(1200, 800);
        assertThat((double) radii.at(600, 400)).isCloseTo(-most, within(1e-4));
        assertThat(radii.at(10, 10)).isEqualTo(-2);
        Plane strong = even(50);
        ShapeField.widen(strong, Region.all(SIZE), even(0.5f), List.of(shape));
        assertThat(strong.at(600, 400)).isEqualTo(50);
    }

    @Test
    void shapesOutsideThePictureDoNothing() {
        BlurShape away = shape(Form.ELLIPSE, new Place(2.5, -1.5, 0.5, 0.5, 0), 0.1, Cover.ALL, false);
        assertThat(field(away).samples()).containsOnly(0);
        assertThat(ShapeField.difference(List.of(away), List.of(), SIZE)).isNull();
        BlurShape line = shape(Form.LINE, new Place(0.5, 3, 0.5, 0.1, 0), 0, Cover.ALL, false);
        assertThat(field(line).samples()).containsOnly(0);
    }

    @Test
    void aChangeIsSeenOnlyWhereAShapeWasAndIs() {
        BlurShape first = shape(Form.ELLIPSE, new Place(0.2, 0.2, 0.1, 0.1, 30), 0.01, Cover.ALL, false);
        BlurShape moved = shape(Form.ELLIPSE, new Place(0.25, 0.2, 0.1, 0.1, 30), 0.01, Cover.ALL, false);
        BlurShape other = shape(Form.RECTANGLE, new Place(0.8, 0.8, 0.1, 0.1, 0), 0.01, Cover.ALL, false);
        Region changed = ShapeField.difference(List.of(first, other), List.of(moved, other), SIZE);
        assertThat(changed).isNotNull();
        Plane before = field(first, other);
        Plane after = field(moved, other);
        for (int y = 0; y < SIZE.height(); y++) {
            for (int x = 0; x < SIZE.width(); x++) {
                if (before.at(x, y) != after.at(x, y)) {
                    assertThat(changed.meet(new Region(x, y, 1, 1))).isNotNull();
                }
            }
        }
        assertThat(changed.width() * changed.height()).isLessThan(50_000);
    }

    @Test
    void marksMoveItGrowItByFactorsAndTurnItTheShorterWay() {
        Place a = new Place(0.2, 0.2, 0.1, 0.1, 170);
        Place b = new Place(0.4, 0.6, 0.4, 0.1, -170);
        Place half = Place.between(a, b, 0.5);
        assertThat(half.x()).isCloseTo(0.3, within(1e-9));
        assertThat(half.y()).isCloseTo(0.4, within(1e-9));
        assertThat(half.width()).isCloseTo(0.2, within(1e-9));
        assertThat(half.turn()).isCloseTo(0, within(1e-9));
        assertThat(Place.between(a, b, 1).height()).isEqualTo(0.1);
    }

    @Test
    void whatIsNoShapeIsRefused() {
        assertThatThrownBy(() -> new Place(0.5, 0.5, 0, 0.2, 0)).hasMessageContaining("width");
        assertThatThrownBy(() -> new Place(9, 0.5, 0.2, 0.2, 0)).hasMessageContaining("across");
        assertThatThrownBy(() -> BlurShape.of("", Form.LINE, Place.USUAL)).hasMessageContaining("id");
    }
}
