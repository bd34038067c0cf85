package app.yubble.bench;

import app.yubble.core.clip.DepthOverTime;
import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.keep.Keeper;
import app.yubble.core.keep.Pointed;
import app.yubble.core.keep.SceneSource;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.refocus.HeldPhoto;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageCache;
import app.yubble.core.subject.MatteRefiner;
import app.yubble.core.subject.Quality;
import app.yubble.media.clip.GreyClip;
import app.yubble.media.clip.PlaneFiles;
import app.yubble.vision.DepthEngines;
import app.yubble.vision.InverseSearchFlow;
import app.yubble.vision.ModelFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.IntStream;

/** A kept subject against its exact mask: after one click, and after the two worst frames have been put right. */
final class KeepCard {
    private final ClipScene scene;
    private final List<SceneSource.Scene> small = new ArrayList<>();
    private final List<Picture> full = new ArrayList<>();
    private final List<Plane> exact = new ArrayList<>();

    private KeepCard(String name, boolean estimated, Path temporary) throws IOException {
        Path description = Path.of("bench/clips/" + name + ".json");
        scene = ClipScene.read(description, Integer.MAX_VALUE, temporary);
        Size size = scene.clip().sheet().info().size().fitting(SceneSource.SIDE);
        List<DepthEstimate> depth = estimated(temporary);
        scene.clip().each(0, scene.frames(), (frame, picture) -> {
            full.add(picture);
            Plane nearness = estimated
                    ? new RefocusLine(StageCache.keepingAll())
                            .nearness(
                                    new HeldPhoto(
                                            picture,
                                            depth.get(frame),
                                            Map.of(),
                                            Map.of(),
                                            DepthEdges.Detail.STEADY,
                                            frame),
                                    DepthChoice.of(DepthChoice.Source.ESTIMATED),
                                    size)
                    : Resample.toSize(scene.exact(frame), size);
            Plane matte = depth.get(frame).clearMatte();
            small.add(new SceneSource.Scene(
                    Resample.toSize(picture, size), nearness, matte == null ? null : Resample.toSize(matte, size)));
        });
        new GreyClip(Path.of("bench/clips/" + name + "-mask.mkv"), scene.clip().sheet())
                .each(0, scene.frames(), (frame, grey) -> {
                    Plane mask = new Plane(grey.size());
                    for (int i = 0; i < mask.samples().length; i++) {
                        mask.samples()[i] = (grey.samples()[i] & 0xff) / 255f;
                    }
                    exact.add(mask);
                });
    }

