package app.yubble.core.clip;

import app.yubble.core.raster.Picture;

/** Pictures of a clip, in their order. */
public interface FrameSource {
    /** Takes one picture. */
    @FunctionalInterface
    interface Taker {
        void take(int frame, Picture picture);
    }

    /** Hands out the frames from {@code from} (inclusive) to {@code to} (exclusive) one after the other. */
    void each(int from, int to, Taker taker);
}
