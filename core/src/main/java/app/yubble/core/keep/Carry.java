package app.yubble.core.keep;

import app.yubble.core.clip.Flow;
import app.yubble.core.clip.FlowFinder;
import app.yubble.core.keep.SceneSource.Scene;
import app.yubble.core.pickout.ObjectCut;
import app.yubble.core.raster.BoxMean;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** A mask carried in one direction of time from where it was given. */
final class Carry implements Carried {
    /** Pixels to either side of its border in which it is parted anew: flow is as wrong as that there. */
    private static final int BORDER = 3;
    /** Pixels around it in which it may come out of what hid it. */
    private static final int COMES_OUT = 24;
    /** Agreement of flow there and back from which what went along is believed. */
    private static final float BELIEVED = 0.3f;
    /** Shares of a window that count as none and as all of it. */
    private static final float NONE = 0.015f;
    /** What having gone along says for the object, in logarithms of odds. */
    private static final float WENT_ALONG = 2.5f;
    /** What it says where flow does not agree. */
    private static final float LEAST_BELIEF = 0.15f;
    /** Share of a mask that changes from frame to frame where nothing is guessed. */
    private static final double SETTLED = 0.08;
    /** Pixels by which its extent gets smaller with each frame. */
    private static final int GOES_BACK = 1;
    /** Pixels around it that are looked at. */
    private static final int AROUND = 56;
    /** Pixels by which what is looked through grows with each frame that it is lost. */
    private static final int LOST_GROWS = 6;
    /** Share of the size it had below which it is lost. */
    private static final double LOST = 0.004;
    /** Share of the size it had that must be seen to be found again. */
    private static final double FOUND = 0.02;
    /** Share of its size that is nearly all of it. */
    private static final double NEARLY_ALL = 0.95;
    /** Pixels to each side by which it may go aside with a frame. */
    private static final int ASIDE = 12;
    /** Of the longer side: how far from where all of it was seen it may be where a part was given. */
    private static final int MOVED = 4;
    /** Guessed with each frame since it was said that nothing of it is there: it may have come in meanwhile. */
    private static final double NOTHING = 0.25;

    private final FlowFinder flow;
    private final Size size;
    private final Memory memory;

    private Scene before;
    private Plane mask;
    /** Around all of it, also what is hidden now: it is where it may come out again. */
    private Region extent;
    /** Frames since it was seen. */
    private int lost;

    private final CameOut cameOut;
    private final boolean[] known;
    /** As it was when the most of it was seen, and where that is now. */
    private LastSeen.At whole;
    /** The most that was seen of it. */
    private double most;

    private double guessed;

    Carry(FlowFinder flow, Scene start, Plane mask, Memory memory) {
        this.flow = flow;
        this.mask = mask;
        before = start;
        size = mask.size();
        cameOut = new CameOut(size);
        this.memory = memory;
        known = memory.known();
        most = memory.area();
        LastSeen.At largest = memory.whole().where();
        whole = isPart(mask)
                ? largest.found(rooted(start), place -> mask.samples()[place] > 0.5f, size.longSide() / MOVED)
                : largest;
        Region seen = box(mask);
        Region all = whole.box();
        extent = seen == null || all == null ? Region.all(size) : all.joined(seen);
    }

    @Override
    public Plane to(Scene next) {
        Plane found = area(mask) < LOST * memory.area() ? lookedFor(next) : carried(next);
        mask = found;
        before = next;
        Region now = box(found);
        if (now != null) {
            extent = drawnIn(extent.joined(now), now);
            lost = 0;
        } else {
            lost++;
        }
        return found;
    }

    /** A box whose sides go back a little towards another one within it. */
    private static Region drawnIn(Region wide, Region to) {
        int left = Math.min(to.x(), wide.x() + GOES_BACK);
        int top = Math.min(to.y(), wide.y() + GOES_BACK);
        int right = Math.max(to.x() + to.width(), wide.x() + wide.width() - GOES_BACK);
        int bottom = Math.max(to.y() + to.height(), wide.y() + wide.height() - GOES_BACK);
        return new Region(left, top, right - left, bottom - top);
    }

    private boolean holds(Region region, int place) {
        int x = place % size.width() - region.x();
        int y = place / size.width() - region.y();
        return x >= 0 && y >= 0 && x < region.width() && y < region.height();
    }

