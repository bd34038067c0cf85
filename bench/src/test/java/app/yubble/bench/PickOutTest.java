package app.yubble.bench;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.touchup.Mask;
import app.yubble.core.touchup.PickOut;
import app.yubble.core.touchup.PickingOut;
import app.yubble.core.touchup.Stroke;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.picture.PictureReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** The subjects of the demo scenes are picked out of a loose box with two marks and held against their exact masks. */
class PickOutTest {
    private static final Path DEMO = Path.of("../demo");
    private static final int SIDE = 1600;

    private static Stroke mark(boolean keep, double... places) {
        float[] points = new float[places.length / 2 * 3];
        for (int i = 0; i < places.length / 2; i++) {
            points[3 * i] = (float) places[2 * i];
            points[3 * i + 1] = (float) places[2 * i + 1];
            points[3 * i + 2] = 1;
        }
        Stroke.Brush brush = Stroke.Brush.of(0.01);
        return new Stroke(keep ? brush : brush.erasing(), points);
    }

    /** The least likeness of the pick-out and of some with a looser box and marks beside the given ones. */
    private static double likeness(String scene, boolean withDepth, PickOut pickOut) throws IOException {
        return likeness(scene, withDepth, pickOut, 3);
    }

    private static double likeness(String scene, boolean withDepth, PickOut pickOut, int changes) throws IOException {
        Picture full = PictureReader.DEFAULT
                .read(DEMO.resolve("photos/" + scene + ".jpg"))
                .picture();
        Picture picture = Resample.toSize(full, full.size().fitting(SIDE));
        Plane truth = Resample.toSize(plane(scene, "subject", full.size()), picture.size());
        double least = 1;
        List<PickOut> all = List.of(pickOut, changed(pickOut, 0.02, 0.003), changed(pickOut, 0.04, -0.003));
        for (PickOut each : all.subList(0, changes)) {
            Size from = PickingOut.solvedFrom(each, full.size());
            Plane nearness =
                    withDepth ? Resample.pick(plane(scene, "depth", full.size()), from) : Plane.filled(from, 0.5f);
            Picture reduced = Resample.toSize(full, from);
            long start = System.nanoTime();
            Plane solved = PickingOut.solved(each, reduced, nearness);
            Mask mask = PickingOut.mask(each, solved, picture, Region.all(picture.size()));
            long time = (System.nanoTime() - start) / 1_000_000;
            double likeness = likeness(mask, truth);
            System.out.printf("%s, depth %s: likeness %.3f in %d ms%n", scene, withDepth, likeness, time);
            least = Math.min(least, likeness);
        }
        return least;
    }

    private static PickOut changed(PickOut pickOut, double looser, double beside) {
        double left = Math.max(0, pickOut.left() - looser);
        double top = Math.max(0, pickOut.top() - looser);
        double right = Math.min(1, pickOut.left() + pickOut.width() + looser);
        double bottom = Math.min(1, pickOut.top() + pickOut.height() + looser);
        List<Stroke> marks = pickOut.marks().stream()
                .map(mark -> {
                    float[] points = mark.points().clone();
                    for (int i = 0; i < points.length; i += 3) {
                        points[i] += (float) beside;
                    }
                    return new Stroke(mark.brush(), points);
                })
                .toList();
        return new PickOut(left, top, right - left, bottom - top, marks);
    }

    private static double likeness(Mask mask, Plane truth) {
        double both = 0;
        double either = 0;
        for (int y = 0; y < truth.height(); y++) {
            for (int x = 0; x < truth.width(); x++) {
                both += Math.min(mask.at(x, y), truth.at(x, y));
                either += Math.max(mask.at(x, y), truth.at(x, y));
            }
        }
        return both / either;
    }

    private static Plane plane(String scene, String what, Size size) throws IOException {
        return new DepthFileReader(PictureReader.DEFAULT)
                .read(Files.readAllBytes(DEMO.resolve("truth/" + scene + "-" + what + ".png")), size);
    }

