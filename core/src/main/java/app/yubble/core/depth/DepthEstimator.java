package app.yubble.core.depth;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.subject.Quality;

/** Makes a depth map from a picture alone. Implementations are stateless and may be used by many threads. */
public interface DepthEstimator {
    /** Short name used on the command line, in recipes and in caches; lower case letters and digits. */
    String name();

    /**
     * Estimates nearness.
     *
     * @param picture linear light
     * @throws java.util.concurrent.CancellationException when {@code progress} says so
     */
    DepthEstimate estimate(Picture picture, Quality quality, Progress progress);

    /** The best quality from a draft of the same picture, without doing the draft's work again. */
    default DepthEstimate improve(Picture picture, DepthEstimate draft, Progress progress) {
        progress.at(1);
        return draft;
    }
}
