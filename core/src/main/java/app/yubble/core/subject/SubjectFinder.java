package app.yubble.core.subject;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;

/** Finds what a picture is of. Implementations may be used by many threads. */
public interface SubjectFinder {
    /**
     * The main subject.
     *
     * @param picture linear light
     * @throws java.util.concurrent.CancellationException when {@code progress} says so
     */
    Subject find(Picture picture, Quality quality, Progress progress);
}
