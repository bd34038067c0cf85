package app.yubble.media.clip;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.picture.ToneCurve;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Frames of a clip in their order, in linear light and the clip's own primaries, upright. Whoever opens one reads it from one
 * thread and closes it.
 *
 * <p>How: frames are picked by their exact ticks, whatever the container's index says; the jump to the first goes a second ahead of
 * it. Code values come over the pipe with 16 bits, so that nothing is rounded twice.
 */
public final class ClipFrames implements AutoCloseable {
    /** Files of which the index is wrong by more are not known. */
    private static final double AHEAD_SECONDS = 1;

    /** A decoder that gives nothing for so long hangs. */
    private static final Duration MOST = Duration.ofHours(6);

    /** As {@link ClipScan} reads them: of frames that claim one time the first. */
    static final String RISING = "select=isnan(prev_selected_pts)+gt(pts\\,prev_selected_pts)";

    /** Exact rounding and a colour for every pixel. */
    static final String EXACT = "accurate_rnd+full_chroma_int+full_chroma_inp+bicubic";

    private static final int STEPS = 65535;

    private final Tool tool;
    private final InputStream out;
    private final Size size;
    private final float[][] light;
    private final byte[] buffer;
    private final int count;
    private int read;

    private ClipFrames(Tool tool, Size size, ToneCurve curve, int count) {
        this.tool = tool;
        this.out = tool.out();
        this.size = size;
        this.count = count;
        light = curve.tables(STEPS);
        buffer = new byte[Math.toIntExact(size.pixels() * 6)];
    }

    /**
     * Opens frames {@code from} (inclusive) to {@code to} (exclusive) of a file.
     *
     * @param sheet of that file
     */
    public static ClipFrames open(Path file, ClipSheet sheet, int from, int to) {
        ClipInfo info = sheet.info();
        return new ClipFrames(
                tool(file, sheet, from, to, toRgb(info.colours()) + ",format=gbrp16le"),
                info.size(),
                info.colours().curve(),
                to - from);
    }

    /** The program that writes these frames to a pipe, after filters of its own. */
    static Tool tool(Path file, ClipSheet sheet, int from, int to, String filters) {
        ClipInfo info = sheet.info();
        List<String> arguments = new ArrayList<>(List.of("-threads", "2", "-copyts"));
        double start = (info.startMicros() + sheet.micros(from)) / 1e6 - AHEAD_SECONDS;
        if (start > 0) {
            arguments.addAll(List.of("-ss", String.valueOf(start)));
        }
        arguments.addAll(Tool.input(file));
        String picked = "select=between(pts\\," + sheet.ticks().get(from) + "\\,"
                + sheet.ticks().get(to - 1) + ")";
        arguments.addAll(List.of(
                "-map",
                "0:v:0",
                "-vf",
                RISING + "," + picked + "," + filters,
                "-fps_mode",
                "passthrough",
                "-frames:v",
                String.valueOf(to - from),
                "-f",
                "rawvideo",
                "pipe:1"));
        return Tool.ffmpegByFrames(MOST, arguments);
    }

    /** The fault of a file that ends before a frame, from 0. */
    static UnreadableClipException missing(Tool tool, int frame, int count) throws IOException {
        tool.ended();
        return new UnreadableClipException(
                "frame " + (frame + 1) + " of " + count + " could not be decoded (" + tool.reason() + ")");
    }

    /** The scaler's settings that make red, green and blue of what a clip stores. */
    static String toRgb(ClipColours colours) {
        return colours.isRgb()
                ? "scale=flags=" + EXACT
                : "scale=flags=" + EXACT + ":in_color_matrix=" + colours.scalerMatrix() + ":in_range="
                        + colours.scalerRange() + ":out_range=full";
    }

    /**
     * The next frame; null after the last.
     *
     * @throws UnreadableClipException when the file ends before it
     */
    public @Nullable Picture next() {
        if (read == count) {
            return null;
        }
        try {
            if (tool.waitingFor(() -> out.readNBytes(buffer, 0, buffer.length)) < buffer.length) {
                throw missing(tool, read, count);
            }
        } catch (IOException fault) {
            throw new ClipToolException("frames could not be read", fault);
        }
        read++;
        return picture();
    }

    private Picture picture() {
        Plane[] planes = {new Plane(size), new Plane(size), new Plane(size)};
        int pixels = (int) size.pixels();
        int width = size.width();
        // Planes come as green, blue, red.
        int[] order = {1, 2, 0};
        for (int i = 0; i < 3; i++) {
            float[] to = planes[order[i]].samples();
            float[] table = light[order[i]];
            int start = 2 * i * pixels;
            Bands.ofRows(size.height(), (first, end) -> {
                int at = start + 2 * first * width;
                for (int p = first * width; p < end * width; p++, at += 2) {
                    to[p] = table[(buffer[at] & 0xff) | (buffer[at + 1] & 0xff) << 8];
                }
            });
        }
        return new Picture(planes[0], planes[1], planes[2]);
    }

    @Override
    public void close() {
        tool.close();
    }
}
