package app.yubble.bench;

import app.yubble.core.clip.DepthOverTime;
import app.yubble.core.clip.Ease;
import app.yubble.core.clip.SideBySide;
import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthEstimator;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Aperture;
import app.yubble.core.lens.Glints;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.BandMark;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Marks;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.HeldPhoto;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageCache;
import app.yubble.core.refocus.View;
import app.yubble.core.refocus.Viewer;
import app.yubble.core.subject.Quality;
import app.yubble.media.clip.DepthPack;
import app.yubble.media.clip.PlaneFiles;
import app.yubble.media.picture.ToneCurve;
import app.yubble.vision.DepthEngines;
import app.yubble.vision.InverseSearchFlow;
import app.yubble.vision.ModelFolder;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import javax.imageio.ImageIO;
import tools.jackson.databind.json.JsonMapper;

/** Depth over time against exact depth and motion, and how long clips take. */
final class ClipCard {
    /** Longer side at which maps are compared: as large as they are made. */
    private static final int SIDE = DepthOverTime.SIDE;

    /** Half of them warm up. */
    private static final int RENDERED = 48;

    /** The marks of the pull that the truths were rendered with: seconds and nearness. */
    private static final double PULL_FROM = 0.5;

    private static final double PULL_TO = 3.25;
    private static final double PULL_NEAR = 0.415;
    private static final double PULL_FAR = 0.14;
    /** Metres. */
    private static final double LENS_DIAMETER = 0.16;

    private ClipCard() {}

    /**
     * Error and flicker in nearness, of maps that were each estimated alone and of steady ones.
     *
     * @param alone every frame on a scale of its own
     * @param steady all frames on one scale
     * @param flickerAlone on scales of their own
     * @param flickerJumping the same on one scale
     */
    record Line(
            String scene,
            Quality quality,
            double alone,
            double steady,
            double flickerAlone,
            double flickerJumping,
            double flickerSteady,
            double framesASecond,
            double kilobytesAFrame) {}

    static void main(String[] arguments) throws IOException {
        Path temporary = Files.createTempDirectory("yubble-bench-");
        boolean speedsOnly = arguments.length > 0 && arguments[0].equals("speed");
        List<Path> scenes = arguments.length > 0 && !speedsOnly
                ? List.of(Path.of(arguments[0]))
                : List.of(
                        Path.of("demo/clips/arrival.json"),
                        Path.of("bench/clips/stroll.json"),
                        Path.of("bench/clips/sitting.json"));
        DepthEstimator estimator =
                new DepthEngines(new ModelFolder(Path.of(System.getProperty("yubble.models")))).automatic();
        List<Line> lines = new ArrayList<>();
        System.out.printf(
                "%-10s%-7s%9s%9s%7s%9s%9s%9s%7s%7s%7s%n",
                "scene", "", "alone", "steady", "ratio", "flicker", "jumping", "steady", "ratio", "fps", "kB");
        Map<String, Object> all = new LinkedHashMap<>();
        for (Path each : speedsOnly ? List.<Path>of() : scenes) {
            ClipScene scene = ClipScene.read(each, SIDE, temporary);
            List<Plane> alone = alone(scene, estimator);
            for (Quality quality : Quality.values()) {
                Line line = scored(scene, alone, estimator, quality, temporary.resolve("shelves-" + quality));
                lines.add(line);
                System.out.printf(
                        Locale.ROOT,
                        "%-10s%-7s%9.4f%9.4f%7.2f%9.5f%9.5f%9.5f%7.2f%7.1f%7.0f%n",
                        line.scene(),
                        quality.name().toLowerCase(Locale.ROOT),
                        line.alone(),
                        line.steady(),
                        line.steady() / line.alone(),
                        line.flickerAlone(),
                        line.flickerJumping(),
                        line.flickerSteady(),
                        line.flickerSteady() / line.flickerAlone(),
                        line.framesASecond(),
                        line.kilobytesAFrame());
            }
        }
        all.put("depth", lines);
        Map<String, Double> speeds = speeds(scenes.get(0), estimator, temporary);
        speeds.forEach((what, value) -> System.out.printf(Locale.ROOT, "%-44s%6.1f frames a second%n", what, value));
        all.put("speeds", speeds);
        List<Pull> pulls = speedsOnly ? List.of() : pulled(temporary);
        for (Pull each : pulls) {
            System.out.printf(
                    Locale.ROOT,
                    "pulled focus, frame %3d: %6.2f dB, band off by %.5f%n",
                    each.frame() + 1,
                    each.decibels(),
                    each.off());
        }
        all.put("pull", pulls);
        Path target = Files.createDirectories(Path.of("target/bench")).resolve("clip.json");
        Files.writeString(
                target, JsonMapper.shared().writerWithDefaultPrettyPrinter().writeValueAsString(all));
        System.out.println("also in " + target);
    }

