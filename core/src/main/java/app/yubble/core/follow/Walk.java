package app.yubble.core.follow;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.Iterator;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A point followed in one direction of time from where it was put.
 *
 * <p>How: points around it go along with each frame there and back (Z. Kalal, K. Mikolajczyk and J. Matas, "Forward-Backward Error",
 * ICPR 2010), which tells where the patch is nearly; then it is aligned. The newest patch is aligned first and the first one from there,
 * whose place is taken when it is near (I. Matthews, T. Ishikawa and S. Baker, "The Template Update Problem", PAMI 26, 2004). The newest is
 * taken anew only when size, turn or appearance have changed and all of it is seen. Limits on likeness were set on the scenes of
 * {@code bench follow}.
 */
final class Walk {
    /** Pixels of a frame 1280 wide by which there and back may miss. */
    private static final double MISSES = 1;
    /** Pixels by which the points' median and the patch may differ when both follow one thing. */
    private static final double TOGETHER = 1.5;

    /** The same in radii of the patch. */
    private static final double TOGETHER_RADII = 1 / 6.0;
    /** By how much another beginning must end more like to be taken. */
    private static final double CLEARLY = 0.05;

    /** Likeness from which the point counts as seen. */
    private static final double SEEN = 0.6;
    /** The same of the share of the middle that agrees. */
    private static final double SEEN_MIDDLE = 0.5;
    /** Likeness from which it is sure. */
    private static final double SURE = 0.8;
    /** The same of the patch that agrees. */
    private static final double SURE_AGREEING = 0.6;
    /** The same of its middle. */
    private static final double SURE_MIDDLE = 0.7;

    /** Pixels of a frame 1280 wide by which points and patch may differ where it is sure. */
    private static final double SURE_OFF = 3;
    /** The same in radii of the patch. */
    private static final double SURE_OFF_RADII = 1 / 3.0;
    /** No patch gets so many times larger or smaller from one frame to the next. */
    private static final double MOST_STEP = 1.5;

    /** The first patch is taken for the place when it is as like as the newest but for this much. */
    private static final double FIRST_BEHIND = 0.08;
    /** Radii by which the first patch may correct. */
    private static final double CORRECTS = 0.3;
    /** The first patch is asked between this size and its inverse. */
    private static final double FIRST_SMALLEST = 0.45;

    /** The newest patch is renewed when it has become larger or smaller by this. */
    private static final double RENEW_SCALE = 1.2;
    /** In radians: 12 degrees. */
    private static final double RENEW_TURN = 0.21;
    /** When it is less like than this. */
    private static final double RENEW_LIKENESS = 0.9;
    /** Only when so much of it agrees. */
    private static final double RENEW_AGREEING = 0.85;
    /** Frames between two renewals for likeness. */
    private static final int RENEW_AFTER = 4;

    /** Frames kept to go back to when what was hidden is found. */
    private static final int KEPT = 32;
    /** Share of its speed that something is expected to keep with each frame while it is hidden. */
    private static final double KEEPS_SPEED = 0.98;
    /** Frames after which one knows how fast it goes. */
    private static final int SPEED_KNOWN = 3;
    /** Radii by which what is less like may stray from where it is expected; a pole that passes takes nothing along. */
    private static final double STRAYS = 0.5;
    /** The same as a share of its speed. */
    private static final double STRAYS_SPEED = 0.35;
    /** Radii by which what is like may stray: farther off it is a twin. */
    private static final double STRAYS_LIKE = 1.5;
    /** The same as a share of its speed. */
    private static final double STRAYS_SPEED_LIKE = 0.7;
    /** Times that it is expected to have got larger or smaller while it was hidden, at most. */
    private static final double MOST_GROWTH = 2;
    /** Hidden frames of which each is looked through. */
    private static final int LOOKS_OFTEN = 24;
    /** After them every so many: those between are gone back to when it is found. */
    private static final int LOOKS_EVERY = 3;
    /** Share of the newest growth in what is expected next. */
    private static final double NEW_GROWTH = 0.15;
    /** Share of the newest movement in what is expected next. */
    private static final double NEW_SPEED = 0.6;

