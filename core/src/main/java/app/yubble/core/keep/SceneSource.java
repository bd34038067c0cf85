package app.yubble.core.keep;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import org.jspecify.annotations.Nullable;

/** Small pictures of a clip's frames with their nearness. */
public interface SceneSource {
    /**
     * A frame.
     *
     * @param nearness of the picture's size
     * @param matte of the subjects that a network has found, of the picture's size; null when there is none
     */
    record Scene(Picture picture, Plane nearness, @Nullable Plane matte) {
        public Scene {
            if (!picture.size().equals(nearness.size())) {
                throw new IllegalArgumentException(
                        "picture " + picture.size() + " and nearness " + nearness.size() + " must have one size");
            }
        }
    }

    /** Takes one frame. */
    @FunctionalInterface
    interface Taker {
        void take(int frame, Scene scene);
    }

    /** Longer side at which a subject is carried. */
    int SIDE = 480;

    Size size();

    int frames();

    /** Hands out the frames from {@code from} (inclusive) to {@code to} (exclusive) one after the other. */
    void each(int from, int to, Taker taker);
}
