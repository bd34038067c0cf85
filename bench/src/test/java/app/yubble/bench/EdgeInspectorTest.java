package app.yubble.bench;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.focus.SharpBand;
import app.yubble.core.inspect.EdgeInspector;
import app.yubble.core.inspect.Fault;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.touchup.Canvas;
import app.yubble.core.touchup.Mask;
import app.yubble.core.touchup.Painting;
import app.yubble.core.touchup.Stroke;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.picture.PictureReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Faults are made in exact depth; the inspector is to find them, to find little else, and to propose what mends them. */
class EdgeInspectorTest {
    private static final Path DEMO = Path.of("../demo");
    private static final double PIXELS_PER_NEARNESS = 80;

    /** A part of the picture in shares, whose nearness above {@code nearer} becomes {@code becomes}. */
    private record Damage(
            String name, double left, double top, double right, double bottom, double nearer, float becomes) {
        static Damage disc(String name, double x, double y, double radius, float becomes) {
            return new Damage(name, x - radius / 1.5, y - radius, x + radius / 1.5, y + radius, -1, becomes);
        }

        boolean holds(double x, double y, float truth) {
            boolean boxed = x >= left && x <= right && y >= top && y <= bottom && truth > nearer;
            double dx = (x - (left + right) / 2) / (right - left);
            double dy = (y - (top + bottom) / 2) / (bottom - top);
            return boxed && (nearer >= 0 || Math.hypot(dx, dy) <= 0.5);
        }
    }

    private static final Map<String, List<Damage>> DAMAGES = Map.of(
            "figurine",
            List.of(
                    new Damage("staff", 0.25, 0.13, 0.285, 0.235, 0.3, 0.07f),
                    Damage.disc("hole in the coat", 0.44, 0.62, 0.03, 0.07f),
                    Damage.disc("island on the window", 0.85, 0.2, 0.03, 0.4f),
                    new Damage("edge of the sleeve", 0.6, 0.64, 0.645, 0.8, 0.3, 0.1f)),
            "crossing",
            List.of(
                    new Damage("pole", 0.385, 0.12, 0.42, 0.24, 0.1, 0),
                    new Damage("upper half of the man", 0.05, 0.53, 0.14, 0.68, 0.23, 0.1f),
                    Damage.disc("hole in the boiler", 0.5, 0.45, 0.03, 0.03f),
                    new Damage("chimney", 0.3, 0.24, 0.375, 0.32, 0.15, 0.05f),
                    Damage.disc("island on the grass", 0.45, 0.93, 0.025, 0.8f)),
            "dusk",
            List.of(
                    new Damage("head", 0.57, 0.48, 0.635, 0.53, 0.3, 0.05f),
                    new Damage("lamp post", 0.765, 0.5, 0.8, 0.62, 0.25, 0.16f),
                    Damage.disc("hole in the coach", 0.88, 0.58, 0.03, 0.02f),
                    Damage.disc("island in the sky", 0.45, 0.1, 0.03, 0.3f)));

    private record Scene(Picture picture, Plane truth) {
        List<Fault> faults(Plane nearness) {
            Plane field = new Plane(nearness.size());
            for (int i = 0; i < field.samples().length; i++) {
                float off = Math.max(0, Math.abs(nearness.samples()[i] - 0.35f) - 0.08f);
                field.samples()[i] = (float) (PIXELS_PER_NEARNESS * off);
            }
            return EdgeInspector.faults(picture, nearness, field, null);
        }

        boolean[] where(Damage damage) {
            boolean[] out = new boolean[truth.samples().length];
            for (int i = 0; i < out.length; i++) {
                double x = (i % truth.width() + 0.5) / truth.width();
                double y = (i / truth.width() + 0.5) / truth.height();
                out[i] = damage.holds(x, y, truth.samples()[i]);
            }
            return out;
        }
    }

    private static final Map<String, Scene> SCENES = new LinkedHashMap<>();

    @BeforeAll
    static void read() throws IOException {
        for (String name : DAMAGES.keySet()) {
            Picture full = PictureReader.DEFAULT
                    .read(DEMO.resolve("photos/" + name + ".jpg"))
                    .picture();
            Plane map = new DepthFileReader(PictureReader.DEFAULT)
                    .read(Files.readAllBytes(DEMO.resolve("truth/" + name + "-depth.png")), full.size());
            Size size = full.size().fitting(EdgeInspector.SIDE);
            SCENES.put(name, new Scene(Resample.toSize(full, size), Resample.pick(map, size)));
        }
    }