    private List<DepthEstimate> estimated(Path temporary) throws IOException {
        ModelFolder models = new ModelFolder(Path.of(System.getProperty("yubble.models", "var/models")));
        DepthEstimate[] out = new DepthEstimate[scene.frames()];
        try (PlaneFiles shelves = new PlaneFiles(temporary.resolve("shelves"))) {
            new DepthOverTime(new DepthEngines(models).automatic(), new InverseSearchFlow(), Quality.DRAFT)
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
                                    out[frame] = estimate;
                                }
                            },
                            Progress.NONE);
        }
        return List.of(out);
    }

    private SceneSource source() {
        return new SceneSource() {
            @Override
            public Size size() {
                return small.get(0).picture().size();
            }

            @Override
            public int frames() {
                return small.size();
            }

            @Override
            public void each(int from, int to, Taker taker) {
                for (int frame = from; frame < to; frame++) {
                    taker.take(frame, small.get(frame));
                }
            }
        };
    }

    static void main(String[] arguments) throws IOException {
        boolean exactOnly = arguments.length > 0 && arguments[0].equals("exact");
        for (boolean estimated : exactOnly ? new boolean[] {false} : new boolean[] {false, true}) {
            System.out.println(estimated ? "estimated depth (draft)" : "exact depth");
            run(new KeepCard("turning", estimated, Files.createTempDirectory("yubble-bench-")));
        }
    }

    private static void run(KeepCard card) {
        int clicked = 5;
        // On the shirt.
        Plane first = Pointed.at(card.small.get(clicked), 0.38, 0.8);
        card.scored("exact at first", List.of(new Keeper.Seed(clicked, card.hard(clicked))));
        List<Keeper.Seed> seeds = new ArrayList<>(List.of(new Keeper.Seed(clicked, first)));
        double[] once = card.scored("one click", seeds);
        IntStream.range(0, once.length)
                .filter(i -> Math.abs(i - clicked) > 2)
                .boxed()
                .sorted(Comparator.comparingDouble(i -> once[i]))
                .reduce(List.<Integer>of(), (worst, i) -> further(worst, i), (a, b) -> a)
                .forEach(i -> seeds.add(new Keeper.Seed(i, card.hard(i))));
        card.scored("two corrections", seeds);
    }

    /** The two worst frames that lie apart. */
    private static List<Integer> further(List<Integer> worst, int frame) {
        boolean apart = worst.stream().allMatch(each -> Math.abs(each - frame) > 8);
        if (worst.size() == 2 || !apart) {
            return worst;
        }
        List<Integer> out = new ArrayList<>(worst);
        out.add(frame);
        return out;
    }

    private Plane hard(int frame) {
        Plane out = Resample.toSize(exact.get(frame), small.get(0).picture().size());
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = out.samples()[i] > 0.5f ? 1 : 0;
        }
        return out;
    }

    private double[] scored(String name, List<Keeper.Seed> seeds) {
        Plane[] found = new Plane[small.size()];
        long start = System.nanoTime();
        for (int k = 0; k < seeds.size(); k++) {
            new Keeper(new InverseSearchFlow(), false)
                    .keep(
                            source(),
                            List.of(),
                            seeds.subList(0, k),
                            seeds.get(k),
                            Progress.NONE,
                            (i, mask) -> found[i] = mask);
        }
        double seconds = (System.nanoTime() - start) / 1e9;
        double[] likeness = new double[found.length];
        for (int i = 0; i < found.length; i++) {
            found[i] = MatteRefiner.refine(found[i], full.get(i));
            likeness[i] = likeness(found[i], exact.get(i));
        }
        System.out.printf(
                Locale.ROOT,
                "%-18s mean %.3f, least %.3f, under 0.93: %d, under 0.97: %d of %d; flicker %.2f of the exact mask's; %.1f fps%n",
                name,
                Arrays.stream(likeness).average().orElse(0),
                Arrays.stream(likeness).min().orElse(0),
                Arrays.stream(likeness).filter(each -> each < 0.93).count(),
                Arrays.stream(likeness).filter(each -> each < 0.97).count(),
                found.length,
                flicker(Arrays.asList(found)) / flicker(exact),
                found.length / seconds);
        for (int i = 0; i < found.length; i++) {
            System.out.printf(Locale.ROOT, "%.3f%s", likeness[i], i % 12 == 11 ? "\n" : " ");
        }
        System.out.println();
        return likeness;
    }

    /** What both have over what either has; 1 where both have nothing. */
    private static double likeness(Plane a, Plane b) {
        double both = 0;
        double either = 0;
        for (int i = 0; i < a.samples().length; i++) {
            both += Math.min(a.samples()[i], b.samples()[i]);
            either += Math.max(a.samples()[i], b.samples()[i]);
        }
        return either < 1 ? 1 : both / either;
    }

    /** How much masks change back and forth from frame to frame. */
    private static double flicker(List<Plane> masks) {
        double sum = 0;
        for (int k = 1; k < masks.size() - 1; k++) {
            float[] a = masks.get(k - 1).samples();
            float[] b = masks.get(k).samples();
            float[] c = masks.get(k + 1).samples();
            for (int i = 0; i < a.length; i++) {
                // What is the same before and after, and another between.
                sum += Math.max(0, Math.min(Math.abs(b[i] - a[i]), Math.abs(b[i] - c[i])) - Math.abs(a[i] - c[i]));
            }
        }
        return sum;
    }
}
