package app.yubble.core.keep;

import app.yubble.core.clip.FrameSource;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageCache;
import app.yubble.core.refocus.Still;
import java.util.function.BiFunction;
import java.util.function.IntFunction;
import org.jspecify.annotations.Nullable;

/**
 * Frames of a clip with the nearness that their depth gives.
 *
 * @param full size of its frames
 * @param stills of frames whose picture has been read
 * @param mattes of the subjects at a frame, where a network has found some; of any size
 */
public record ClipScenes(
        FrameSource pictures,
        int frames,
        Size full,
        DepthChoice depth,
        BiFunction<Integer, Picture, Still> stills,
        IntFunction<@Nullable Plane> mattes)
        implements SceneSource {
    @Override
    public Size size() {
        return full.fitting(SIDE);
    }

    @Override
    public void each(int from, int to, Taker taker) {
        pictures.each(from, to, (frame, picture) -> {
            Plane nearness =
                    new RefocusLine(StageCache.keepingAll()).nearness(stills.apply(frame, picture), depth, size());
            Plane matte = mattes.apply(frame);
            taker.take(
                    frame,
                    new Scene(
                            Resample.toSize(picture, size()),
                            nearness,
                            matte == null ? null : Resample.toSize(matte, size())));
        });
    }
}
