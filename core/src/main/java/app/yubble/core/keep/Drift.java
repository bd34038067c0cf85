package app.yubble.core.keep;

import app.yubble.core.clip.Flow;
import app.yubble.core.clip.FlowFinder;
import app.yubble.core.keep.SceneSource.Scene;
import app.yubble.core.raster.BoxMean;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;

/**
 * A mask that goes with the flow of what it lies on, in one direction of time; what comes to be hidden is let go. Flow counts where the
 * picture has texture within the mask: elsewhere, and beyond the mask, it tells what something else does.
 */
final class Drift implements Carried {
    /** Agreement of flow there and back below which a place is doubted. */
    private static final float BELIEVED = 0.3f;
    /** Difference in a rooted colour from which a place shows something else, whatever flow says. */
    private static final float UNLIKE = 0.16f;
    /** Guessed with each frame: the nearer of two given masks holds. */
    private static final double WEARS = 0.01;
    /** Pixels over which flow is averaged. */
    private static final int CALM = 8;
    /** What flow counts where the whole mask is averaged, beside that around a place. */
    private static final double EVERYWHERE = 1e-3;

    /** Share of what was painted below which the rest is let go too: it would go along with what hides it. */
    private static final double LEAST = 0.4;

    private final FlowFinder flow;
    private final double painted;
    private Scene before;
    /** With soft edges: taking them for hard in each frame would wear them down. */
    private Plane mask;

    private double guessed;

    Drift(FlowFinder flow, Scene start, Plane mask) {
        this.flow = flow;
        before = start;
        this.mask = mask;
        painted = Carry.area(mask);
    }

    @Override
    public Plane to(Scene next) {
        Plane now = next.picture().lightness();
        Plane then = before.picture().lightness();
        Flow back = flow.between(now, then);
        Plane agreement = back.agreement(flow.between(then, now));
        Flow calm = calm(back, weights(now, back.fetch(mask), agreement));
        Plane unlike = BoxMean.of(CameOut.difference(Carry.rooted(next), Carry.rooted(before), calm), 1);
        Plane out = calm.fetch(mask);
        double whole = Math.max(1, Carry.area(mask));
        for (int i = 0; i < out.samples().length; i++) {
            float allowed = agreement.samples()[i] < BELIEVED ? CameOut.UNLIKE : UNLIKE;
            if (unlike.samples()[i] > allowed) {
                out.samples()[i] = 0;
            }
        }
        if (Carry.area(out) < LEAST * painted) {
            out = new Plane(out.size());
        }
        guessed += WEARS + Math.abs(Carry.area(out) - whole) / whole;
        mask = out;
        before = next;
        return out;
    }

    @Override
    public double guessed() {
        return guessed;
    }

    /** How much flow counts: where there is texture, it agrees and something painted came. */
    private static Plane weights(Plane lightness, Plane along, Plane agreement) {
        Plane out = new Plane(lightness.size());
        int width = out.width();
        float[] light = lightness.samples();
        for (int y = 1; y < out.height() - 1; y++) {
            for (int x = 1; x < width - 1; x++) {
                int i = y * width + x;
                float across = light[i + 1] - light[i - 1];
                float down = light[i + width] - light[i - width];
                out.samples()[i] = along.samples()[i] * agreement.samples()[i] * (across * across + down * down);
            }
        }
        return out;
    }

    private static Flow calm(Flow flow, Plane weights) {
        Size size = flow.size();
        Plane sums = BoxMean.of(weights, CALM);
        return new Flow(calm(flow.across(), weights, sums, size), calm(flow.down(), weights, sums, size));
    }

    private static Plane calm(Plane of, Plane weights, Plane sums, Size size) {
        Plane weighted = new Plane(size);
        double all = 0;
        double sum = 0;
        for (int i = 0; i < weighted.samples().length; i++) {
            weighted.samples()[i] = weights.samples()[i] * of.samples()[i];
            all += weights.samples()[i];
            sum += weighted.samples()[i];
        }
        Plane out = BoxMean.of(weighted, CALM);
        double mean = all == 0 ? 0 : sum / all;
        double little = EVERYWHERE * all / size.pixels() + Float.MIN_NORMAL;
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = (float) ((out.samples()[i] + little * mean) / (sums.samples()[i] + little));
        }
        return out;
    }
}