    /** Each frame estimated on its own. */
    private static List<Plane> alone(ClipScene scene, DepthEstimator estimator) {
        List<Plane> out = new ArrayList<>();
        scene.clip().each(0, scene.frames(), (frame, picture) -> {
            Plane map =
                    estimator.estimate(picture, Quality.DRAFT, Progress.NONE).nearness();
            out.add(Resample.toSize(map, scene.exact(frame).size()));
        });
        return out;
    }

    private static Line scored(
            ClipScene scene, List<Plane> alone, DepthEstimator estimator, Quality quality, Path shelf)
            throws IOException {
        Map<Integer, DepthEstimate> found = new TreeMap<>();
        PlaneFiles shelves = new PlaneFiles(shelf);
        long start = System.nanoTime();
        new DepthOverTime(estimator, new InverseSearchFlow(), quality)
                .run(
                        scene.clip().shot(),
                        scene.clip(),
                        shelves,
                        new DepthOverTime.Sink() {
                            @Override
                            public void first(int frame, DepthEstimate estimate) {
                                // Only what is settled counts.
                            }

                            @Override
                            public void settled(int frame, DepthEstimate estimate) {
                                found.put(frame, estimate);
                            }
                        },
                        Progress.NONE);
        double seconds = (System.nanoTime() - start) / 1e9;
        shelves.remove();
        long bytes = 0;
        for (int from = 0; from < scene.frames(); from += DepthPack.FRAMES) {
            DepthPack pack = DepthPack.ofEstimates();
            for (int frame = from; frame < Math.min(scene.frames(), from + DepthPack.FRAMES); frame++) {
                pack.add(frame, Objects.requireNonNull(found.get(frame)));
            }
            bytes += pack.write().length;
        }
        List<Plane> steady = found.values().stream()
                .map(each -> Resample.toSize(each.nearness(), scene.exact(0).size()))
                .toList();
        double[] one = fit(steady, scene, 0, scene.frames());
        double[] jumping = fit(alone, scene, 0, scene.frames());
        List<double[]> own = new ArrayList<>();
        List<double[]> same = new ArrayList<>();
        List<double[]> rough = new ArrayList<>();
        for (int frame = 0; frame < scene.frames(); frame++) {
            own.add(fit(alone, scene, frame, frame + 1));
            same.add(one);
            rough.add(jumping);
        }
        return new Line(
                scene.name(),
                quality,
                error(alone, own, scene),
                error(steady, same, scene),
                flicker(alone, own, scene),
                flicker(alone, rough, scene),
                flicker(steady, same, scene),
                scene.frames() / seconds,
                bytes / 1024.0 / scene.frames());
    }

    /** Factor and offset that bring maps of some frames nearest to the exact ones. */
    private static double[] fit(List<Plane> maps, ClipScene scene, int from, int to) {
        double n = 0;
        double x = 0;
        double y = 0;
        double xx = 0;
        double xy = 0;
        for (int frame = from; frame < to; frame++) {
            float[] found = maps.get(frame).samples();
            float[] exact = scene.exact(frame).samples();
            for (int i = 0; i < found.length; i++) {
                n++;
                x += found[i];
                y += exact[i];
                xx += (double) found[i] * found[i];
                xy += (double) found[i] * exact[i];
            }
        }
        double factor = (xy / n - x / n * (y / n)) / Math.max(1e-9, xx / n - x / n * (x / n));
        return new double[] {factor, y / n - factor * x / n};
    }

    private static double error(List<Plane> maps, List<double[]> fits, ClipScene scene) {
        double sum = 0;
        long count = 0;
        for (int frame = 0; frame < scene.frames(); frame++) {
            float[] found = maps.get(frame).samples();
            float[] exact = scene.exact(frame).samples();
            double[] fit = fits.get(frame);
            for (int i = 0; i < found.length; i++) {
                sum += Math.abs(fit[0] * found[i] + fit[1] - exact[i]);
            }
            count += found.length;
        }
        return sum / count;
    }

    /** Mean change of what stands still from one frame to the next, less what the exact change is. */
    private static double flicker(List<Plane> maps, List<double[]> fits, ClipScene scene) {
        double sum = 0;
        long count = 0;
        for (int frame = 0; frame + 1 < scene.frames(); frame++) {
            ClipScene.Next next = scene.next(frame);
            float[] now = maps.get(frame).samples();
            Plane then = maps.get(frame + 1);
            float[] exact = scene.exact(frame).samples();
            double[] a = fits.get(frame);
            double[] b = fits.get(frame + 1);
            for (int i = 0; i < now.length; i++) {
                if (next.found(i)) {
                    double change = b[0] * next.of(then, i) + b[1] - a[0] * now[i] - a[1];
                    sum += Math.abs(change - (next.nearness()[i] - exact[i]));
                    count++;
                }
            }
        }
        return sum / count;
    }

