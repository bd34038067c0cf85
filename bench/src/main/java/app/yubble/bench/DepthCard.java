package app.yubble.bench;

import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthEstimator;
import app.yubble.core.depth.LayoutEstimator;
import app.yubble.core.depth.RampEstimator;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.subject.MatteRefiner;
import app.yubble.core.subject.Quality;
import app.yubble.core.subject.Subject;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.picture.PictureReader;
import app.yubble.vision.DepthEngines;
import app.yubble.vision.ModelFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import tools.jackson.databind.json.JsonMapper;

/**
 * The depth scorecard: every way to get depth on the rendered scenes of {@code bench/scenes}, which no network has seen,
 * against their exact depth. See {@link DepthScore} for the figures.
 */
final class DepthCard {
    static final String[] SCENES = {
        "portrait", "street", "tabletop", "room", "landscape", "lattice", "animal", "crowd", "facade"
    };
    /** Scenes with one thing that the picture is of. */
    private static final List<String> WITH_SUBJECT = List.of("portrait", "street", "animal", "tabletop");

    private final DepthEngines engines;
    private final Path folder;

    private DepthCard(DepthEngines engines, Path folder) {
        this.engines = engines;
        this.folder = folder;
    }

    static void main(String[] arguments) throws IOException {
        DepthEngines engines =
                new DepthEngines(new ModelFolder(Path.of(System.getProperty("yubble.models", "var/models"))));
        new DepthCard(engines, Path.of(arguments.length > 0 ? arguments[0] : "bench/scenes")).run();
    }

    private void run() throws IOException {
        Map<String, Map<String, DepthScore>> all = new LinkedHashMap<>();
        for (String scene : SCENES) {
            Picture picture =
                    PictureReader.DEFAULT.read(folder.resolve(scene + ".jpg")).picture();
            Plane exact = new DepthFileReader(PictureReader.DEFAULT)
                    .read(Files.readAllBytes(folder.resolve(scene + "-depth.png")), picture.size());
            ways(picture)
                    .forEach((way, plane) -> all.computeIfAbsent(way, name -> new LinkedHashMap<>())
                            .put(scene, DepthScore.of(plane, exact)));
            System.err.println("scored " + scene);
        }
        print(all);
        Path target = Files.createDirectories(Path.of("target/bench")).resolve("depth.json");
        Files.writeString(
                target, JsonMapper.shared().writerWithDefaultPrettyPrinter().writeValueAsString(all));
        System.out.println("\nalso in " + target);
    }

    private Map<String, Plane> ways(Picture picture) {
        Map<String, Plane> ways = new LinkedHashMap<>();
        ways.put("constant", Plane.filled(picture.size(), 0.5f));
        ways.put("ramp", at(new RampEstimator(), picture, 0));
        Plane layout = at(new LayoutEstimator(), picture, 1);
        ways.put("layout", layout);
        for (String name : engines.names()) {
            if (name.equals("ramp") || name.equals("layout")) {
                continue;
            }
            DepthEstimator estimator = engines.named(name).orElseThrow();
            DepthEstimate estimate = estimator.estimate(picture, Quality.BEST, Progress.NONE);
            if (name.equals("learned")) {
                ways.put("layout and matte", standing(layout, estimate.subject(), picture));
                ways.put("head raw", DepthEdges.follow(DepthEstimate.of(estimate.nearness()), picture, 0));
            }
            ways.put(name, DepthEdges.follow(estimate, picture, 1));
        }
        return ways;
    }

    private static Plane at(DepthEstimator estimator, Picture picture, double snap) {
        return DepthEdges.follow(estimator.estimate(picture, Quality.BEST, Progress.NONE), picture, snap);
    }

    /** The subject upright on its lowest point. */
    private static Plane standing(Plane layout, @org.jspecify.annotations.Nullable Subject subject, Picture picture) {
        if (subject == null || !subject.clear()) {
            return layout;
        }
        Plane matte = MatteRefiner.refine(subject.matte(), picture);
        int lowest = 0;
        for (int i = 0; i < matte.samples().length; i++) {
            lowest = matte.samples()[i] > 0.5f ? i : lowest;
        }
        float foot = layout.samples()[lowest];
        Plane out = new Plane(layout.size());
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = layout.samples()[i] + matte.samples()[i] * (foot - layout.samples()[i]);
        }
        return out;
    }

    private static void print(Map<String, Map<String, DepthScore>> all) {
        System.out.printf("%-18s", "order / edges");
        for (String scene : SCENES) {
            System.out.printf("%13s", scene);
        }
        System.out.println();
        all.forEach((way, scores) -> {
            System.out.printf("%-18s", way);
            scores.values()
                    .forEach(score -> System.out.printf(Locale.ROOT, "  %5.2f /%4.2f", score.order(), score.edges()));
            System.out.println();
        });
        System.out.printf("%n%-18s%9s%9s%9s%9s%12s%n", "mean", "AbsRel", "in 1.25x", "order", "edges", "with subject");
        all.forEach((way, scores) -> {
            List<DepthScore> list = new ArrayList<>(scores.values());
            double subjects = WITH_SUBJECT.stream()
                    .map(scene ->
                            Optional.ofNullable(scores.get(scene)).orElseThrow().order())
                    .mapToDouble(Double::doubleValue)
                    .average()
                    .orElse(0);
            System.out.printf(
                    Locale.ROOT,
                    "%-18s%9.3f%8.1f%%%9.3f%9.3f%12.3f%n",
                    way,
                    mean(list, 0),
                    100 * mean(list, 1),
                    mean(list, 2),
                    mean(list, 3),
                    subjects);
        });
    }

    private static double mean(List<DepthScore> scores, int which) {
        return scores.stream()
                .mapToDouble(
                        score -> new double[] {score.absRel(), score.within(), score.order(), score.edges()}[which])
                .average()
                .orElse(0);
    }
}
