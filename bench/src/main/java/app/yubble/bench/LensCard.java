package app.yubble.bench;

import app.yubble.core.lens.CutLight;
import app.yubble.core.lens.Disc;
import app.yubble.core.lens.Glints;
import app.yubble.core.lens.LensRender;
import app.yubble.core.lens.Lift;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import tools.jackson.databind.json.JsonMapper;

/** The lens scorecard: against ray-traced apertures with exact depth, then times beside ffmpeg's {@code varblur}. */
final class LensCard {
    private static final double USUAL_GLINTS = 0.25;

    private LensCard() {}

    /** One line of the table: the lens from the unclipped source, from an 8-bit one, and two things to compare with. */
    record Line(
            String scene,
            double focus,
            double diameter,
            Likeness ours,
            Likeness eightBit,
            Likeness gaussian,
            Likeness untouched) {}

    static void main(String[] arguments) throws IOException {
        Path folder = Path.of(arguments.length > 0 ? arguments[0] : "demo/lens");
        List<Line> lines = new ArrayList<>();
        System.out.printf(
                "%-10s%7s%7s%22s%22s%22s%22s%n",
                "scene", "focus", "lens", "ours", "from 8 bit", "Gaussian", "untouched");
        for (TruthScene scene : TruthScene.all(folder)) {
            for (TruthScene.Shot shot : scene.shots()) {
                Line line = scored(scene, shot);
                lines.add(line);
                print(line);
            }
        }
        summary(lines);
        List<Lamps> lamps = lamps(folder);
        List<LensTimes.Time> times = LensTimes.measured();
        Map<String, Object> all = new LinkedHashMap<>();
        all.put("truth", lines);
        all.put("lamps", lamps);
        all.put("times", times);
        Path target = Files.createDirectories(Path.of("target/bench")).resolve("lens.json");
        Files.writeString(
                target, JsonMapper.shared().writerWithDefaultPrettyPrinter().writeValueAsString(all));
        System.out.println("\nalso in " + target);
    }

    /**
     * Many lamps from 8 bits against the same lens from their unclipped light, in dB.
     *
     * @param untold without giving anything back
     * @param estimated with what {@link CutLight} finds
     */
    record Lamps(double focus, double diameter, double untold, double estimated) {}

    private static List<Lamps> lamps(Path folder) throws IOException {
        List<Lamps> out = new ArrayList<>();
        for (TruthScene scene : TruthScene.all(folder)) {
            if (scene.name().equals("dusk")) {
                for (double[] lens : new double[][] {{6.6, 0.06}, {6.6, 0.2}, {2.7, 0.06}, {2.7, 0.2}}) {
                    out.add(lamps(scene, new TruthScene.Shot(lens[0], lens[1], scene.source())));
                }
            }
        }
        System.out.println("\nlamps of dusk, from 8 bit against from unclipped light");
        for (Lamps each : out) {
            System.out.printf(
                    Locale.ROOT,
                    "%10s%7.2f%7.2f  as they are %.1f dB, estimated %.1f dB%n",
                    "dusk",
                    each.focus(),
                    each.diameter(),
                    each.untold(),
                    each.estimated());
        }
        return out;
    }

    private static Lamps lamps(TruthScene scene, TruthScene.Shot shot) {
        Plane field = scene.field(shot);
        boolean[] edges = scene.nearEdges();
        Picture clipped = eightBit(scene.source());
        Picture unclipped = LensRender.render(scene.source(), field, Disc.ROUND, Glints.NONE, Progress.NONE);
        Picture untold = LensRender.render(clipped, field, Disc.ROUND, Glints.NONE, Progress.NONE);
        return new Lamps(
                shot.focus(),
                shot.diameter(),
                Likeness.of(untold, unclipped, edges).psnr(),
                Likeness.of(given(clipped, field), unclipped, edges).psnr());
    }

    /** With the light that was cut off given back as it is estimated. */
    private static Picture given(Picture clipped, Plane field) {
        Lift lift = Lift.of(Glints.of(USUAL_GLINTS).lift(clipped, CutLight.of(clipped)));
        return LensRender.render(clipped, field, Disc.ROUND, lift, Region.all(clipped.size()), Progress.NONE);
    }

    static Line scored(TruthScene scene, TruthScene.Shot shot) {
        Plane field = scene.field(shot);
        boolean[] edges = scene.nearEdges();
        Picture clipped = eightBit(scene.source());
        Picture ours = LensRender.render(scene.source(), field, Disc.ROUND, Glints.NONE, Progress.NONE);
        Picture fromClipped = given(clipped, field);
        return new Line(
                scene.name(),
                shot.focus(),
                shot.diameter(),
                Likeness.of(ours, shot.truth(), edges),
                Likeness.of(fromClipped, shot.truth(), edges),
                Likeness.of(VariableGaussian.of(scene.source(), field), shot.truth(), edges),
                Likeness.of(scene.source(), shot.truth(), edges));
    }

    /** As a camera would have stored it: cut at white, 8 bits, power 1/2.2. */
    private static Picture eightBit(Picture picture) {
        Picture out = Picture.blank(picture.size());
        for (int c = 0; c < 3; c++) {
            float[] from = picture.planes().get(c).samples();
            float[] to = out.planes().get(c).samples();
            for (int i = 0; i < from.length; i++) {
                to[i] = (float) Math.pow(Math.round(255 * Likeness.shown(from[i])) / 255.0, 2.2);
            }
        }
        return out;
    }

    private static void print(Line line) {
        System.out.printf(Locale.ROOT, "%-10s%7.2f%7.2f", line.scene(), line.focus(), line.diameter());
        for (Likeness each : List.of(line.ours(), line.eightBit(), line.gaussian(), line.untouched())) {
            System.out.printf(Locale.ROOT, "  %5.1f /%5.1f / %.3f", each.psnr(), each.band(), each.ssim());
        }
        System.out.println();
    }

    private static void summary(List<Line> lines) {
        double worst =
                lines.stream().mapToDouble(line -> line.ours().psnr()).min().orElse(0);
        double mean =
                lines.stream().mapToDouble(line -> line.ours().psnr()).average().orElse(0);
        double ssim =
                lines.stream().mapToDouble(line -> line.ours().ssim()).average().orElse(0);
        double gain = lines.stream()
                .mapToDouble(line -> line.ours().band() - line.gaussian().band())
                .min()
                .orElse(0);
        double eight = lines.stream()
                .mapToDouble(line -> line.eightBit().psnr())
                .average()
                .orElse(0);
        System.out.printf(
                Locale.ROOT,
                "%nmean %.1f dB (from 8 bit %.1f), SSIM %.3f; worst %.1f dB; at depth edges over the Gaussian at least %.1f dB%n",
                mean,
                eight,
                ssim,
                worst,
                gain);
    }
}