    /** Rendering with depth ready. */
    private static Map<String, Double> speeds(Path description, DepthEstimator estimator, Path temporary)
            throws IOException {
        ClipScene scene = ClipScene.read(description, SIDE, temporary);
        List<DepthEstimate> maps = new ArrayList<>();
        scene.clip()
                .each(
                        0,
                        Math.min(RENDERED, scene.frames()),
                        (frame, picture) -> maps.add(
                                frame % 12 == 0
                                        ? estimator.estimate(picture, Quality.DRAFT, Progress.NONE)
                                        : maps.get(frame - 1)));
        Map<String, Double> out = new LinkedHashMap<>();
        Size full = scene.clip().sheet().info().size();
        for (int side : new int[] {854, 1280, 1920}) {
            Size size = new Size(side, Math.round((float) side * full.height() / full.width()));
            for (DepthEdges.Detail detail : DepthEdges.Detail.values()) {
                String what = "rendering " + size + ", edges " + detail.name().toLowerCase(Locale.ROOT);
                out.put(what, rendered(scene, maps, size, detail));
            }
        }
        return out;
    }

    /** A frame of a pulled focus against a thin lens; how far its band is from the ease's formula, in nearness. */
    record Pull(int frame, double decibels, double off) {}

    /** Focus goes from the waiting man to the train between two marks; ray-traced truths lie beside the demo clip. */
    private static List<Pull> pulled(Path temporary) throws IOException {
        ClipScene scene = ClipScene.read(Path.of("demo/clips/arrival.json"), Integer.MAX_VALUE, temporary);
        Recipe recipe = Recipe.INITIAL
                .withDepth(DepthChoice.of(DepthChoice.Source.FILE))
                .withGlints(Glints.NONE)
                .withMarks(Marks.NONE.withBand(List.of(
                        new BandMark(PULL_FROM, Ease.SMOOTH, new SharpBand(PULL_NEAR, PULL_NEAR, 0, 0)),
                        new BandMark(PULL_TO, Ease.SMOOTH, new SharpBand(PULL_FAR, PULL_FAR, 0, 0)))));
        List<Pull> out = new ArrayList<>();
        for (int frame = 4; frame < scene.frames(); frame += 12) {
            Path truth = Path.of(String.format(Locale.ROOT, "demo/clips/arrival-lens-%02d.png", frame + 1));
            if (!Files.exists(truth)) {
                continue;
            }
            BufferedImage exact = ImageIO.read(truth.toFile());
            Size size = new Size(exact.getWidth(), exact.getHeight());
            Picture seen = Resample.toSize(scene.clip().frame(frame), size);
            HeldPhoto still = HeldPhoto.of(seen, scene.exact(frame));
            double seconds = scene.clip().sheet().micros(frame) / 1e6;
            Recipe now = recipe.at(scene.clip().sheet().moment(frame));
            // Diameter over 2, by what a unit of nearness is worth, in pixels of this width: a thin lens.
            double radius = LENS_DIAMETER / 2 / scene.near() / scene.perPixel(size.width());
            Picture ours = new RefocusLine(StageCache.keepingAll())
                    .render(new Viewer(), still, now, View.of(size), radius, Progress.NONE);
            double t = Math.max(0, Math.min(1, (seconds - PULL_FROM) / (PULL_TO - PULL_FROM)));
            double wanted = PULL_NEAR + (PULL_FAR - PULL_NEAR) * (3 * t * t - 2 * t * t * t);
            out.add(new Pull(frame, decibels(ours, exact), Math.abs(now.band().centre() - wanted)));
        }
        return out;
    }

    /** Between code values: the clip says BT.709 of pictures that were rendered for screens. */
    private static double decibels(Picture ours, BufferedImage truth) {
        float[][] codes = ToneCurve.BT709.codes();
        double most = (1 << truth.getColorModel().getComponentSize(0)) - 1;
        double sum = 0;
        for (int c = 0; c < 3; c++) {
            float[] samples = ours.planes().get(c).samples();
            for (int i = 0; i < samples.length; i++) {
                double wanted = truth.getRaster().getSampleDouble(i % ours.width(), i / ours.width(), c) / most;
                double off = ToneCurve.encoded(codes[c], samples[i]) - wanted;
                sum += off * off;
            }
        }
        return -10 * Math.log10(sum / (3.0 * ours.size().pixels()));
    }

    private static double rendered(ClipScene scene, List<DepthEstimate> maps, Size size, DepthEdges.Detail detail) {
        Recipe recipe = Recipe.INITIAL
                .withBand(new SharpBand(0.7, 0.6, 0.06, 0.06))
                .withAperture(Aperture.DEFAULT.withFree(45));
        long[] start = new long[1];
        SideBySide.run(
                scene.clip(),
                0,
                maps.size(),
                2,
                (frame, picture) -> {
                    Picture own = Resample.toSize(picture, size);
                    HeldPhoto still = new HeldPhoto(own, maps.get(frame), Map.of(), Map.of(), detail, frame);
                    return new RefocusLine(StageCache.keepingAll()).render(still, recipe, View.of(size), Progress.NONE);
                },
                (frame, picture) -> {
                    if (frame == maps.size() / 2 - 1) {
                        start[0] = System.nanoTime();
                    }
                });
        return (maps.size() - maps.size() / 2) / ((System.nanoTime() - start[0]) / 1e9);
    }
}
