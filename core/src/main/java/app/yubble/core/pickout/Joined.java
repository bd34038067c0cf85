package app.yubble.core.pickout;

import app.yubble.core.raster.CostSpread;
import app.yubble.core.raster.Size;
import java.util.function.IntPredicate;

/**
 * What belongs together with the marks: the pieces one gets to over a few pixels of something else, or over what stands in
 * front of them. Things beside the object that only look like it do not.
 */
final class Joined extends CostSpread {
    /** Pixels over which parts of an object are joined. By the objects of PickOutTest, as all of this package. */
    private static final float WIDEST_GAP = 8;
    // What is nearer by less may be the ground on which the object and the thing beside it stand.
    private static final float IN_FRONT = 0.05f;

    private final boolean[] inside;
    private final float[] depth;
    private final IntPredicate dropped;
    private final boolean[] inFront;

    private Joined(boolean[] inside, float[] depth, IntPredicate dropped, Size size) {
        super(size, WIDEST_GAP + 1);
        this.inside = inside;
        this.depth = depth;
        this.dropped = dropped;
        inFront = new boolean[inside.length];
    }

    /**
     * Takes away the pieces that are not joined to a mark.
     *
     * @param inside what was found; changed
     * @param depth nearness
     * @param kept the marks of the object
     * @param dropped the other marks: nothing is joined over them
     */
    static void leaveOnly(boolean[] inside, float[] depth, IntPredicate kept, IntPredicate dropped, Size size) {
        Joined ways = new Joined(inside, depth, dropped, size);
        for (int i = 0; i < inside.length; i++) {
            if (kept.test(i)) {
                ways.start(i);
            }
        }
        ways.spread();
        for (int i = 0; i < inside.length; i++) {
            inside[i] &= ways.cost(i) <= WIDEST_GAP;
        }
    }

    @Override
    protected boolean isOpen(int place) {
        return !dropped.test(place);
    }

    @Override
    protected float step(int from, int to) {
        if (inside[to]) {
            return 0;
        }
        float nearer = depth[to] - depth[from];
        if (inside[from] ? nearer > IN_FRONT : inFront[from] && Math.abs(nearer) < IN_FRONT) {
            inFront[to] = true;
            return 0;
        }
        return 1;
    }
}