    private Plane carried(Scene next) {
        Plane now = next.picture().lightness();
        Plane then = before.picture().lightness();
        Flow back = flow.between(now, then);
        Flow ahead = flow.between(then, now);
        Plane agreement = back.agreement(ahead);
        Plane along = back.fetch(mask);
        Plane near = BoxMean.of(along, BORDER);
        float[][] colours = rooted(next);
        boolean isPart = isPart(along);
        Region wide = Objects.requireNonNull(Region.around(extent, isPart ? whole.box() : null))
                .grown(COMES_OUT, size);
        cameOut.goOn(back, ahead, colours, rooted(before), place -> holds(wide, place));
        if (isPart) {
            whole = whole.found(colours, place -> cameOut.at(place) || along.samples()[place] > 0.5f, ASIDE);
        }
        Region surroundings = extent.grown(COMES_OUT, size);
        ComesBack comesBack = new ComesBack(next, colours, sure(along, agreement), known, isPart ? whole : null);
        byte[] hints = new byte[along.samples().length];
        float[] lean = new float[hints.length];
        for (int i = 0; i < hints.length; i++) {
            float share = near.samples()[i];
            if (share < NONE) {
                float odds = cameOut.at(i) ? comesBack.odds(i, holds(surroundings, i)) : -1;
                hints[i] = odds < 0 ? ObjectCut.OUTSIDE : ObjectCut.OPEN;
                lean[i] = odds;
            } else if (share > 1 - NONE && agreement.samples()[i] > BELIEVED) {
                hints[i] = ObjectCut.KEEP;
            } else {
                float belief = Math.max(LEAST_BELIEF, agreement.samples()[i]);
                lean[i] = WENT_ALONG * belief * (2 * along.samples()[i] - 1);
            }
        }
        Region around = box(along);
        if (around == null) {
            guessed += NOTHING;
            return new Plane(size);
        }
        Plane out = parted(next, hints, lean, around.joined(wide).grown(AROUND, size));
        guessed += guessed(along, near, agreement, hints, out);
        if (!isPart(out)) {
            whole = new LastSeen(colours, out).where();
            most = Math.max(most, area(out));
        }
        return out;
    }

    private boolean isPart(Plane of) {
        return area(of) < NEARLY_ALL * most;
    }

    /** What went along where flow is believed. */
    private static Plane sure(Plane along, Plane agreement) {
        Plane out = new Plane(along.size());
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = agreement.samples()[i] > BELIEVED ? along.samples()[i] : 0;
        }
        return out;
    }

    static float[][] rooted(Scene scene) {
        return new float[][] {
            scene.picture().red().rooted().samples(),
            scene.picture().green().rooted().samples(),
            scene.picture().blue().rooted().samples()
        };
    }

    /** Share of a mask that did not come along or got lost on the way, and of what may belong to it and was not taken. */
    private static double guessed(Plane along, Plane near, Plane agreement, byte[] hints, Plane mask) {
        double changed = 0;
        double either = 1;
        for (int i = 0; i < hints.length; i++) {
            boolean now = mask.samples()[i] > 0.5f;
            boolean before = along.samples()[i] > 0.5f;
            either += now || before ? 1 : 0;
            changed += now != before || now && agreement.samples()[i] < BELIEVED ? 1 : 0;
            changed += !now && hints[i] == ObjectCut.OPEN && near.samples()[i] < NONE ? 1 : 0;
        }
        return Math.max(0, changed / either - SETTLED);
    }

    @Override
    public double guessed() {
        return guessed;
    }

    /** By what it looked like, where it was seen last and farther around with every frame. */
    private Plane lookedFor(Scene next) {
        Region open = extent.grown(COMES_OUT + LOST_GROWS * lost, size);
        byte[] hints = new byte[(int) size.pixels()];
        for (int i = 0; i < hints.length; i++) {
            hints[i] = holds(open, i) ? ObjectCut.OPEN : ObjectCut.OUTSIDE;
        }
        guessed++;
        Plane out = parted(next, hints, new float[0], open.grown(AROUND, size));
        return area(out) < FOUND * memory.area() ? new Plane(size) : out;
    }

    private Plane parted(Scene scene, byte[] hints, float[] lean, Region within) {
        byte[] own = new byte[(int) within.size().pixels()];
        float[] ownLean = new float[lean.length == 0 ? 0 : own.length];
        for (int y = 0; y < within.height(); y++) {
            int from = (within.y() + y) * size.width() + within.x();
            System.arraycopy(hints, from, own, y * within.width(), within.width());
            if (ownLean.length > 0) {
                System.arraycopy(lean, from, ownLean, y * within.width(), within.width());
            }
        }
        Plane part = ObjectCut.of(
                Resample.crop(scene.picture(), within),
                Resample.crop(scene.nearness(), within),
                own,
                new ObjectCut.Before(ownLean, memory.colours()));
        Plane out = new Plane(size);
        for (int y = 0; y < within.height(); y++) {
            System.arraycopy(
                    part.samples(),
                    y * within.width(),
                    out.samples(),
                    (within.y() + y) * size.width() + within.x(),
                    within.width());
        }
        return out;
    }

    static double area(Plane mask) {
        double sum = 0;
        for (float each : mask.samples()) {
            sum += each;
        }
        return sum;
    }

    /** Around all that belongs to it; null when nothing does. */
    static @Nullable Region box(Plane mask) {
        Region out = null;
        for (int y = 0; y < mask.height(); y++) {
            int left = -1;
            int right = 0;
            for (int x = 0; x < mask.width(); x++) {
                if (mask.at(x, y) > 0.5f) {
                    left = left < 0 ? x : left;
                    right = x;
                }
            }
            if (left >= 0) {
                out = Region.around(out, new Region(left, y, right - left + 1, 1));
            }
        }
        return out;
    }
}
