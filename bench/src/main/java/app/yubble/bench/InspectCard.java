package app.yubble.bench;

import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.inspect.EdgeInspector;
import app.yubble.core.inspect.Fault;
import app.yubble.core.raster.BoxMedian;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Quality;
import app.yubble.core.subject.Subject;
import app.yubble.core.touchup.Stroke;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.picture.PictureReader;
import app.yubble.vision.DepthEngines;
import app.yubble.vision.ModelFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * Whether the edge inspector finds what is wrong with estimated depth: the ten worst places of each scorecard scene, by
 * exact depth, against the first ten of the inspector's list.
 */
final class InspectCard {
    private static final int FIRST = 10;
    /** Of the longer side: what is wrong over more than this is the scene's proportions, not a place. */
    private static final double PLACE = 0.08;
    /** Of the exact map's range from 2 % to 98 %. */
    private static final double WRONG = 0.12;
    /** Of the picture. */
    private static final double SMALLEST = 0.0002;
    /** Share of a fault's dabs that lie in a place, from which it is found. */
    private static final double INSIDE = 0.5;
    /** Pixels that a dab may lie beside a place. */
    private static final int BESIDE = 4;

    private InspectCard() {}

    /** @param weight what it is off by, summed */
    record Place(boolean[] pixels, int count, double weight) {}

    static void main(String[] arguments) throws IOException {
        Path folder = Path.of(arguments.length > 0 ? arguments[0] : "bench/scenes");
        DepthEngines engines =
                new DepthEngines(new ModelFolder(Path.of(System.getProperty("yubble.models", "var/models"))));
        int found = 0;
        int all = 0;
        int meant = 0;
        int listed = 0;
        System.out.printf("%-12s%8s%8s%10s%8s%n", "scene", "places", "found", "first ten", "right");
        for (String scene : DepthCard.SCENES) {
            Picture photo =
                    PictureReader.DEFAULT.read(folder.resolve(scene + ".jpg")).picture();
            Plane exact = new DepthFileReader(PictureReader.DEFAULT)
                    .read(Files.readAllBytes(folder.resolve(scene + "-depth.png")), photo.size());
            DepthEstimate estimate =
                    engines.named("learned").orElseThrow().estimate(photo, Quality.BEST, Progress.NONE);
            Size size = photo.size().fitting(EdgeInspector.SIDE);
            Plane map = Resample.toSize(DepthEdges.follow(estimate, photo, 1), size);
            Plane truth = Resample.toSize(exact, size);
            List<Place> worst = worst(map, truth);
            List<Fault> faults = faults(Resample.toSize(photo, size), map, estimate.subject());
            boolean[] hit = new boolean[worst.size()];
            int right = 0;
            for (Fault fault : faults) {
                int place = place(fault, worst, size);
                if (place >= 0) {
                    hit[place] = true;
                    right++;
                }
            }
            int hits = 0;
            for (boolean each : hit) {
                hits += each ? 1 : 0;
            }
            System.out.printf("%-12s%8d%8d%10d%8d%n", scene, worst.size(), hits, faults.size(), right);
            found += hits;
            all += worst.size();
            meant += right;
            listed += faults.size();
        }
        System.out.printf(
                Locale.ROOT, "%.0f %% of the worst places are in the list's first ten, ", 100.0 * found / all);
        System.out.printf(Locale.ROOT, "%.0f %% of these are such places%n", 100.0 * meant / Math.max(1, listed));
    }

    private static List<Fault> faults(Picture picture, Plane map, @Nullable Subject subject) {
        List<Fault> faults =
                EdgeInspector.faults(picture, map, new Plane(map.size()), subject == null ? null : subject.matte());
        return faults.subList(0, Math.min(FIRST, faults.size()));
    }

    /** Connected places that are too near or too far against what is around them, the worst first. */
    static List<Place> worst(Plane map, Plane exact) {
        double[] line = DepthScore.fit(map, exact);
        Plane off = new Plane(map.size());
        float[] error = off.samples();
        double span = DepthScore.percentile(exact, 0.98) - DepthScore.percentile(exact, 0.02);
        for (int i = 0; i < error.length; i++) {
            double right = (line[0] * map.samples()[i] + line[1] - exact.samples()[i]) / span;
            error[i] = (float) Math.max(0, Math.min(1, 0.5 + right / 2));
        }
        int radius = (int) (PLACE * map.size().longSide());
        float[] around = BoxMedian.of(off, radius).samples();
        for (int i = 0; i < error.length; i++) {
            error[i] = 2 * (error[i] - around[i]);
        }
        List<Place> places = new ArrayList<>();
        boolean[] seen = new boolean[error.length];
        for (int i = 0; i < error.length; i++) {
            if (!seen[i] && Math.abs(error[i]) > WRONG) {
                Place place = grown(error, i, seen, map.width());
                if (place.count() > SMALLEST * error.length) {
                    places.add(place);
                }
            }
        }
        places.sort(Comparator.comparingDouble(Place::weight).reversed());
        return places.subList(0, Math.min(FIRST, places.size()));
    }

    private static Place grown(float[] error, int start, boolean[] seen, int width) {
        boolean[] pixels = new boolean[error.length];
        Deque<Integer> open = new ArrayDeque<>(List.of(start));
        seen[start] = true;
        int count = 0;
        double weight = 0;
        while (!open.isEmpty()) {
            int i = open.pop();
            pixels[i] = true;
            count++;
            weight += Math.abs(error[i]);
            int x = i % width;
            int[] beside = {x > 0 ? i - 1 : -1, x < width - 1 ? i + 1 : -1, i - width, i + width};
            for (int to : beside) {
                if (to >= 0
                        && to < error.length
                        && !seen[to]
                        && error[to] * error[start] > 0
                        && Math.abs(error[to]) > WRONG) {
                    seen[to] = true;
                    open.push(to);
                }
            }
        }
        return new Place(pixels, count, weight);
    }

    /** The place that a fault means, or -1. */
    static int place(Fault fault, List<Place> places, Size size) {
        List<Stroke> dabs = fault.proposal().strokes();
        for (int k = 0; k < places.size(); k++) {
            int in = 0;
            for (Stroke dab : dabs) {
                int x = (int) (dab.x(0) * size.width());
                int y = (int) (dab.y(0) * size.height());
                in += touches(places.get(k), x, y, size) ? 1 : 0;
            }
            if (in >= INSIDE * dabs.size()) {
                return k;
            }
        }
        return -1;
    }

    private static boolean touches(Place place, int x, int y, Size size) {
        for (int py = Math.max(0, y - BESIDE); py <= Math.min(size.height() - 1, y + BESIDE); py++) {
            for (int px = Math.max(0, x - BESIDE); px <= Math.min(size.width() - 1, x + BESIDE); px++) {
                if (place.pixels()[py * size.width() + px]) {
                    return true;
                }
            }
        }
        return false;
    }
}