    private final PointMotion motion;
    private final double unit;
    private final Patch first;
    private final @Nullable OneEye eye;
    private final @Nullable TrackPoint[] out;

    private GreyFrame before;
    private Patch newest;
    /** How the newest patch was turned and enlarged against the first when it was taken. */
    private Pose taken;
    /** Of the newest patch. */
    private Pose pose;

    private Speed speed = Speed.NONE;

    private int sinceRenewed;
    /** Frames that it was seen in a row. */
    private int walked;
    /** Frames since it was seen. */
    private int hidden;

    /** Whether it was found where it was not expected: it may be something else that looks like it. */
    private boolean doubtful;

    /** Whether a face told where it is and what it looked like first has not: off by some of the face's width. */
    private boolean rough;

    /** The frames since which it is doubtful, of an eye. */
    private final List<Integer> doubted = new ArrayList<>();

    private final Deque<Kept> kept = new ArrayDeque<>();

    private record Kept(int frame, GreyFrame grey) {}

    /**
     * How it goes from one frame to the next.
     *
     * @param growth by how much it gets larger
     */
    private record Speed(double across, double down, double growth) {
        static final Speed NONE = new Speed(0, 0, 1);

        double length() {
            return Math.hypot(across, down);
        }

        /** Where a patch is after so many frames. */
        Pose after(Pose pose, double frames) {
            double factor = Math.max(1 / MOST_GROWTH, Math.min(MOST_GROWTH, Math.pow(growth, frames)));
            return pose.movedTo(pose.x() + frames * across, pose.y() + frames * down)
                    .enlarged(factor);
        }

        Speed reversed() {
            return new Speed(-across, -down, 1 / growth);
        }

        /** With some of what was seen last. */
        Speed with(Pose from, Pose to) {
            return new Speed(
                    across + NEW_SPEED * (to.x() - from.x() - across),
                    down + NEW_SPEED * (to.y() - from.y() - down),
                    growth + NEW_GROWTH * (to.scale() / from.scale() - growth));
        }
    }

    /**
     * @param eye on which it was put, if it was
     * @param out modified: where the point is at each frame that was walked
     * @param unit pixels of these frames in one of a frame 1280 wide
     */
    Walk(
            PointMotion motion,
            GreyFrame start,
            Patch first,
            Anchor anchor,
            @Nullable OneEye eye,
            double unit,
            @Nullable TrackPoint[] out) {
        this.motion = motion;
        this.eye = eye;
        this.unit = unit;
        this.first = first;
        this.out = out;
        before = start;
        newest = first;
        pose = Pose.at(anchor.x(), anchor.y());
        taken = pose;
    }

    /** Goes on to the next frame. */
    void to(int frame, GreyFrame grey) {
        if (hidden == 0) {
            Step step = step(before, grey, pose, speed);
            if (step.seen()) {
                go(frame, grey, step);
            } else {
                lose(frame, grey);
            }
        } else {
            hidden++;
            lookFor(frame, grey);
        }
        if (doubtful && hidden == 0) {
            confirm(frame, grey);
        }
        before = grey;
    }

    /** An eye that was found where it was not expected may be the other one: its face tells. */
    private void confirm(int frame, GreyFrame grey) {
        OneEye own = eye;
        if (own == null) {
            return;
        }
        OneEye.Hit hit = doubted.size() % LOOKS_EVERY == 0 ? own.look(grey, pose.times(taken), doubted.size()) : null;
        if (hit == null || !hit.sure()) {
            doubted.add(frame);
            return;
        }
        if (!own.isOn(hit, pose)) {
            doubted.forEach(each -> out[each] = TrackPoint.guessed(hit.x(), hit.y()));
            pose = take(grey, hit);
            walked = 0;
        }
        doubtful = false;
        doubted.clear();
        out[frame] = new TrackPoint(pose.x(), pose.y(), true, !rough);
    }