    @Test
    void theFigurineWithItsStaffAndHair() throws IOException {
        PickOut pickOut = new PickOut(
                0.18,
                0,
                0.55,
                1,
                List.of(
                        mark(true, 0.272, 0.4, 0.3, 0.55, 0.345, 0.55, 0.42, 0.52, 0.49, 0.36),
                        mark(false, 0.75, 0.3, 0.75, 0.9)));
        assertThat(likeness("figurine", true, pickOut)).isGreaterThan(0.95);
        assertThat(likeness("figurine", false, pickOut)).isGreaterThan(0.7);
    }

    // Lamps, rear wheels and the roof's edge are missed by two marks, some grass and a reed at the same depth
    // are taken: 0.95 is reached with four more.
    @Test
    void theEngineBeforeHousesAndTrees() throws IOException {
        double[] over = {
            0.2, 0.645, 0.235, 0.635, 0.28, 0.62, 0.29, 0.46, 0.337, 0.255, 0.337, 0.45, 0.6, 0.47, 0.87, 0.46, 0.96,
            0.52, 0.93, 0.585, 0.5, 0.595, 0.5, 0.65, 0.505, 0.676, 0.8, 0.675
        };
        double[] around = {
            0.98, 0.2, 0.72, 0.15, 0.6, 0.28, 0.48, 0.2, 0.38, 0.28, 0.36, 0.17, 0.31, 0.19, 0.24, 0.28, 0.16, 0.5,
            0.16, 0.72, 0.42, 0.72, 0.9, 0.738
        };
        List<Stroke> two = List.of(mark(true, over), mark(false, around));
        PickOut pickOut = new PickOut(0.15, 0.05, 0.85, 0.7, two);
        assertThat(likeness("crossing", true, pickOut)).isGreaterThan(0.92);
        assertThat(likeness("crossing", false, pickOut)).isGreaterThan(0.7);
        List<Stroke> more = new ArrayList<>(two);
        more.add(mark(true, 0.242, 0.557, 0.227, 0.565));
        more.add(mark(true, 0.891, 0.668, 0.894, 0.692));
        more.add(mark(true, 0.496, 0.729, 0.497, 0.729));
        more.add(mark(true, 0.781, 0.721, 0.783, 0.721));
        more.add(mark(false, 0.551, 0.656, 0.552, 0.656));
        more.add(mark(false, 0.8266, 0.56, 0.8266, 0.62));
        assertThat(likeness("crossing", true, new PickOut(0.15, 0.05, 0.85, 0.7, more), 1))
                .isGreaterThan(0.95);
    }

    @Test
    void theManUnderTheLamp() throws IOException {
        PickOut pickOut = new PickOut(
                0.5,
                0.44,
                0.19,
                0.51,
                List.of(
                        mark(true, 0.6, 0.47, 0.6, 0.75),
                        mark(false, 0.585, 0.46, 0.53, 0.5, 0.53, 0.9, 0.66, 0.93, 0.665, 0.85)));
        assertThat(likeness("dusk", true, pickOut)).isGreaterThan(0.95);
        assertThat(likeness("dusk", false, pickOut)).isGreaterThan(0.85);
    }

    @Test
    void whereMarksContradictEachOtherTheLaterOneHolds() throws IOException {
        List<Stroke> marks = List.of(
                mark(true, 0.6, 0.47, 0.6, 0.75), mark(true, 0.53, 0.5, 0.53, 0.9), mark(false, 0.53, 0.5, 0.53, 0.9));
        Picture full =
                PictureReader.DEFAULT.read(DEMO.resolve("photos/dusk.jpg")).picture();
        PickOut pickOut = new PickOut(0.5, 0.44, 0.19, 0.51, marks);
        Size from = PickingOut.solvedFrom(pickOut, full.size());
        Picture picture = Resample.toSize(full, from);
        Mask mask = PickingOut.mask(
                pickOut,
                PickingOut.solved(pickOut, picture, Plane.filled(from, 0.5f)),
                picture,
                Region.all(picture.size()));
        int x = (int) (0.53 * from.width());
        for (double y = 0.52; y < 0.89; y += 0.02) {
            assertThat(mask.at(x, (int) (y * from.height()))).isLessThan(0.1f);
        }
        assertThat(mask.at((int) (0.6 * from.width()), (int) (0.6 * from.height())))
                .isGreaterThan(0.9f);
    }
}
