package app.yubble.media.clip;

import app.yubble.core.clip.DepthOverTime;
import app.yubble.core.clip.FrameSource;
import app.yubble.core.raster.Picture;
import java.nio.file.Path;

/** A file and the times of its frames. */
public record ClipFile(Path file, ClipSheet sheet) implements FrameSource {
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

    /** What depth needs to know of it. */
    public DepthOverTime.Shot shot() {
        double rate = sheet.info().rate();
        return new DepthOverTime.Shot(sheet.info().size(), sheet.frames(), rate > 0 ? rate : 25, sheet.cuts());
    }
}
