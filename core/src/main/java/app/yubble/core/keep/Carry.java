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
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/** A mask carried in one direction of time from where it was given. */
final class Carry {
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
    /** What it says for the object that something of its depth came out where it may, in logarithms of odds. */
    private static final float COMES_BACK = 2;
    /** Share of a mask that changes from frame to frame where nothing is guessed. */
    private static final double SETTLED = 0.08;
    /** Share of a place's surroundings up to which it is one that nothing came to lie on. */
    private static final float UNCOVERED = 0.4f;
    /** Difference in a rooted colour from which a place shows nothing that was seen before. */
    private static final float UNLIKE = 0.08f;
    /** What is left of {@link #cameOut} with each frame. */
    private static final float FADES = 0.85f;
    /** Of {@link #cameOut}: what came out so long ago is known. */
    private static final float LONG_OUT = 0.08f;
    /** Mask from which a pixel is all subject. */
    private static final float ALL = 0.9f;
    /** Share of the subject's depths at either end that may be something else's. */
    private static final double OUTLIERS = 0.03;
    /** Of the span of its depths, and of nearness: by how much others may lie beside them. */
    private static final float AIR_SHARE = 0.25f;
    /** See {@link #AIR_SHARE}. */
    private static final float AIR = 0.01f;
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
    /** Guessed with each frame since it was said that nothing of it is there: it may have come in meanwhile. */
    private static final double NOTHING = 0.25;

    private final FlowFinder flow;
    private final Size size;
    private final Memory memory;

    private Scene before;
    private Plane mask;
    /** Around all of it, also what is hidden now: it is where it may come out again. */
    private Region extent;
    /** How lately a place came out from behind something, from 1 down. */
    private Plane cameOut;
    /** Frames since it was seen. */
    private int lost;

    private double guessed;

    Carry(FlowFinder flow, Scene start, Plane mask, Memory memory) {
        this.flow = flow;
        this.mask = mask;
        before = start;
        size = mask.size();
        cameOut = new Plane(size);
        this.memory = memory;
        Region around = box(mask);
        extent = around == null ? Region.all(size) : around;
    }

    /** Its mask at the next frame: 1 on the subject, 0 elsewhere. */
    Plane to(Scene next) {
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
        Plane covered = BoxMean.of(covered(ahead), 1);
        Plane unlike = BoxMean.of(difference(next, before, back), 1);
        Plane along = back.fetch(mask);
        Plane near = BoxMean.of(along, BORDER);
        Region whole = extent.grown(COMES_OUT, size);
        float[] depths = depths(next.nearness(), along, agreement);
        Plane fresh = back.fetch(cameOut);
        byte[] hints = new byte[along.samples().length];
        float[] lean = new float[hints.length];
        for (int i = 0; i < hints.length; i++) {
            boolean isNew = covered.samples()[i] <= UNCOVERED || unlike.samples()[i] > UNLIKE;
            fresh.samples()[i] = isNew && holds(whole, i) ? 1 : FADES * fresh.samples()[i];
            float share = near.samples()[i];
            if (share < NONE) {
                boolean comesBack = holds(whole, i)
                        && fresh.samples()[i] >= LONG_OUT
                        && within(depths, next.nearness().samples()[i]);
                hints[i] = comesBack ? ObjectCut.OPEN : ObjectCut.OUTSIDE;
                lean[i] = COMES_BACK;
            } else if (share > 1 - NONE && agreement.samples()[i] > BELIEVED) {
                hints[i] = ObjectCut.KEEP;
            } else {
                float belief = Math.max(LEAST_BELIEF, agreement.samples()[i]);
                lean[i] = WENT_ALONG * belief * (2 * along.samples()[i] - 1);
            }
        }
        cameOut = fresh;
        Region around = box(along);
        if (around == null) {
            guessed += NOTHING;
            return new Plane(size);
        }
        Plane out = parted(next, hints, lean, around.joined(whole).grown(AROUND, size));
        guessed += guessed(along, agreement, hints, lean, out);
        return out;
    }

    /** How much the colours of each place differ from where it is said to have been. */
    private static Plane difference(Scene now, Scene then, Flow back) {
        Plane out = new Plane(back.size());
        for (int c = 0; c < 3; c++) {
            float[] own = now.picture().planes().get(c).rooted().samples();
            float[] other = back.fetch(then.picture().planes().get(c).rooted()).samples();
            for (int i = 0; i < own.length; i++) {
                out.samples()[i] = Math.max(out.samples()[i], Math.abs(own[i] - other[i]));
            }
        }
        return out;
    }

    /** Whether something of the frame before comes to lie on a place; not where something comes out from behind another. */
    private static Plane covered(Flow ahead) {
        Plane out = new Plane(ahead.size());
        int width = out.width();
        for (int y = 0, i = 0; y < out.height(); y++) {
            for (int x = 0; x < width; x++, i++) {
                int toX = Math.round(x + ahead.across().samples()[i]);
                int toY = Math.round(y + ahead.down().samples()[i]);
                if (toX >= 0 && toY >= 0 && toX < width && toY < out.height()) {
                    out.samples()[toY * width + toX] = 1;
                }
            }
        }
        return out;
    }

    /** Share of a mask that did not come along or got lost on the way, and of what may belong to it and was not taken. */
    private static double guessed(Plane along, Plane agreement, byte[] hints, float[] lean, Plane mask) {
        double changed = 0;
        double either = 1;
        for (int i = 0; i < hints.length; i++) {
            boolean now = mask.samples()[i] > 0.5f;
            boolean before = along.samples()[i] > 0.5f;
            either += now || before ? 1 : 0;
            changed += now != before || now && agreement.samples()[i] < BELIEVED ? 1 : 0;
            changed += !now && hints[i] == ObjectCut.OPEN && lean[i] == COMES_BACK ? 1 : 0;
        }
        return Math.max(0, changed / either - SETTLED);
    }

    /** How much of it has been guessed since it was given. */
    double guessed() {
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

    /** Between which depths it lies, with some air; all of them when nothing is known. */
    private static float[] depths(Plane nearness, Plane along, Plane agreement) {
        float[] own = new float[along.samples().length];
        int count = 0;
        for (int i = 0; i < own.length; i++) {
            if (along.samples()[i] > ALL && agreement.samples()[i] > BELIEVED) {
                own[count++] = nearness.samples()[i];
            }
        }
        if (count == 0) {
            return new float[] {0, 1};
        }
        Arrays.sort(own, 0, count);
        float low = own[(int) (count * OUTLIERS)];
        float high = own[(int) (count * (1 - OUTLIERS))];
        float air = AIR_SHARE * (high - low) + AIR;
        return new float[] {low - air, high + air};
    }

    private static boolean within(float[] range, float value) {
        return value >= range[0] && value <= range[1];
    }

    static double area(Plane mask) {
        double sum = 0;
        for (float each : mask.samples()) {
            sum += each;
        }
        return sum;
    }

    /** Around all that belongs to it; null when nothing does. */
    private static @Nullable Region box(Plane mask) {
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
