package app.yubble.core.follow;

import app.yubble.core.clip.Cuts;
import app.yubble.core.raster.Progress;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * Follows a point through a clip from where it was put by hand, forward and backward.
 *
 * <p>How: each stretch between two cuts in which the point was put is followed by itself; beyond a cut it is not looked for. Between two
 * places that were put by hand it is followed from both, and what both say is mixed by how near in time they are; where they differ the
 * nearer holds, unsure.
 */
public final class Tracker {
    /** Width of a frame in whose pixels lengths are given. */
    private static final double USUAL_SIDE = 1280;
    /** A small frame is not looked at in parts of pixels. */
    private static final double LEAST_UNIT = 0.4;
    /** Radii of a patch in pixels of a frame 1280 wide; the first that has enough in it is taken. */
    private static final int[] RADII = {11, 15, 20, 27, 36, 48};
    /** Squared steps of brightness: what it must have in it, see {@link Patch#structure}; by eye on skies, walls and faces. */
    private static final double ENOUGH = 25;
    /** What even the largest must have, or nothing can be told; noise of two steps makes 2. */
    static final double LEAST = 5;
    /** Frames that are held while a clip is gone through backwards: 30 MB at 1280 x 720. */
    private static final int HELD = 32;
    /** Pixels of a frame 1280 wide by which two ways may differ. */
    private static final double SAME = 3;

    private final PointMotion motion;
    private final @Nullable EyeFinder eyes;

    public Tracker(PointMotion motion) {
        this(motion, null);
    }

    /** @param eyes for points that are put on an eye; null for others */
    public Tracker(PointMotion motion, @Nullable EyeFinder eyes) {
        this.motion = motion;
        this.eyes = eyes;
    }

    /**
     * Follows the point.
     *
     * @param cuts frames that are the first after a cut, rising
     * @param anchors at least one, each of another frame
     * @return for each frame of the clip
     */
    public List<TrackPoint> track(GreySource source, List<Integer> cuts, List<Anchor> anchors, Progress progress) {
        List<Anchor> ordered =
                anchors.stream().sorted(Comparator.comparingInt(Anchor::frame)).toList();
        if (ordered.isEmpty() || ordered.get(ordered.size() - 1).frame() >= source.frames()) {
            throw new IllegalArgumentException("a point to follow must be put on a frame of the clip");
        }
        @Nullable TrackPoint[] out = new TrackPoint[source.frames()];
        TreeMap<Integer, List<Anchor>> shots = new TreeMap<>();
        for (Anchor each : ordered) {
            shots.computeIfAbsent(Cuts.from(cuts, each.frame()), none -> new ArrayList<>())
                    .add(each);
        }
        double[] done = {0};
        shots.forEach((from, own) -> {
            int to = Cuts.end(cuts, from, source.frames());
            shot(source, from, to, own, out, () -> {
                progress.at(Math.min(1, ++done[0] / source.frames()));
            });
        });
        return Filled.of(out, ordered);
    }

    private void shot(
            GreySource source, int from, int to, List<Anchor> anchors, @Nullable TrackPoint[] out, Runnable told) {
        double unit = Math.max(LEAST_UNIT, source.size().longSide() / USUAL_SIDE);
        for (int i = 0; i < anchors.size(); i++) {
            Anchor anchor = anchors.get(i);
            GreyFrame[] start = new GreyFrame[1];
            source.each(anchor.frame(), anchor.frame() + 1, (frame, grey) -> start[0] = grey);
            Patch patch = patch(start[0], anchor, unit);
            boolean tellable = patch.structure() >= LEAST;
            int first = i == 0 ? from : anchors.get(i - 1).frame() + 1;
            int end = i == anchors.size() - 1 ? to : anchors.get(i + 1).frame();
            @Nullable TrackPoint[] ahead = new TrackPoint[out.length];
            @Nullable TrackPoint[] back = new TrackPoint[out.length];
            if (tellable) {
                OneEye eye = eyes == null ? null : OneEye.at(eyes, start[0], anchor);
                Walk forward = new Walk(motion, start[0], patch, anchor, eye, unit, ahead);
                source.each(anchor.frame() + 1, end, (frame, grey) -> {
                    told.run();
                    forward.to(frame, grey);
                });
                Walk backward = new Walk(motion, start[0], patch, anchor, eye, unit, back);
                backward(source, first, anchor.frame(), backward, told);
            } else {
                Arrays.fill(ahead, anchor.frame() + 1, end, new TrackPoint(anchor.x(), anchor.y(), true, false));
                Arrays.fill(back, first, anchor.frame(), new TrackPoint(anchor.x(), anchor.y(), true, false));
            }
            boolean inside = start[0].holds(anchor.x(), anchor.y());
            out[anchor.frame()] = new TrackPoint(anchor.x(), anchor.y(), inside, inside && tellable);
            for (int frame = anchor.frame() + 1; frame < end; frame++) {
                out[frame] = ahead[frame];
            }
            for (int frame = first; frame < anchor.frame(); frame++) {
                TrackPoint other = out[frame];
                TrackPoint own = Objects.requireNonNull(back[frame]);
                out[frame] = i == 0 || other == null
                        ? own
                        : mixed(anchors.get(i - 1), anchor, frame, other, own, SAME * unit);
            }
        }
    }

    private static Patch patch(GreyFrame frame, Anchor anchor, double unit) {
        Patch out = null;
        for (int radius : RADII) {
            out = Patch.of(frame, anchor.x(), anchor.y(), (int) Math.max(5, Math.round(radius * unit)));
            if (out.structure() >= ENOUGH) {
                break;
            }
        }
        return Objects.requireNonNull(out);
    }

    /** From {@code to} (exclusive) down to {@code from}. */
    private static void backward(GreySource source, int from, int to, Walk walk, Runnable told) {
        for (int end = to; end > from; end -= HELD) {
            List<GreyFrame> held = new ArrayList<>();
            int start = Math.max(from, end - HELD);
            source.each(start, end, (frame, grey) -> held.add(grey));
            for (int i = held.size() - 1; i >= 0; i--) {
                told.run();
                walk.to(start + i, held.get(i));
            }
        }
    }

    private static TrackPoint mixed(
            Anchor before, Anchor after, int frame, TrackPoint ahead, TrackPoint back, double same) {
        double share = (double) (frame - before.frame()) / (after.frame() - before.frame());
        double far = Math.hypot(ahead.x() - back.x(), ahead.y() - back.y());
        if (ahead.sure() != back.sure()) {
            return ahead.sure() ? ahead : back;
        }
        if (ahead.visible() != back.visible()) {
            return ahead.visible() ? ahead : back;
        }
        if (ahead.visible() && far > same) {
            TrackPoint nearer = share < 0.5 ? ahead : back;
            return new TrackPoint(nearer.x(), nearer.y(), true, false);
        }
        return new TrackPoint(
                ahead.x() + share * (back.x() - ahead.x()),
                ahead.y() + share * (back.y() - ahead.y()),
                ahead.visible(),
                ahead.sure());
    }
}
