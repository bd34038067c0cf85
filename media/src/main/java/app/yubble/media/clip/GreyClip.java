package app.yubble.media.clip;

import app.yubble.core.follow.GreyFrame;
import app.yubble.core.follow.GreySource;
import app.yubble.core.raster.Size;
import java.io.IOException;
import java.nio.file.Path;

/** The brightness of a file's frames. */
public record GreyClip(Path file, ClipSheet sheet) implements GreySource {
    @Override
    public Size size() {
        return sheet.info().size();
    }

    @Override
    public int frames() {
        return sheet.frames();
    }

    @Override
    public void each(int from, int to, Taker taker) {
        if (from >= to) {
            return;
        }
        int pixels = Math.toIntExact(size().pixels());
        try (Tool tool = ClipFrames.tool(file, sheet, from, to, "scale=out_range=full,format=gray")) {
            for (int frame = from; frame < to; frame++) {
                byte[] samples = new byte[pixels];
                if (tool.waitingFor(() -> tool.out().readNBytes(samples, 0, pixels)) < pixels) {
                    throw ClipFrames.missing(tool, frame - from, to - from);
                }
                taker.take(frame, new GreyFrame(size(), samples));
            }
        } catch (IOException fault) {
            throw new ClipToolException("frames could not be read", fault);
        }
    }
}
