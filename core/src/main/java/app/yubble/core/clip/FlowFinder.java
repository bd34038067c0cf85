package app.yubble.core.clip;

import app.yubble.core.raster.Plane;

/** Finds out where things move between two frames. Implementations may be used by many threads. */
@FunctionalInterface
public interface FlowFinder {
    /**
     * @param from lightness of a frame, in [0,1]
     * @param to of another one, of the same size
     */
    Flow between(Plane from, Plane to);
}
