package app.yubble.core.follow;

import app.yubble.core.raster.Size;

/** The brightness of a clip's frames. */
public interface GreySource {
    /** Takes one frame. */
    @FunctionalInterface
    interface Taker {
        void take(int frame, GreyFrame grey);
    }

    Size size();

    int frames();

    /** Hands out the frames from {@code from} (inclusive) to {@code to} (exclusive) one after the other. */
    void each(int from, int to, Taker taker);
}
