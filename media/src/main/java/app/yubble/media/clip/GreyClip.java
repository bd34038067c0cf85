package app.yubble.media.clip;

import app.yubble.core.follow.Anchor;
import app.yubble.core.follow.GreyFrame;
import app.yubble.core.follow.GreySource;
import app.yubble.core.follow.Put;
import app.yubble.core.follow.TrackPoint;
import app.yubble.core.follow.Tracker;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.TreeMap;

/** The brightness of a file's frames. */
public record GreyClip(Path file, ClipSheet sheet) implements GreySource {
    /** Microseconds of a second. */
    private static final double MICROS = 1e6;

    @Override
    public Size size() {
        return sheet.info().size();
    }

    @Override
    public int frames() {
        return sheet.frames();
    }

    /**
     * Follows a point from where it was put.
     *
     * @return for each frame, in shares of the picture's sides
     */
    public List<TrackPoint> track(Tracker tracker, List<Put> puts, Progress progress) {
        Size size = size();
        // Of two in one frame the later one.
        TreeMap<Integer, Anchor> anchors = new TreeMap<>();
        for (Put each : puts) {
            int frame = sheet.frameAt(Math.round(each.at() * MICROS));
            anchors.put(frame, new Anchor(frame, each.x() * size.width() - 0.5, each.y() * size.height() - 0.5));
        }
        return tracker.track(this, sheet.cuts(), List.copyOf(anchors.values()), progress).stream()
                .map(each -> each.inShares(size))
                .toList();
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
