package app.yubble.core.refocus;

import app.yubble.core.raster.Region;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;

/** For which parts of a large picture masks were drawn last, so that the next look at it can go on from there. One thread at a time. */
final class DrawnParts {
    /** As many as are likely to be found in the cache still; touch-ups whose edge is moved have a part of their own. */
    private static final int MOST = 8;

    private final Deque<Region> parts = new ArrayDeque<>();

    void add(Region part) {
        parts.remove(part);
        parts.addFirst(part);
        if (parts.size() > MOST) {
            parts.removeLast();
        }
    }

    List<Region> newestFirst() {
        return List.copyOf(parts);
    }
}
