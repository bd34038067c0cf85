package app.yubble.core.follow;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Looks for a patch that was hidden, where it is expected first and farther off with every frame. */
final class Search {
    /** Sizes that are tried, against the one it had. */
    private static final double[] SCALES = {1, 0.85, 1.18};
    /** Radius of the patch in the picture in which it is looked for: small, so that it is quick. */
    private static final double DRAWN_RADIUS = 6;
    /** Places that are looked at closely. */
    private static final int PLACES = 4;
    /** Likeness in the small picture from which a place is looked at. */
    private static final double WORTH = 0.55;

    /** Likeness that makes it found where it is expected. */
    private static final double FOUND = 0.8;
    /** The same anywhere. */
    private static final double FOUND_ANYWHERE = 0.92;
    /** Share of the patch and of its middle that must agree. */
    private static final double AGREEING = 0.55;
    /** By how much the next best place must be less like. */
    private static final double DISTINCT = 0.06;

    /** Pixels of a frame 1280 wide, with each frame, within which the expected place holds. */
    private static final double NEAR_GROWS = 1.5;
    /** The same as a share of the way. */
    private static final double NEAR_SHARE = 0.15;
    /** What likeness loses with each such distance from the expected place. */
    private static final double FARTHER = 0.05;
    /** From so many of them on no more. */
    private static final double FARTHEST = 4;
    /** Radii around the expected place that are looked through in the first frame. */
    private static final double REACH = 2.5;
    /** Pixels of a frame 1280 wide by which that grows with each frame. */
    private static final double GROWS = 7;
    /** Frames after which all of the picture is looked through. */
    private static final int EVERYWHERE_AFTER = 36;

    private final PointMotion motion;
    private final double unit;

    Search(PointMotion motion, double unit) {
        this.motion = motion;
        this.unit = unit;
    }

    /** @param near whether it is where it was expected */
    record Hit(Pose pose, boolean near) {}

    /** @param score likeness, less the farther it is from where it is expected */
    private record Candidate(Patch.Found found, boolean near, double score) {}

    private record Place(double x, double y, double scale, double likeness) {}

    /**
     * @param hidden frames since it was seen
     * @param gone how far it is expected to have gone since
     */
    @Nullable
    Hit look(GreyFrame frame, Patch patch, Pose expected, int hidden, double gone) {
        double reach = REACH * patch.radius() * expected.scale() + GROWS * unit * hidden;
        double near = patch.radius() * expected.scale() + NEAR_GROWS * unit * hidden + NEAR_SHARE * gone;
        boolean everywhere = hidden > EVERYWHERE_AFTER;
        List<Candidate> all = new ArrayList<>();
        for (Place each : places(frame, patch, expected, everywhere ? Double.MAX_VALUE : reach)) {
            double factor = each.scale() / expected.scale();
            Patch.Found found =
                    patch.align(frame, expected.movedTo(each.x(), each.y()).enlarged(factor));
            if (like(found, frame)) {
                double off = found.pose().distance(expected);
                all.add(new Candidate(found, off <= near, found.likeness() - FARTHER * Math.min(FARTHEST, off / near)));
            }
        }
        Candidate best =
                all.stream().max(Comparator.comparingDouble(Candidate::score)).orElse(null);
        if (best == null || best.found().likeness() < (best.near() ? FOUND : FOUND_ANYWHERE)) {
            return null;
        }
        Pose pose = best.found().pose();
        boolean distinct = all.stream()
                .noneMatch(each ->
                        each.found().pose().distance(pose) > patch.radius() && each.score() > best.score() - DISTINCT);
        return distinct ? new Hit(pose, best.near()) : null;
    }

    private static boolean like(Patch.Found found, GreyFrame frame) {
        return found.likeness() >= FOUND
                && found.agreeing() >= AGREEING
                && found.middle() >= AGREEING
                && frame.holds(found.pose().x(), found.pose().y());
    }

    /** The places most like it in a small picture. */
    private List<Place> places(GreyFrame frame, Patch patch, Pose expected, double reach) {
        int level = 0;
        while (patch.radius() * expected.scale() / (2 << level) >= DRAWN_RADIUS) {
            level++;
        }
        Region part = around(frame.size(), expected, reach);
        GreyFrame small = frame.crop(part);
        for (int i = 0; i < level; i++) {
            small = small.halved();
        }
        int times = 1 << level;
        List<Place> out = new ArrayList<>();
        for (double each : SCALES) {
            double scale = expected.scale() * each;
            GreyFrame drawn = patch.drawn(scale / times);
            if (drawn.size().width() >= small.size().width()
                    || drawn.size().height() >= small.size().height()) {
                continue;
            }
            Plane likeness = motion.likeness(small, drawn);
            int half = drawn.size().width() / 2;
            for (int i = 0; i < PLACES; i++) {
                int at = highest(likeness);
                double value = likeness.samples()[at];
                if (value < WORTH) {
                    break;
                }
                int x = at % likeness.width();
                int y = at / likeness.width();
                clear(likeness, x, y, half);
                double shift = (times - 1) / 2.0;
                out.add(new Place(
                        part.x() + (x + half) * times + shift, part.y() + (y + half) * times + shift, scale, value));
            }
        }
        out.sort((a, b) -> Double.compare(b.likeness(), a.likeness()));
        return out.subList(0, Math.min(out.size(), 2 * PLACES));
    }

    private static Region around(Size size, Pose expected, double reach) {
        if (reach >= size.longSide()) {
            return Region.all(size);
        }
        int x0 = (int) Math.max(0, Math.min(size.width() - 1, Math.floor(expected.x() - reach)));
        int y0 = (int) Math.max(0, Math.min(size.height() - 1, Math.floor(expected.y() - reach)));
        int x1 = (int) Math.max(x0 + 1, Math.min(size.width(), Math.ceil(expected.x() + reach)));
        int y1 = (int) Math.max(y0 + 1, Math.min(size.height(), Math.ceil(expected.y() + reach)));
        return new Region(x0, y0, x1 - x0, y1 - y0);
    }

    private static int highest(Plane plane) {
        int best = 0;
        for (int i = 1; i < plane.samples().length; i++) {
            if (plane.samples()[i] > plane.samples()[best]) {
                best = i;
            }
        }
        return best;
    }

    private static void clear(Plane plane, int x, int y, int radius) {
        for (int j = Math.max(0, y - radius); j <= Math.min(plane.height() - 1, y + radius); j++) {
            for (int i = Math.max(0, x - radius); i <= Math.min(plane.width() - 1, x + radius); i++) {
                plane.samples()[j * plane.width() + i] = -1;
            }
        }
    }
}