    /**
     * A try at a frame.
     *
     * @param reference the pose of the first patch
     * @param together whether points and patch say the same
     */
    private record Step(Patch.Found found, Pose reference, boolean seen, boolean sure, boolean together) {}

    private Step step(GreyFrame from, GreyFrame to, Pose start, Speed by) {
        Pose expected = by.after(start, 1);
        Pose carried = new Constellation(newest, start, expected).in(motion, from, to, MISSES * unit);
        Patch.Found best = newest.align(to, carried == null ? expected : carried);
        if (best.likeness() < SURE) {
            Patch.Found other = newest.align(to, carried == null ? start : expected);
            best = other.likeness() > best.likeness() + CLEARLY ? other : best;
        }
        double off = carried == null ? newest.radius() : best.pose().distance(carried);
        Pose reference = best.pose().times(taken);
        Patch.Found corrected = asked(to, reference, best);
        Pose place = corrected == null
                ? best.pose()
                : best.pose().movedTo(corrected.pose().x(), corrected.pose().y());
        Patch.Found found = new Patch.Found(place, best.likeness(), best.agreeing(), best.middle(), best.weights());
        boolean inside = to.holds(place.x(), place.y());
        boolean seen = inside
                && expected(found, expected, by.length())
                && found.likeness() >= SEEN
                && found.middle() >= SEEN_MIDDLE
                && sane(best.pose(), start);
        boolean sure = seen
                && !doubtful
                && (!rough || corrected != null)
                && newest.structure() >= Tracker.LEAST
                && found.likeness() >= SURE
                && found.agreeing() >= SURE_AGREEING
                && found.middle() >= SURE_MIDDLE
                && off <= Math.max(SURE_OFF * unit, SURE_OFF_RADII * newest.radius());
        boolean together = off <= Math.max(TOGETHER * unit, TOGETHER_RADII * newest.radius());
        return new Step(found, corrected == null ? reference : corrected.pose(), seen, sure, together);
    }

    /** Whether it lies where it may be; what is like it but less so must lie nearer. */
    private boolean expected(Patch.Found found, Pose expected, double speed) {
        if (walked < SPEED_KNOWN) {
            return true;
        }
        boolean like = found.likeness() >= SURE;
        double radius = newest.radius() * found.pose().scale();
        double most = like
                ? Math.max(STRAYS_LIKE * radius, STRAYS_SPEED_LIKE * speed)
                : Math.max(STRAYS * radius, STRAYS_SPEED * speed);
        return found.pose().distance(expected) <= most;
    }

    private static boolean sane(Pose now, Pose before) {
        double factor = now.scale() / before.scale();
        return factor > 1 / MOST_STEP && factor < MOST_STEP;
    }

    /** Where the first patch says it is, when it can tell. */
    private Patch.@Nullable Found asked(GreyFrame frame, Pose reference, Patch.Found found) {
        if (newest == first || reference.scale() < FIRST_SMALLEST || reference.scale() > 1 / FIRST_SMALLEST) {
            return null;
        }
        Patch.Found own = first.align(frame, reference);
        boolean near = own.pose().distance(found.pose())
                <= CORRECTS * newest.radius() * found.pose().scale();
        return near && own.likeness() >= Math.max(SURE, found.likeness() - FIRST_BEHIND) ? own : null;
    }

    private void go(int frame, GreyFrame grey, Step step) {
        Pose now = step.found().pose();
        speed = speed.with(pose, now);
        pose = now;
        rough &= !step.sure();
        out[frame] = new TrackPoint(now.x(), now.y(), true, step.sure());
        if (step.together()) {
            newest.learn(step.found());
        }
        renew(grey, step);
    }

    private void renew(GreyFrame grey, Step step) {
        sinceRenewed++;
        walked++;
        double scale = pose.scale();
        boolean changed = scale > RENEW_SCALE || scale < 1 / RENEW_SCALE || Math.abs(pose.turn()) > RENEW_TURN;
        boolean faded = step.found().likeness() < RENEW_LIKENESS && sinceRenewed >= RENEW_AFTER;
        if ((changed || faded) && step.sure() && step.found().agreeing() >= RENEW_AGREEING) {
            taken = step.reference();
            Patch old = newest;
            newest = Patch.of(grey, pose.x(), pose.y(), first.radius());
            newest.trustAs(old);
            pose = Pose.at(pose.x(), pose.y());
            sinceRenewed = 0;
        }
    }

