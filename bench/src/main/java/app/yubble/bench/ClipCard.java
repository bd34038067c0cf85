package app.yubble.bench;

import app.yubble.core.clip.DepthOverTime;
import app.yubble.core.clip.SideBySide;
import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthEstimator;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Aperture;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageCache;
import app.yubble.core.refocus.Still;
import app.yubble.core.refocus.View;
import app.yubble.core.subject.Quality;
import app.yubble.media.clip.DepthPack;
import app.yubble.media.clip.PlaneFiles;
import app.yubble.vision.DepthEngines;
import app.yubble.vision.InverseSearchFlow;
import app.yubble.vision.ModelFolder;
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
import tools.jackson.databind.json.JsonMapper;

/** Depth over time against exact depth and motion, and how long clips take. */
final class ClipCard {
    /** Longer side at which maps are compared: as large as they are made. */
    private static final int SIDE = DepthOverTime.SIDE;

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
            int[] next = scene.next(frame);
            float[] now = maps.get(frame).samples();
            float[] then = maps.get(frame + 1).samples();
            float[] exactNow = scene.exact(frame).samples();
            float[] exactThen = scene.exact(frame + 1).samples();
            double[] a = fits.get(frame);
            double[] b = fits.get(frame + 1);
            for (int i = 0; i < next.length; i++) {
                if (next[i] >= 0) {
                    double change = b[0] * then[next[i]] + b[1] - a[0] * now[i] - a[1];
                    sum += Math.abs(change - (exactThen[next[i]] - exactNow[i]));
                    count++;
                }
            }
        }
        return sum / count;
    }

    /** Rendering with depth ready: of 24 frames, after as many that warm up. */
    private static Map<String, Double> speeds(Path description, DepthEstimator estimator, Path temporary)
            throws IOException {
        ClipScene scene = ClipScene.read(description, SIDE, temporary);
        List<DepthEstimate> maps = new ArrayList<>();
        scene.clip()
                .each(
                        0,
                        48,
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

    /** A frame that says how much work its edges are. */
    private record Detailed(Picture own, DepthEstimate map, DepthEdges.Detail detail) implements Still {
        @Override
        public String id() {
            return "frame";
        }

        @Override
        public String depthId(DepthChoice.Source source) {
            return "depth";
        }

        @Override
        public Size size() {
            return own.size();
        }

        @Override
        public Picture picture(Size size) {
            return Resample.toSize(own, size);
        }

        @Override
        public DepthEstimate depth(DepthChoice.Source source) {
            return map;
        }
    }

    private static double rendered(ClipScene scene, List<DepthEstimate> maps, Size size, DepthEdges.Detail detail) {
        Recipe recipe = Recipe.INITIAL
                .withBand(new SharpBand(0.7, 0.6, 0.06, 0.06))
                .withAperture(Aperture.DEFAULT.withFree(45));
        long[] start = new long[1];
        SideBySide.run(
                scene.clip(),
                0,
                48,
                2,
                (frame, picture) -> {
                    Picture own = Resample.toSize(picture, size);
                    Still still = new Detailed(own, maps.get(frame), detail);
                    return new RefocusLine(StageCache.keepingAll()).render(still, recipe, View.of(size), Progress.NONE);
                },
                (frame, picture) -> {
                    if (frame == 23) {
                        start[0] = System.nanoTime();
                    }
                });
        return 24 / ((System.nanoTime() - start[0]) / 1e9);
    }
}