    private static Plane damaged(Scene scene, List<Damage> damages) {
        Plane out = new Plane(scene.truth().size());
        System.arraycopy(scene.truth().samples(), 0, out.samples(), 0, out.samples().length);
        for (Damage each : damages) {
            boolean[] where = scene.where(each);
            for (int i = 0; i < where.length; i++) {
                if (where[i]) {
                    out.samples()[i] = each.becomes();
                }
            }
        }
        return out;
    }

    /** A fault is the one that was made when it holds a tenth of its pixels and the box of it is not mostly something else. */
    private static boolean isOf(Fault fault, boolean[] where, Size size) {
        int x0 = (int) (fault.left() * size.width());
        int y0 = (int) (fault.top() * size.height());
        int across = (int) Math.ceil(fault.width() * size.width());
        int down = (int) Math.ceil(fault.height() * size.height());
        int both = 0;
        int whole = 0;
        for (int i = 0; i < where.length; i++) {
            int x = i % size.width();
            int y = i / size.width();
            whole += where[i] ? 1 : 0;
            both += where[i] && x >= x0 && x < x0 + across && y >= y0 && y < y0 + down ? 1 : 0;
        }
        return both > 0.1 * whole && both > 0.1 * across * down;
    }

    @Test
    void fourOfFiveMadeFaultsAreAmongTheFirstTen() {
        int found = 0;
        int made = 0;
        for (Map.Entry<String, List<Damage>> each : DAMAGES.entrySet()) {
            Scene scene = SCENES.get(each.getKey());
            List<Fault> faults = scene.faults(damaged(scene, each.getValue()));
            List<Fault> first = faults.subList(0, Math.min(10, faults.size()));
            for (Damage damage : each.getValue()) {
                boolean[] where = scene.where(damage);
                boolean seen = first.stream()
                        .anyMatch(fault -> isOf(fault, where, scene.truth().size()));
                System.out.printf("%s: %s %s%n", each.getKey(), damage.name(), seen ? "found" : "missed");
                found += seen ? 1 : 0;
                made++;
            }
        }
        assertThat(found).isGreaterThanOrEqualTo((int) Math.ceil(0.8 * made));
    }

    @Test
    void exactDepthHasHardlyAny() {
        for (Map.Entry<String, Scene> each : SCENES.entrySet()) {
            int found = each.getValue().faults(each.getValue().truth()).size();
            System.out.printf("%s, exact: %d suspected%n", each.getKey(), found);
            assertThat(found).isLessThan(3);
        }
    }

    @Test
    void whatIsProposedMendsTheFault() {
        List<String> mended = new ArrayList<>();
        for (Map.Entry<String, List<Damage>> each : DAMAGES.entrySet()) {
            Scene scene = SCENES.get(each.getKey());
            Plane before = damaged(scene, each.getValue());
            List<Fault> faults = scene.faults(before);
            for (Damage damage : each.getValue()) {
                boolean[] where = scene.where(damage);
                Fault fault = faults.stream()
                        .filter(found -> isOf(found, where, scene.truth().size()))
                        .findFirst()
                        .orElse(null);
                if (fault != null) {
                    double left = error(scene, accepted(scene, before, fault), where) / error(scene, before, where);
                    System.out.printf(
                            "%s: of the error of %s %.0f %% is left%n", each.getKey(), damage.name(), 100 * left);
                    if (left < 0.5) {
                        mended.add(damage.name());
                    }
                }
            }
        }
        assertThat(mended).hasSizeGreaterThanOrEqualTo(8);
    }

    private static Plane accepted(Scene scene, Plane before, Fault fault) {
        Mask mask = Mask.empty(before.size());
        for (Stroke stroke : fault.proposal().strokes()) {
            mask = Painting.stroke(mask, stroke, Canvas.of(scene.picture(), before), Region.all(before.size()));
        }
        Plane out = new Plane(before.width(), before.height(), before.samples().clone());
        Painting.move(out, fault.proposal(), mask, SharpBand.EVERYTHING);
        return out;
    }

    private static double error(Scene scene, Plane depth, boolean[] where) {
        double sum = 0;
        for (int i = 0; i < where.length; i++) {
            sum += where[i] ? Math.abs(depth.samples()[i] - scene.truth().samples()[i]) : 0;
        }
        return sum;
    }
}
