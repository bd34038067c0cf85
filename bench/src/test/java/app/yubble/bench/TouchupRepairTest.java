package app.yubble.bench;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.focus.SharpBand;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.touchup.Canvas;
import app.yubble.core.touchup.Mask;
import app.yubble.core.touchup.Painting;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.picture.PictureReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;

/** Exact depth is damaged and then painted right again, as a user would: a few strokes, wider than the thing. */
class TouchupRepairTest {
    private static final Path DEMO = Path.of("../demo");
    private static final int SIDE = 1200;

    /** What was damaged, and the depth before and after. */
    private record Damaged(Picture picture, Plane truth, Plane damaged, boolean[] where) {
        double error(Plane depth) {
            double sum = 0;
            int count = 0;
            for (int i = 0; i < where.length; i++) {
                if (where[i]) {
                    sum += Math.abs(depth.samples()[i] - truth.samples()[i]);
                    count++;
                }
            }
            return sum / count;
        }

        /** Depth after strokes that lead to the depth found at a place. */
        Plane repaired(double x, double y, Stroke... strokes) {
            float target = truth.nearestTo(x * truth.width(), y * truth.height());
            Touchup touchup = Touchup.of("one", Touchup.Action.MATCH, 1, target, strokes);
            Mask mask = Mask.empty(picture.size());
            for (Stroke stroke : strokes) {
                mask = Painting.stroke(mask, stroke, Canvas.of(picture, damaged), Region.all(damaged.size()));
            }
            Plane out = new Plane(
                    damaged.width(), damaged.height(), damaged.samples().clone());
            Painting.move(out, touchup, mask, SharpBand.EVERYTHING);
            return out;
        }
    }

    @FunctionalInterface
    private interface Damage {
        /** What the depth becomes at a place in shares, or NaN where it stays. */
        float at(double x, double y, float truth);
    }

    private static Damaged damaged(String scene, Damage damage) throws IOException {
        Picture full = PictureReader.DEFAULT
                .read(DEMO.resolve("photos/" + scene + ".jpg"))
                .picture();
        Plane map = new DepthFileReader(PictureReader.DEFAULT)
                .read(Files.readAllBytes(DEMO.resolve("truth/" + scene + "-depth.png")), full.size());
        Size size = full.size().fitting(SIDE);
        Plane truth = Resample.pick(map, size);
        Plane out = new Plane(size);
        boolean[] where = new boolean[out.samples().length];
        for (int i = 0; i < where.length; i++) {
            double x = (i % size.width() + 0.5) / size.width();
            double y = (i / size.width() + 0.5) / size.height();
            float value = damage.at(x, y, truth.samples()[i]);
            where[i] = !Float.isNaN(value);
            out.samples()[i] = where[i] ? value : truth.samples()[i];
        }
        return new Damaged(Resample.toSize(full, size), truth, out, where);
    }

    private static Stroke stroke(double size, double cling, double... places) {
        float[] points = new float[places.length / 2 * 3];
        for (int i = 0; i < places.length / 2; i++) {
            points[3 * i] = (float) places[2 * i];
            points[3 * i + 1] = (float) places[2 * i + 1];
            points[3 * i + 2] = 1;
        }
        return new Stroke(Stroke.Brush.of(size).withCling(cling), points);
    }

    private static boolean within(double value, double low, double high) {
        return value >= low && value <= high;
    }

    private static void isRepaired(Damaged scene, Plane after) {
        double before = scene.error(scene.damaged());
        System.out.printf(
                "depth error %.4f before, %.4f after (%.0f %%)%n",
                before, scene.error(after), 100 * scene.error(after) / before);
        assertThat(scene.error(after)).isLessThan(before / 5);
    }

    private static Damaged withoutStaff() throws IOException {
        return damaged(
                "figurine",
                (x, y, truth) -> within(x, 0.25, 0.285) && within(y, 0.13, 0.235) && truth > 0.3 ? 0.07f : Float.NaN);
    }

    @Test
    void aMissingStaffComesBackWithOneStrokeWiderThanIt() throws IOException {
        Damaged scene = withoutStaff();
        Plane after = scene.repaired(0.265, 0.05, stroke(0.04, 0.6, 0.2645, 0.12, 0.2605, 0.24));
        isRepaired(scene, after);
        spillsLittle(scene, after, 0.3);
    }

    @Test
    void aMissingPoleBeforeSkyAndRoofsComesBackWithOneStroke() throws IOException {
        Damaged scene = damaged(
                "crossing",
                (x, y, truth) -> within(x, 0.385, 0.42) && within(y, 0.12, 0.24) && truth > 0.1 ? 0 : Float.NaN);
        Plane after = scene.repaired(0.402, 0.3, stroke(0.03, 0.6, 0.4022, 0.115, 0.4022, 0.25));
        isRepaired(scene, after);
        spillsLittle(scene, after, 0.6);
    }

    @Test
    void aHoleOfTheSizeOfAnEarIsClosedWithOneDab() throws IOException {
        Damaged scene =
                damaged("figurine", (x, y, truth) -> Math.hypot((x - 0.44) * 1.5, y - 0.62) < 0.03 ? 0.07f : Float.NaN);
        isRepaired(scene, scene.repaired(0.4, 0.62, stroke(0.06, 0.6, 0.44, 0.62)));
    }

    @Test
    void aManThatWasTakenForTheGroundStandsOutAgainAfterThreeStrokes() throws IOException {
        Damaged scene = damaged(
                "crossing",
                (x, y, truth) -> within(x, 0.05, 0.14) && within(y, 0.53, 0.83) && truth > 0.23 ? 0.12f : Float.NaN);
        Plane after = scene.repaired(
                0.095,
                0.65,
                stroke(0.06, 0.6, 0.093, 0.61, 0.093, 0.7, 0.07, 0.7, 0.118, 0.7),
                stroke(0.03, 0.6, 0.095, 0.74, 0.09, 0.81, 0.105, 0.81),
                stroke(0.03, 0.6, 0.094, 0.56));
        isRepaired(scene, after);
    }

    @Test
    void withoutClingPaintSpillsNoFartherThanTheBrush() throws IOException {
        Damaged scene = withoutStaff();
        Plane after = scene.repaired(0.265, 0.05, stroke(0.04, 0, 0.2645, 0.12, 0.2605, 0.24));
        for (int i = 0; i < after.samples().length; i++) {
            if (after.samples()[i] != scene.damaged().samples()[i]) {
                double x = (i % SIDE + 0.5) / SIDE;
                assertThat(Math.abs(x - 0.2625)).isLessThan(0.02 + 0.004);
            }
        }
    }

    /** Of what a stroke covers around the damage, at most this share is changed by more than a little. */
    private static void spillsLittle(Damaged scene, Plane after, double most) {
        int changed = 0;
        int damaged = 0;
        for (int i = 0; i < after.samples().length; i++) {
            if (scene.where()[i]) {
                damaged++;
            } else if (Math.abs(after.samples()[i] - scene.truth().samples()[i]) > 0.1) {
                changed++;
            }
        }
        System.out.printf("spilled over %.2f of the damaged area%n", (double) changed / damaged);
        assertThat((double) changed / damaged).isLessThan(most);
    }
}
