package app.yubble.media.clip;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;

/**
 * Encodes a stretch of frames, which {@link ClipJoiner} joins with others. Written to a file in the open container NUT, which keeps
 * the times of any codec's frames exactly.
 */
public final class StretchWriter implements AutoCloseable {
    private static final Duration MOST = Duration.ofHours(6);
    private static final int BUFFER = 1 << 20;

    private final Tool tool;
    private final OutputStream to;
    private final RawFrames frames;

    private StretchWriter(Tool tool, OutputStream to, RawFrames frames) {
        this.tool = tool;
        this.to = to;
        this.frames = frames;
    }

    /**
     * @param source whose colours, depth of samples and times are kept
     * @param size of what is written; for a film its sides are made even by leaving a column or row out
     */
    public static StretchWriter open(Path file, ClipFormat format, double quality, ClipInfo source, Size size) {
        ClipColours colours = source.colours();
        boolean full = colours.full() && !colours.isRgb();
        boolean odd =
                !format.pixels(source.bits()).contains("444") && (size.width() % 2 == 1 || size.height() % 2 == 1);
        String filter = (odd ? "crop=" + size.width() / 2 * 2 + ":" + size.height() / 2 * 2 + ":0:0," : "")
                + "scale=flags=" + ClipFrames.EXACT + ":out_color_matrix="
                + (colours.isRgb() ? "bt709" : colours.scalerMatrix()) + ":out_range=" + (full ? "full" : "limited")
                + ",format=" + format.pixels(source.bits()) + ",setsar=" + source.pixelShape();
        List<String> arguments = new ArrayList<>(List.of("-f", "matroska", "-i", "pipe:0", "-vf", filter));
        arguments.addAll(format.encoder(quality));
        arguments.addAll(colours.tags());
        arguments.addAll(ending(file, source));
        Tool tool = Tool.ffmpegByFrames(MOST, arguments);
        OutputStream to = new BufferedOutputStream(tool.in(), BUFFER);
        try {
            return new StretchWriter(tool, to, RawFrames.ofPictures(to, size, colours.curve()));
        } catch (IOException fault) {
            throw gone(tool, fault);
        }
    }

    /** A film of depth: 16 bits of grey without loss, or eight in H.264. */
    public static StretchWriter openDepth(Path file, boolean lossless, ClipInfo source, Size size) {
        List<String> arguments = new ArrayList<>(List.of("-f", "matroska", "-i", "pipe:0"));
        arguments.addAll(
                lossless
                        ? ClipFormat.FFV1.encoder(1)
                        : List.of(
                                "-vf",
                                "format=gray",
                                "-c:v",
                                "libx264",
                                "-preset",
                                "medium",
                                "-crf",
                                "12",
                                "-bf",
                                "2"));
        arguments.addAll(ending(file, source));
        Tool tool = Tool.ffmpegByFrames(MOST, arguments);
        OutputStream to = new BufferedOutputStream(tool.in(), BUFFER);
        try {
            return new StretchWriter(tool, to, RawFrames.ofPlanes(to, size));
        } catch (IOException fault) {
            throw gone(tool, fault);
        }
    }

    private static List<String> ending(Path file, ClipInfo source) {
        return List.of(
                "-threads",
                "2",
                "-fps_mode",
                "passthrough",
                "-enc_time_base",
                source.timeBase().replace('/', ':'),
                // The same bytes for the same frames.
                "-bitexact",
                "-f",
                "nut",
                "file:" + file.toAbsolutePath());
    }

    private static RuntimeException gone(Tool tool, IOException fault) {
        tool.ended();
        return new ClipToolException("the clip could not be written (" + tool.reason() + ")", fault);
    }

    /**
     * The next frame.
     *
     * @param micros from the stretch's own first frame
     */
    public void add(Picture picture, long micros, long lastsMicros) {
        try {
            tool.waitingFor(() -> {
                frames.write(picture, micros, lastsMicros);
                return true;
            });
        } catch (IOException fault) {
            throw gone(tool, fault);
        }
    }

    /** The next map of a film of depth. */
    public void add(Plane map, long micros, long lastsMicros) {
        try {
            tool.waitingFor(() -> {
                frames.write(map, micros, lastsMicros);
                return true;
            });
        } catch (IOException fault) {
            throw gone(tool, fault);
        }
    }

    /** Waits until all is written. */
    public void finish() {
        try {
            to.close();
        } catch (IOException fault) {
            throw gone(tool, fault);
        }
        if (!tool.ended()) {
            throw new ClipToolException("the clip could not be written (" + tool.reason() + ")");
        }
    }

    @Override
    public void close() {
        tool.close();
    }
}
