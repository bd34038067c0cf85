package app.yubble.core.inspect;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Finds the places of a depth map that most probably need a touch-up, the most visible first; not those that do not show. */
public final class EdgeInspector {
    /** Longer side of the picture to inspect. */
    public static final int SIDE = 1024;

    /** Places in one list: more, and nobody goes through them. */
    private static final int MOST = 40;
    // Less difference of blur, in pixels, is not seen; without any blur all faults count.
    private static final double LEAST_CHANGE = 0.25;
    /** Share of a place that may belong to one that is listed already. */
    private static final double OVERLAP = 0.25;
    /** Pixels of blur change beyond which a fault is not seen any better. */
    private static final double MOST_RADIUS = 20;
    /** Pixels at the inspector's size up to which a part is called thin, when it is long as well. */
    private static final double THIN_WIDTH = 9;
    /** Over its width. */
    private static final double THIN_LENGTH = 3.5;
    /** Share of its border from which a piece is all before, or all behind, what is around it. */
    private static final double AROUND = 0.6;

    private EdgeInspector() {}

    /**
     * @param picture linear light, about {@value #SIDE} pixels wide
     * @param nearness of the same size, after all touch-ups
     * @param field blur radius of each pixel in pixels of this size
     * @param matte the subject's, of any size, where depth was made with it; else null
     */
    public static List<Fault> faults(Picture picture, Plane nearness, Plane field, @Nullable Plane matte) {
        List<Suspect> all = new ArrayList<>();
        float[][] colours = Segments.colours(picture);
        List<int[]> partings = List.of(
                Segments.of(picture, 1, false),
                Segments.of(picture, 6, false),
                Segments.of(picture, 3, true),
                new int[nearness.samples().length]);
        for (int[] segments : partings) {
            all.addAll(new Suspicion(segments, colours, nearness).suspects());
        }
        all.addAll(Bars.suspects(colours, nearness, Suspicion.step(nearness)));
        List<Suspect> undecided = matte == null
                ? List.of()
                : Undecided.suspects(colours, nearness, Resample.toSize(matte, nearness.size()));
        all.addAll(undecided);
        all.sort(Comparator.comparingDouble(Suspect::gain).reversed());
        int[] taken = new int[nearness.samples().length];
        List<Suspect> accepted = new ArrayList<>();
        List<Fault> out = new ArrayList<>();
        boolean blurred = blurs(field);
        for (Suspect each : all) {
            if (blurred && blurChange(each, nearness, field) < LEAST_CHANGE) {
                continue;
            }
            if (isNew(each, accepted, taken, nearness.width())) {
                accepted.add(each);
                for (int i : each.pixels()) {
                    taken[i] = accepted.size();
                }
                out.add(fault(each, undecided.contains(each), nearness, field));
            }
        }
        out.sort(Comparator.comparingDouble(Fault::visibility).reversed());
        return List.copyOf(out.subList(0, Math.min(MOST, out.size())));
    }

    private static boolean blurs(Plane field) {
        for (float radius : field.samples()) {
            if (Math.abs(radius) > LEAST_CHANGE) {
                return true;
            }
        }
        return false;
    }

    /** Not known already, from another scale or from the other side. */
    private static boolean isNew(Suspect suspect, List<Suspect> accepted, int[] taken, int width) {
        int known = 0;
        for (int i : suspect.pixels()) {
            known += taken[i] > 0 ? 1 : 0;
            for (int to : new int[] {i - 2, i + 2, i - 2 * width, i + 2 * width}) {
                if (to >= 0 && to < taken.length && taken[to] > 0 && suspect.answers(accepted.get(taken[to] - 1))) {
                    return false;
                }
            }
        }
        return known <= OVERLAP * suspect.pixels().length;
    }

    private static Fault fault(Suspect suspect, boolean ofMatte, Plane nearness, Plane field) {
        Size size = nearness.size();
        int x0 = size.width();
        int y0 = size.height();
        int x1 = 0;
        int y1 = 0;
        for (int i : suspect.pixels()) {
            x0 = Math.min(x0, i % size.width());
            x1 = Math.max(x1, i % size.width() + 1);
            y0 = Math.min(y0, i / size.width());
            y1 = Math.max(y1, i / size.width() + 1);
        }
        Region box = new Region(x0, y0, x1 - x0, y1 - y0);
        boolean[] inside = new boolean[box.width() * box.height()];
        double change = 0;
        for (int i : suspect.pixels()) {
            inside[(i / size.width() - y0) * box.width() + i % size.width() - x0] = true;
            change += Math.abs(nearness.samples()[i] - suspect.target());
        }
        List<Stroke> dabs = Dabs.over(inside, box, size);
        Touchup proposal = Touchup.of(
                "proposal",
                Touchup.Action.MATCH,
                1,
                Math.max(0, Math.min(1, suspect.target())),
                dabs.toArray(new Stroke[0]));
        double visible = Math.min(MOST_RADIUS, blurChange(suspect, nearness, field));
        return new Fault(
                ofMatte ? Fault.Kind.MATTE : kind(suspect, box),
                (double) x0 / size.width(),
                (double) y0 / size.height(),
                (double) box.width() / size.width(),
                (double) box.height() / size.height(),
                dabs.get(0).x(0),
                dabs.get(0).y(0),
                suspect.gain() * (visible + 0.1 * change / suspect.pixels().length),
                proposal);
    }

    private static Fault.Kind kind(Suspect suspect, Region box) {
        double mean = 2.0 * suspect.pixels().length / Math.max(1, suspect.around());
        if (mean < THIN_WIDTH && Math.max(box.width(), box.height()) > THIN_LENGTH * mean) {
            return Fault.Kind.THIN;
        }
        return suspect.nearer() > AROUND
                ? Fault.Kind.ISLAND
                : suspect.nearer() < -AROUND ? Fault.Kind.HOLE : Fault.Kind.EDGE;
    }

    /** By how much a suspect would be blurred differently, in pixels: read where the picture has its new depth already. */
    private static double blurChange(Suspect suspect, Plane nearness, Plane field) {
        double own = 0;
        for (int i : suspect.pixels()) {
            own += Math.abs(field.samples()[i]) / suspect.pixels().length;
        }
        double other = 0;
        double least = Double.MAX_VALUE;
        for (int i = 0; i < field.samples().length; i += 7) {
            double off = Math.abs(nearness.samples()[i] - suspect.target());
            if (off < least) {
                least = off;
                other = Math.abs(field.samples()[i]);
            }
        }
        return Math.abs(own - other);
    }
}
