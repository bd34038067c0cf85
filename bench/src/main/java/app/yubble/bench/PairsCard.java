package app.yubble.bench;

import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthEstimator;
import app.yubble.core.depth.LayoutEstimator;
import app.yubble.core.depth.RampEstimator;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.subject.Quality;
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
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Predicate;
import tools.jackson.databind.json.JsonMapper;

/**
 * The judges: pairs of points on photos, ranked by eye, of which a map has the nearer one nearer. The photos come with Debian
 * packages, which need only be unpacked; those that are not there are told and left out.
 *
 * <p>Arguments: {@code [--root FOLDER] [--apart]}. A third is kept apart, and scored only with {@code --apart}: look at it once a release.
 */
final class PairsCard {
    /** A smaller difference, as a share of the map's range, is no order. */
    private static final double LEAST_DIFFERENCE = 0.002;

    private final Map<String, List<Judged>> ways = new LinkedHashMap<>();
    private final LadderJudge ladder = new LadderJudge();

    /** What a map says of a pair. */
    private record Judged(RankedPhoto photo, RankedPhoto.Pair pair, boolean right) {}

    private record Score(int pairs, double right) {}

    static void main(String[] arguments) throws IOException {
        List<String> given = List.of(arguments);
        int at = given.indexOf("--root");
        Path root = Path.of(at >= 0 && at + 1 < given.size() ? given.get(at + 1) : "/");
        boolean apart = given.contains("--apart");
        new PairsCard().run(root, apart);
    }

    private void run(Path root, boolean apart) throws IOException {
        List<RankedPhoto> photos = new ArrayList<>();
        TreeSet<String> missing = new TreeSet<>();
        for (RankedPhoto photo : RankedPhoto.read(Path.of("bench/pairs/ranks.json"))) {
            if (photo.isApart() == apart) {
                if (photo.isIn(root)) {
                    photos.add(photo);
                } else {
                    missing.add(photo.packageName());
                }
            }
        }
        if (!missing.isEmpty()) {
            String packages = String.join(" ", missing);
            System.out.println("photos are missing of the packages " + packages + ": apt-get download " + packages
                    + ", unpack each with dpkg -x into a folder, and say --root FOLDER");
        }
        if (photos.isEmpty()) {
            return;
        }
        DepthEngines engines =
                new DepthEngines(new ModelFolder(Path.of(System.getProperty("yubble.models", "var/models"))));
        for (RankedPhoto photo : photos) {
            Picture picture = PictureReader.DEFAULT.read(photo.in(root)).picture();
            judge(engines, photo, picture);
            System.err.println("judged " + photo.file());
        }
        print(photos.size(), apart);
    }

    private void judge(DepthEngines engines, RankedPhoto photo, Picture picture) {
        for (DepthEstimator plain : List.of(new RampEstimator(), new LayoutEstimator())) {
            judge(
                    plain.name(),
                    photo,
                    plain.estimate(picture, Quality.BEST, Progress.NONE).nearness());
        }
        for (String name : engines.names()) {
            if (!name.equals("ramp") && !name.equals("layout")) {
                DepthEstimate estimate =
                        engines.named(name).orElseThrow().estimate(picture, Quality.BEST, Progress.NONE);
                judge(name + " raw", photo, DepthEdges.follow(DepthEstimate.of(estimate.nearness()), picture, 0));
                Plane map = DepthEdges.follow(estimate, picture, 1);
                judge(name, photo, map);
                if (name.equals(engines.automatic().name())) {
                    ladder.judge(photo, picture, map, estimate.kin());
                }
            }
        }
    }

    private void judge(String way, RankedPhoto photo, Plane map) {
        List<Judged> judged = ways.computeIfAbsent(way, name -> new ArrayList<>());
        Ordered ordered = Ordered.of(map);
        for (RankedPhoto.Pair pair : photo.pairs()) {
            judged.add(new Judged(photo, pair, ordered.has(pair)));
        }
    }

    /** A map with the difference that is an order in it. */
    record Ordered(Plane map, double least) {
        static Ordered of(Plane map) {
            return new Ordered(map, LEAST_DIFFERENCE * map.range().span());
        }

        boolean has(RankedPhoto.Pair pair) {
            return pair.near().of(map) - pair.far().of(map) > least;
        }
    }

    private void print(int photos, boolean apart) throws IOException {
        System.out.printf("%d photos%s, %% of pairs in the right order%n", photos, apart ? " kept apart" : "");
        Map<String, Map<String, Score>> all = new LinkedHashMap<>();
        ways.forEach((way, judged) -> {
            Map<String, Score> scores = new LinkedHashMap<>();
            scores.put("all", score(judged, each -> true));
            scores.put("nearer is lower", score(judged, each -> each.pair().isLowerNearer()));
            scores.put("nearer is higher", score(judged, each -> !each.pair().isLowerNearer()));
            TreeSet<String> kinds = new TreeSet<>();
            judged.forEach(each -> kinds.add(each.photo().kind()));
            kinds.forEach(kind ->
                    scores.put(kind, score(judged, each -> each.photo().kind().equals(kind))));
            all.put(way, scores);
        });
        System.out.printf("%-18s%8s", "", "pairs");
        all.keySet().forEach(way -> System.out.printf("%14s", way));
        System.out.println();
        Map<String, Score> first = all.values().iterator().next();
        first.forEach((row, score) -> {
            System.out.printf("%-18s%8d", row, score.pairs());
            all.values()
                    .forEach(scores -> System.out.printf(
                            Locale.ROOT,
                            "%14.1f",
                            100 * scores.getOrDefault(row, score).right()));
            System.out.println();
        });
        perPhoto();
        ladder.print();
        Path target = Files.createDirectories(Path.of("target/bench")).resolve("pairs.json");
        Files.writeString(
                target, JsonMapper.shared().writerWithDefaultPrettyPrinter().writeValueAsString(all));
        System.out.println("\nalso in " + target);
    }

    private void perPhoto() {
        Map<String, Map<String, Score>> photos = new TreeMap<>();
        ways.forEach((way, judged) -> judged.stream()
                .map(each -> each.photo().file())
                .distinct()
                .forEach(file -> photos.computeIfAbsent(file, name -> new LinkedHashMap<>())
                        .put(way, score(judged, each -> each.photo().file().equals(file)))));
        System.out.println();
        photos.forEach((file, scores) -> {
            scores.values().forEach(score -> System.out.printf(Locale.ROOT, "%6.0f", 100 * score.right()));
            System.out.println("  " + file);
        });
    }

    private static Score score(List<Judged> judged, Predicate<Judged> which) {
        List<Judged> some = judged.stream().filter(which).toList();
        long right = some.stream().filter(Judged::right).count();
        return new Score(some.size(), some.isEmpty() ? 0 : (double) right / some.size());
    }
}
