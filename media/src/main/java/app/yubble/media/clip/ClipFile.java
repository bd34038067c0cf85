package app.yubble.media.clip;

import app.yubble.core.clip.DepthOverTime;
import app.yubble.core.clip.FrameSource;
import app.yubble.core.keep.ClipScenes;
import app.yubble.core.keep.Keeping;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.refocus.Still;
import java.nio.file.Path;
import java.util.function.BiFunction;
import java.util.function.IntFunction;
import org.jspecify.annotations.Nullable;

/** A file and the times of its frames. */
public record ClipFile(Path file, ClipSheet sheet) implements FrameSource {
    /** Microseconds of a second. */
    private static final double MICROS = 1e6;

    @Override
    public void each(int from, int to, Taker taker) {
        if (from >= to) {
            return;
        }
        try (ClipFrames frames = ClipFrames.open(file, sheet, from, to)) {
            int frame = from;
            for (Picture each = frames.next(); each != null; each = frames.next()) {
                taker.take(frame++, each);
            }
        }
    }

    /** A frame alone. */
    public Picture frame(int frame) {
        Picture[] out = new Picture[1];
        each(frame, frame + 1, (number, picture) -> out[0] = picture);
        return out[0];
    }

    /**
     * What keeping subjects needs to know of it.
     *
     * @param full size of the frames of the file that this one is made from
     * @param stills of frames whose picture has been read
     * @param mattes of the subjects at a frame, where a network has found some
     */
    public Keeping.Clip keeping(
            Size full,
            DepthChoice depth,
            BiFunction<Integer, Picture, Still> stills,
            IntFunction<@Nullable Plane> mattes) {
        return new Keeping.Clip(
                new ClipScenes(this, sheet.frames(), full, depth, stills, mattes),
                sheet.cuts(),
                each -> sheet.frameAt(Math.round(each.at() * MICROS)));
    }

    /** What depth needs to know of it. */
    public DepthOverTime.Shot shot() {
        double rate = sheet.info().rate();
        return new DepthOverTime.Shot(sheet.info().size(), sheet.frames(), rate > 0 ? rate : 25, sheet.cuts());
    }
}
