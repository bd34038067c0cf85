package app.yubble.core.keep;

import app.yubble.core.clip.Flow;
import app.yubble.core.raster.BoxMean;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import java.util.function.IntPredicate;

/** Places that show something which nothing else showed a few frames ago. */
final class CameOut {
    /** Share of a place's surroundings up to which it is one that nothing came to lie on. */
    private static final float UNCOVERED = 0.4f;
    /** Difference in a rooted colour from which a place shows nothing that was seen before. */
    static final float UNLIKE = 0.08f;
    /** What is left with each frame. */
    private static final float FADES = 0.85f;
    /** What came out so long ago is known. */
    private static final float LONG_OUT = 0.08f;

    /** How lately a place came out, from 1 down. */
    private Plane lately;

    CameOut(Size size) {
        lately = new Plane(size);
    }

    boolean at(int place) {
        return lately.samples()[place] >= LONG_OUT;
    }

    /**
     * To the next frame.
     *
     * @param back flow from it to the frame before
     * @param ahead flow from the frame before to it
     * @param now its rooted colours
     * @param then those of the frame before
     * @param counts places that are asked for: what came out elsewhere and went there since is known
     */
    void goOn(Flow back, Flow ahead, float[][] now, float[][] then, IntPredicate counts) {
        Plane covered = BoxMean.of(covered(ahead), 1);
        Plane unlike = BoxMean.of(difference(now, then, back), 1);
        lately = back.fetch(lately);
        float[] samples = lately.samples();
        for (int i = 0; i < samples.length; i++) {
            boolean isNew = covered.samples()[i] <= UNCOVERED || unlike.samples()[i] > UNLIKE;
            samples[i] = isNew && counts.test(i) ? 1 : FADES * samples[i];
        }
    }

    /** How much the colours of each place differ from where it is said to have been. */
    static Plane difference(float[][] now, float[][] then, Flow back) {
        Plane out = new Plane(back.size());
        for (int c = 0; c < now.length; c++) {
            float[] other =
                    back.fetch(new Plane(out.width(), out.height(), then[c])).samples();
            for (int i = 0; i < other.length; i++) {
                out.samples()[i] = Math.max(out.samples()[i], Math.abs(now[c][i] - other[i]));
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
}