    private void lose(int frame, GreyFrame grey) {
        hidden = 1;
        walked = 0;
        kept.clear();
        lookFor(frame, grey);
    }

    private void lookFor(int frame, GreyFrame grey) {
        double reach = (1 - Math.pow(KEEPS_SPEED, hidden)) / (1 - KEEPS_SPEED);
        Pose expected = speed.after(pose, reach);
        Search.Hit hit = hidden > LOOKS_OFTEN && hidden % LOOKS_EVERY != 0 ? null : found(grey, expected);
        if (hit == null && hidden % LOOKS_EVERY == 0) {
            hit = byFace(grey, expected);
        }
        if (hit == null) {
            out[frame] = TrackPoint.guessed(expected.x(), expected.y());
            keep(frame, grey);
            return;
        }
        doubtful |= !hit.near();
        walked = hit.near() ? SPEED_KNOWN : 0;
        speed = new Speed((hit.pose().x() - pose.x()) / hidden, (hit.pose().y() - pose.y()) / hidden, speed.growth());
        pose = hit.pose();
        hidden = 0;
        out[frame] = new TrackPoint(pose.x(), pose.y(), true, !doubtful && !rough);
        goBack(grey);
    }

    /** By the newest patch, else by the first, which is the newest then. */
    private Search.@Nullable Hit found(GreyFrame grey, Pose expected) {
        double gone = expected.distance(pose);
        Search search = new Search(motion, unit);
        Search.Hit hit = search.look(grey, newest, expected, hidden, gone);
        if (hit == null && newest != first) {
            hit = search.look(grey, first, expected.times(taken), hidden, gone);
            if (hit != null) {
                newest = first;
                rough = false;
                taken = Pose.at(0, 0);
            }
        }
        return hit;
    }

    /** By the face around it: what it looks like now is taken anew, for its head may have turned. */
    private Search.@Nullable Hit byFace(GreyFrame grey, Pose expected) {
        Pose reference = expected.times(taken);
        OneEye.Hit hit = eye == null ? null : eye.look(grey, reference, hidden);
        if (hit == null || !grey.holds(hit.x(), hit.y())) {
            return null;
        }
        return new Search.Hit(take(grey, hit), hit.sure());
    }

    /** What it looks like where a face says it is; exactly where it looks as it did first, when that can be told. */
    private Pose take(GreyFrame grey, OneEye.Hit hit) {
        Pose told = Pose.at(hit.x(), hit.y()).enlarged(hit.scale());
        Patch.Found own = first.align(grey, told);
        rough = own.likeness() < SURE || own.pose().distance(told) > first.radius() * hit.scale();
        Pose place = rough ? told : own.pose();
        newest = Patch.of(grey, place.x(), place.y(), first.radius());
        taken = Pose.at(0, 0).enlarged(hit.scale());
        sinceRenewed = 0;
        return Pose.at(place.x(), place.y());
    }

    private void keep(int frame, GreyFrame grey) {
        kept.addLast(new Kept(frame, grey));
        if (kept.size() > KEPT) {
            kept.removeFirst();
        }
    }

    /** What was found again may have been seen some frames before, half hidden. */
    private void goBack(GreyFrame grey) {
        Pose later = pose;
        GreyFrame after = grey;
        for (Iterator<Kept> back = kept.descendingIterator(); back.hasNext(); ) {
            Kept each = back.next();
            Step step = step(after, each.grey(), later, speed.reversed());
            if (!step.seen()) {
                break;
            }
            later = step.found().pose();
            out[each.frame()] = new TrackPoint(later.x(), later.y(), true, step.sure());
            after = each.grey();
        }
        kept.clear();
    }
}
