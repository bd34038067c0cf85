package app.yubble.core.depth;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;

/** Makes a depth map from a picture alone. Implementations are stateless and may be used by many threads. */
public interface DepthEstimator {
    /** Short name used on the command line, in recipes and in caches; lower case letters and digits. */
    String name();

    /**
     * Estimates nearness in [0,1]. The result has the picture's shape and at most its size.
     *
     * @param picture linear light
     */
    Plane estimate(Picture picture, Progress progress);
}
