package app.yubble.core.touchup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.Pictures;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PaintingTest {
    private static final SharpBand BAND = new SharpBand(0.6, 0.5, 0, 0);
    private static final Picture PLAIN = Pictures.grey(300, 200, (x, y) -> 0.4);

    private static Mask painted(Picture picture, Stroke... strokes) {
        Mask mask = Mask.empty(picture.size());
        for (Stroke stroke : strokes) {
            mask = Painting.stroke(
                    mask, stroke, Canvas.of(picture, Plane.filled(picture.size(), 0.5f)), Region.all(picture.size()));
        }
        return mask;
    }

    private static double area(Mask mask) {
        return Pictures.sum(mask.plane());
    }

    private static Touchup touchup(Touchup.Action action, double strength, double target) {
        return Touchup.of("a", action, strength, target);
    }

    private static float moved(Touchup touchup, float nearness, SharpBand band) {
        Plane plane = Plane.filled(new Size(3, 3), nearness);
        Mask all = new Mask(plane.size(), Region.all(plane.size()), new byte[] {-1, -1, -1, -1, -1, -1, -1, -1, -1});
        Painting.move(plane, touchup, all, band);
        return plane.at(1, 1);
    }

    @ParameterizedTest
    @ValueSource(doubles = {0.004, 0.02, 0.1, 0.3})
    void aDabHasTheAreaOfItsBrush(double size) {
        Mask mask = painted(PLAIN, new Stroke(Stroke.Brush.of(size), 0.5f, 0.5f, 1));
        double radius = size * 300 / 2;
        assertThat(area(mask)).isCloseTo(Math.PI * radius * radius, within(0.02 * Math.PI * radius * radius + 0.5));
    }

    @Test
    void aBrushThinnerThanAPixelStillPaintsALittleAndOneLargerThanThePictureAll() {
        assertThat(area(painted(PLAIN, new Stroke(Stroke.Brush.of(0.001), 0.5f, 0.5f, 1))))
                .isBetween(0.02, 1.0);
        assertThat(area(painted(PLAIN, new Stroke(Stroke.Brush.of(2), 0.5f, 0.5f, 1))))
                .isCloseTo(300 * 200, within(1e-3));
    }

    @Test
    void whatLiesOutsideThePictureOrHasNoPressurePaintsNothing() {
        Stroke.Brush brush = Stroke.Brush.of(0.1);
        assertThat(painted(PLAIN, new Stroke(brush, 1.5f, -0.7f, 1)).isEmpty()).isTrue();
        Stroke light = new Stroke(brush.withPressure(Stroke.Pressure.SIZE), 0.5f, 0.5f, 0, 0.6f, 0.5f, 0);
        assertThat(area(painted(PLAIN, light))).isLessThan(1e-3);
        Stroke slow = new Stroke(brush.withPressure(Stroke.Pressure.BUILD_UP), 0.5f, 0.5f, 0);
        assertThat(area(painted(PLAIN, slow))).isZero();
    }

    @Test
    void softPaintFadesTowardsTheRimAndSlowPaintBuildsUpAndNeverPassesFull() {
        Mask soft = painted(PLAIN, new Stroke(Stroke.Brush.of(0.4).withSoftness(1), 0.5f, 0.5f, 1));
        assertThat(soft.at(150, 100)).isGreaterThan(0.98f);
        assertThat(soft.at(180, 100)).isCloseTo(0.5f, within(0.03f));
        assertThat(soft.at(207, 100)).isLessThan(0.02f);
        Stroke dab = new Stroke(Stroke.Brush.of(0.2).withBuildUp(0.25), 0.5f, 0.5f, 1);
        assertThat(painted(PLAIN, dab).at(150, 100)).isCloseTo(0.25f, within(3e-3f));
        assertThat(painted(PLAIN, dab, dab).at(150, 100)).isCloseTo(0.4375f, within(3e-3f));
        Stroke line = new Stroke(Stroke.Brush.of(0.2).withBuildUp(0.25), 0.1f, 0.5f, 1, 0.9f, 0.5f, 1);
        Mask built = painted(PLAIN, line);
        assertThat(built.at(150, 100)).isBetween(0.85f, 0.95f);
        // As even as paint in the middle of a line should be.
        for (int x = 100; x < 200; x++) {
            assertThat(built.at(x, 100)).isCloseTo(built.at(150, 100), within(0.03f));
        }
    }

    @Test
    void theEraserTakesAwayAndAnInvertedMaskIsTheRest() {
        Stroke paint = new Stroke(Stroke.Brush.of(0.2), 0.5f, 0.5f, 1);
        Stroke erase = new Stroke(Stroke.Brush.of(0.1).erasing(), 0.5f, 0.5f, 1);
        Mask mask = painted(PLAIN, paint, erase);
        assertThat(mask.at(150, 100)).isZero();
        assertThat(mask.at(150 + 22, 100)).isEqualTo(1);
        assertThat(mask.inverted().at(150, 100)).isEqualTo(1);
        assertThat(mask.inverted().at(2, 2)).isEqualTo(1);
        assertThat(painted(PLAIN, erase).isEmpty()).isTrue();
    }

    @Test
    void paintIsTheSameAtEverySize() {
        Stroke stroke = new Stroke(
                Stroke.Brush.of(0.12).withSoftness(0.5).withBuildUp(0.3), 0.2f, 0.3f, 1, 0.7f, 0.8f, 1, 0.8f, 0.2f, 1);
        Mask small = painted(PLAIN, stroke);
        Mask large = painted(Pictures.grey(1200, 800, (x, y) -> 0.4), stroke);
        for (int y = 5; y < 200; y += 7) {
            for (int x = 5; x < 300; x += 7) {
                assertThat(large.at(4 * x + 2, 4 * y + 2)).as(x + "," + y).isCloseTo(small.at(x, y), within(0.06f));
            }
        }
    }

    @Test
    void aMaskMadeSmallerKeepsItsPaint() {
        Stroke stroke = new Stroke(Stroke.Brush.of(0.1).withSoftness(0.4), 0.2f, 0.3f, 1, 1.1f, 0.9f, 1);
        Mask large = painted(PLAIN, stroke);
        for (Size size : List.of(new Size(200, 133), new Size(97, 65), new Size(7, 5))) {
            Mask small = large.resized(size);
            double share = (double) size.pixels() / PLAIN.size().pixels();
            assertThat(area(small)).isCloseTo(area(large) * share, within(0.01 * area(large) * share + 0.05));
        }
        assertThat(Mask.empty(PLAIN.size()).resized(new Size(30, 20)).isEmpty()).isTrue();
    }

    @Test
    void clingingPaintStopsAtAnEdgeOfThePhotoAndGoesFarWithoutIt() {
        Picture two = Pictures.grey(300, 200, (x, y) -> x < 150 ? 0.1 : 0.6);
        Stroke.Brush brush = Stroke.Brush.of(0.2);
        // Begun on the left, one pixel row of the line even runs over the edge.
        Stroke clinging = new Stroke(brush.withCling(0.6), 0.45f, 0.2f, 1, 0.45f, 0.5f, 1, 0.53f, 0.6f, 1);
        Mask kept = painted(two, clinging);
        Mask free = painted(two, new Stroke(brush, clinging.points()));
        assertThat(kept.at(148, 100)).isGreaterThan(0.97f);
        assertThat(kept.at(152, 100)).isLessThan(0.03f);
        assertThat(kept.at(160, 120)).isLessThan(0.03f);
        assertThat(free.at(160, 120)).isEqualTo(1);
    }

    @Test
    void clingingPaintFollowsAThinBarAndGoesOnOverGrain() {
        Random random = new Random(5);
        Picture bar = Pictures.grey(
                400, 300, (x, y) -> (x >= 198 && x < 202 ? 0.05 : 0.5) * (0.95 + 0.1 * random.nextDouble()));
        Mask kept = painted(bar, new Stroke(Stroke.Brush.of(0.06).withCling(0.6), 0.5f, 0.1f, 1, 0.5f, 0.9f, 1));
        double on = 0;
        double off = 0;
        for (int y = 60; y < 240; y++) {
            for (int x = 180; x < 220; x++) {
                if (x >= 198 && x < 202) {
                    on += kept.at(x, y);
                } else {
                    off += kept.at(x, y);
                }
            }
        }
        assertThat(on / (4 * 180)).isGreaterThan(0.95);
        assertThat(off / (36 * 180)).isLessThan(0.02);
    }

    @Test
    void paintOverPaintIsTheSameAsIfAllOfItHadBeenDrawn() {
        Random random = new Random(6);
        Picture picture = Pictures.grey(
                300, 200, (x, y) -> (x + y < 240 ? 0.1 : x > 200 ? 0.35 : 0.6) * (0.95 + 0.1 * random.nextDouble()));
        Canvas canvas = Canvas.of(picture, new Plane(picture.size()));
        Region all = Region.all(picture.size());
        Mask quick = Mask.empty(picture.size());
        Mask whole = quick;
        for (int i = 0; i < 40; i++) {
            double cling = i % 3 == 0 ? 0 : 0.6;
            Stroke.Brush brush = new Stroke.Brush(
                    i % 7 == 6,
                    0.2,
                    i % 2 * 0.4,
                    i % 5 == 4 ? 0.5 : 1,
                    cling,
                    Stroke.Edges.PHOTO,
                    Stroke.Pressure.NOTHING);
            Stroke stroke = new Stroke(brush, 0.3f + 0.4f * random.nextFloat(), 0.3f + 0.4f * random.nextFloat(), 1);
            quick = Painting.stroke(quick, stroke, canvas, all);
            Mask footprint = Footprint.of(stroke, picture.size(), all);
            whole = whole.with(cling > 0 ? Cling.within(footprint, stroke, canvas) : footprint, brush.erases());
        }
        assertThat(quick.plane().samples()).isEqualTo(whole.plane().samples());
        assertThat(area(quick)).isBetween(500.0, 40_000.0);
    }

    @Test
    void aClingingBrushOutsideThePicturePaintsWhatItReaches() {
        Stroke.Brush brush = Stroke.Brush.of(0.2).withCling(0.6);
        Mask mask = painted(PLAIN, new Stroke(brush, -0.03f, 0.5f, 1, -0.03f, 0.6f, 1));
        assertThat(mask.at(5, 110)).isGreaterThan(0.95f);
        assertThat(painted(PLAIN, new Stroke(brush, -0.5f, 0.5f, 1)).isEmpty()).isTrue();
    }

    @Test
    void clingingPaintCanFollowDepthWhereThePhotoHasNoEdge() {
        Plane depth = Pictures.plane(300, 200, (x, y) -> x < 150 ? 0.8 : 0.3);
        Stroke.Brush brush = new Stroke.Brush(false, 0.3, 0, 1, 0.6, Stroke.Edges.DEPTH, Stroke.Pressure.NOTHING);
        Mask mask = Painting.stroke(
                Mask.empty(PLAIN.size()),
                new Stroke(brush, 0.45f, 0.5f, 1),
                Canvas.of(PLAIN, depth),
                Region.all(PLAIN.size()));
        assertThat(mask.at(130, 100)).isEqualTo(1);
        assertThat(mask.at(156, 100)).isLessThan(0.05f);
    }

    @ParameterizedTest
    @CsvSource({"FOCUS, 1, 0.55, 0.2, 0.55", "MATCH, 0.5, 0.8, 0.2, 0.5", "REVEAL, 1, 0, 0.2, 0.2"})
    void theActionsLeadWhereTheySay(Touchup.Action action, double strength, double target, float from, float to) {
        assertThat(moved(touchup(action, strength, target), from, BAND)).isCloseTo(to, within(1e-6f));
    }

    @Test
    void blurLeadsOutOfTheBandOnEitherSideAndGoesAlongWithIt() {
        assertThat(moved(touchup(Touchup.Action.BLUR, 0.2, 0), 0.55f, BAND)).isCloseTo(0.3f, within(1e-6f));
        assertThat(moved(touchup(Touchup.Action.BLUR, -0.2, 0), 0.55f, BAND)).isCloseTo(0.8f, within(1e-6f));
        // What is behind already goes farther, beyond the farthest point if need be.
        assertThat(moved(touchup(Touchup.Action.BLUR, 0.4, 0), 0.1f, BAND)).isCloseTo(-0.3f, within(1e-6f));
        assertThat(moved(touchup(Touchup.Action.BLUR, 0.2, 0), 0.55f, new SharpBand(0.9, 0.4, 0, 0)))
                .isCloseTo(0.2f, within(1e-6f));
    }

    @Test
    void aMillionPointsBecomeTheFewThatSayTheSameLine() {
        int count = 1_000_000;
        float[] points = new float[3 * count];
        for (int i = 0; i < count; i++) {
            double t = (double) i / count;
            points[3 * i] = (float) (0.1 + 0.8 * t);
            points[3 * i + 1] = (float) (0.5 + 0.3 * Math.sin(12 * t));
            points[3 * i + 2] = 1;
        }
        double tolerance = 0.5 / 6000;
        float[] few = Stroke.simplified(points, 1.5, tolerance);
        assertThat(few.length / 3).isBetween(20, 1000);
        Stroke stroke = new Stroke(Stroke.Brush.of(0.01), few);
        for (int i = 0; i < count; i += 997) {
            double nearest = Double.MAX_VALUE;
            for (int k = 0; k + 1 < stroke.count(); k++) {
                nearest = Math.min(nearest, distance(stroke, k, points[3 * i], points[3 * i + 1]));
            }
            assertThat(nearest).isLessThan(tolerance * 1.01);
        }
    }

    private static double distance(Stroke stroke, int k, double x, double y) {
        double dx = stroke.x(k + 1) - stroke.x(k);
        double dy = (stroke.y(k + 1) - stroke.y(k)) / 1.5;
        double px = x - stroke.x(k);
        double py = (y - stroke.y(k)) / 1.5;
        double along = Math.max(0, Math.min(1, (px * dx + py * dy) / (dx * dx + dy * dy)));
        return Math.hypot(px - along * dx, py - along * dy);
    }

    @Test
    void whatIsNoStrokeIsRefused() {
        Stroke.Brush brush = Stroke.Brush.of(0.1);
        assertThatThrownBy(() -> new Stroke(brush)).hasMessageContaining("at least one point");
        assertThatThrownBy(() -> new Stroke(brush, 0.5f, 0.5f, Float.NaN)).hasMessageContaining("pressure");
        assertThatThrownBy(() -> new Stroke(brush, 90, 0.5f, 1)).hasMessageContaining("near the picture");
        assertThatThrownBy(() -> new Stroke(brush, new float[3 * 20_001])).hasMessageContaining("at most 20000");
        assertThatThrownBy(() -> Stroke.Brush.of(0)).hasMessageContaining("size must be in 0.0001..2");
        assertThatThrownBy(() -> touchup(Touchup.Action.FOCUS, -0.1, 0)).hasMessageContaining("strength");
    }

    private static double fromDisc(int x, int y) {
        return 40 - Math.hypot(x - 80, y - 60);
    }

    private static float limited(double value) {
        return (float) Math.max(0, Math.min(1, value));
    }

    @Test
    void anEdgeThatFollowsDepthPaintsEachSideWhollyOrNotAtAll() {
        Size size = new Size(160, 120);
        Plane nearness = Pictures.plane(160, 120, (x, y) -> fromDisc(x, y) > 0 ? 0.8 : 0.3);
        // The mask's edge lies a pixel inside, or outside, that of depth, and takes two pixels.
        for (double off : new double[] {-1, 0, 1}) {
            Mask soft = Mask.of(Pictures.plane(160, 120, (x, y) -> limited((fromDisc(x, y) + off) / 2 + 0.5)), size);
            Mask along = soft.alongDepth(nearness);
            for (int i = 0; i < 160 * 120; i++) {
                int x = i % 160;
                int y = i / 160;
                assertThat(along.at(x, y)).as("%d,%d", x, y).isCloseTo(fromDisc(x, y) > 0 ? 1 : 0, within(0.2f));
            }
        }
    }

    @Test
    void anEdgeThatFadesOrLiesOnOneDepthStaysAsItIs() {
        Size size = new Size(160, 120);
        Plane nearness = Pictures.plane(160, 120, (x, y) -> fromDisc(x, y) > 0 ? 0.8 : 0.3);
        Mask faded = Mask.of(Pictures.plane(160, 120, (x, y) -> limited(fromDisc(x, y) / 40 + 0.5)), size);
        assertThat(Mask.difference(faded, faded.alongDepth(nearness))).isNull();
        Mask hard = Mask.of(Pictures.plane(160, 120, (x, y) -> limited(fromDisc(x, y) - 12)), size);
        assertThat(Mask.difference(hard, hard.alongDepth(nearness))).isNull();
    }

    @Test
    void whatAStrokeChangesInAMaskIsFound() {
        Size size = new Size(400, 300);
        Mask before = Footprint.of(new Stroke(Stroke.Brush.of(0.1), 0.3f, 0.3f, 1), size);
        Mask more = before.with(Footprint.of(new Stroke(Stroke.Brush.of(0.05), 0.7f, 0.6f, 1), size), false);
        Region changed = Mask.difference(before, more);
        assertThat(changed).isNotNull();
        assertThat(changed.x()).isBetween(268, 271);
        assertThat(changed.width()).isBetween(19, 23);
        assertThat(Mask.difference(more, before)).isEqualTo(changed);
        assertThat(Mask.difference(Mask.empty(size), before)).isEqualTo(new Region(100, 70, 40, 40));
        assertThat(Mask.difference(Mask.empty(size), Mask.empty(size))).isNull();
    }

    @Test
    void aPartOfAStrokeIsThatOfTheWhole() {
        Size size = new Size(900, 600);
        Picture picture = Pictures.grey(900, 600, (x, y) -> x < 450 ? 0.6 : 0.1);
        Canvas canvas = Canvas.of(picture, Plane.filled(size, 0.5f));
        Stroke stroke = new Stroke(Stroke.Brush.of(0.4).withCling(0.6), 0.45f, 0.5f, 1);
        Mask whole = Painting.stroke(Mask.empty(size), stroke, canvas, Region.all(size));
        Region part = new Region(380, 200, 150, 160);
        Mask own = Painting.stroke(Mask.empty(size), stroke, canvas, part);
        assertThat(own.at(379, 300)).isZero();
        assertThat(own.at(400, 300)).isEqualTo(1);
        assertThat(own.at(470, 300)).isZero();
        for (int x = part.x(); x < part.x() + part.width(); x++) {
            assertThat(own.at(x, 280)).isCloseTo(whole.at(x, 280), within(0.03f));
        }
    }

    @Test
    void aLineThatCannotBeSimplifiedTakesNoLongerThanItsPointsAreMany() {
        float[] zigzag = new float[Stroke.VALUES * Stroke.MOST_RAW_POINTS];
        for (int i = 0; i < Stroke.MOST_RAW_POINTS; i++) {
            zigzag[3 * i] = (float) i / Stroke.MOST_RAW_POINTS;
            zigzag[3 * i + 1] = i % 2;
            zigzag[3 * i + 2] = 1;
        }
        long start = System.nanoTime();
        assertThat(Stroke.simplified(zigzag, 1.5, 1e-4).length).isEqualTo(zigzag.length);
        // 30 000 such points took 19 s before, and the time went with the square.
        assertThat((System.nanoTime() - start) / 1e9).isLessThan(10);
    }

    /** At every border of the picture, and where something is taken away again. */
    @Test
    void aMaskAlongDepthIsTheSameWhenOnlyWhatChangedIsLookedAt() {
        Size size = new Size(160, 120);
        Plane nearness = Pictures.plane(160, 120, (x, y) -> (x / 20 + y / 15) % 2 == 0 ? 0.2 : 0.7);
        Canvas canvas = Canvas.of(Picture.blank(size), nearness);
        Random random = new Random(5);
        Mask before = Mask.empty(size);
        Mask along = before;
        for (int i = 0; i < 60; i++) {
            Stroke.Brush brush =
                    Stroke.Brush.of(0.02 + 0.2 * random.nextFloat()).withSoftness(0.3);
            float x = 1.2f * random.nextFloat() - 0.1f;
            float y = 1.2f * random.nextFloat() - 0.1f;
            Stroke stroke = new Stroke(i % 5 == 4 ? brush.erasing() : brush, x, y, 1);
            Mask now = Painting.stroke(before, stroke, canvas, Region.all(size));
            along = now.alongDepth(nearness, before, along);
            assertThat(Mask.difference(now.alongDepth(nearness), along)).isNull();
            before = now;
        }
        assertThat(Mask.difference(before, along)).isNotNull();
    }
}
