package app.yubble.core.refocus;

import app.yubble.core.recipe.DepthChoice;

/**
 * Lines for frames of a clip that are made once each: nothing of a frame is kept but what a ladder stands on, which is the same for all of
 * them. Safe for many threads.
 */
public final class FrameLines {
    private final StageCache common = StageCache.keepingAll();
    private final RefocusLine once = new RefocusLine(common);
    private final DepthChoice depth;

    public FrameLines(DepthChoice depth) {
        this.depth = depth;
    }

    /** A line for one frame. */
    public RefocusLine of(Still still) {
        if (!depth.ladder().isEmpty()) {
            once.ladder(still, depth);
        }
        return new RefocusLine(common.copy());
    }
}
