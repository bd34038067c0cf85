package app.yubble.media.clip;

import app.yubble.core.clip.Cuts;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;

/**
 * Goes through a clip once: finds the time of every frame that can be decoded and the cuts, and makes a small file that browsers
 * play and in which they get to any frame quickly, and thumbnails.
 *
 * @param sheet what was found
 * @param thumbnails side by side, evenly spread over the clip's frames
 * @param thumbnailCount how many
 * @param complaint what the decoder said; empty when all was well
 */
public record ClipScan(ClipSheet sheet, BufferedImage thumbnails, int thumbnailCount, String complaint) {
    /** Longer side of the small file, as large as a page of 1280 pixels can show. */
    public static final int PROXY_SIDE = 1280;

    private static final int THUMBNAIL_SIDE = 160;
    /** Twice as many are held while one does not know how many there will be. */
    private static final int MOST_THUMBNAILS = 100;

    /** Frames between two that can be decoded on their own: few, so that a browser gets to any frame soon. */
    private static final String KEY_EVERY = "10";

    /** Far more than five minutes of 4K take. */
    private static final Duration MOST = Duration.ofHours(2);

    /** Where a scan stops. */
    public record Limits(int frames) {}

    /**
     * @param proxy where the small file is written
     * @param times a temporary file
     * @throws UnreadableClipException when not one frame can be decoded, or there are more than allowed
     */
    public static ClipScan of(Path file, ClipInfo info, Path proxy, Path times, Limits limits, Progress progress) {
        Size small = proxySize(info.size());
        Size thumbnail = info.size().fitting(THUMBNAIL_SIDE);
        try (Tool tool = Tool.ffmpeg(MOST, arguments(file, info, proxy, times, small, thumbnail))) {
            Thumbnails strip = new Thumbnails(thumbnail);
            Cuts cuts = new Cuts();
            double expected = Math.max(1, info.micros() / 1e6 * info.rate());
            byte[] buffer = new byte[Math.toIntExact(thumbnail.pixels() * 3)];
            InputStream out = tool.out();
            int frames = 0;
            while (out.readNBytes(buffer, 0, buffer.length) == buffer.length) {
                if (++frames > limits.frames()) {
                    throw new UnreadableClipException("it has more than " + limits.frames() + " frames");
                }
                strip.add(buffer);
                cuts.add(lightness(buffer, thumbnail));
                progress.at(Math.min(0.99, frames / expected));
            }
            boolean content = tool.ended();
            List<Long> ticks = ticks(times);
            int known = Math.min(frames, ticks.size());
            if (known == 0) {
                throw new UnreadableClipException("not one of its frames can be decoded (" + tool.reason() + ")");
            }
            String complaint = content && tool.reason().isEmpty() ? "" : tool.reason();
            ClipSheet sheet = new ClipSheet(
                    info,
                    ticks.subList(0, known),
                    cuts.found().stream().filter(cut -> cut < known).toList());
            return new ClipScan(sheet, strip.image(), strip.count(), complaint);
        } catch (IOException fault) {
            throw new ClipToolException("the clip could not be gone through", fault);
        }
    }

    /**
     * Only the times of the frames.
     *
     * @param times a temporary file
     */
    static ClipSheet times(Path file, ClipInfo info, Path times) {
        List<String> arguments = new ArrayList<>(List.of("-threads", "2", "-copyts"));
        arguments.addAll(Tool.input(file));
        arguments.addAll(
                List.of("-filter_complex", "[0:v:0]" + ClipFrames.RISING + ",scale=16:16:flags=neighbor[times]"));
        arguments.addAll(timesOutput(times));
        try (Tool tool = Tool.ffmpeg(MOST, arguments)) {
            tool.ended();
            List<Long> ticks = ticks(times);
            if (ticks.isEmpty()) {
                throw new UnreadableClipException("not one of its frames can be decoded (" + tool.reason() + ")");
            }
            return new ClipSheet(info, ticks, List.of());
        } catch (IOException fault) {
            throw new ClipToolException("the clip could not be gone through", fault);
        }
    }

    private static List<String> timesOutput(Path times) {
        return List.of(
                "-map",
                "[times]",
                "-fps_mode",
                "passthrough",
                "-enc_time_base",
                "-1",
                "-f",
                "framecrc",
                "file:" + times.toAbsolutePath());
    }

    /** Of the small file; encoders want even sides. */
    public static Size proxySize(Size size) {
        Size fitting = size.fitting(PROXY_SIDE);
        return new Size(Math.max(2, fitting.width() / 2 * 2), Math.max(2, fitting.height() / 2 * 2));
    }

    private static List<String> arguments(
            Path file, ClipInfo info, Path proxy, Path times, Size small, Size thumbnail) {
        ClipColours colours = info.colours();
        String in = colours.isRgb()
                ? ""
                : ":in_color_matrix=" + colours.scalerMatrix() + ":in_range=" + colours.scalerRange();
        String graph = "[0:v:0]" + ClipFrames.RISING + ",split=3[a][b][c];"
                + "[a]setpts=PTS-STARTPTS,scale=" + small.width() + ":" + small.height()
                + ":flags=bicubic" + in + ":out_color_matrix=bt709:out_range=limited,format=yuv420p,setsar=1[proxy];"
                + "[b]scale=" + thumbnail.width() + ":" + thumbnail.height()
                + ":flags=area" + in + ":out_range=full,format=rgb24[small];"
                + "[c]scale=16:16:flags=neighbor[times]";
        List<String> all = new ArrayList<>(List.of("-threads", "2", "-copyts"));
        all.addAll(Tool.input(file));
        all.addAll(List.of("-filter_complex", graph));
        all.addAll(List.of(
                "-map",
                "[proxy]",
                "-fps_mode",
                "passthrough",
                "-enc_time_base",
                "1:1000000",
                "-c:v",
                "libx264",
                "-preset",
                "veryfast",
                "-crf",
                "17",
                "-bf",
                "0",
                "-g",
                KEY_EVERY,
                "-pix_fmt",
                "yuv420p",
                "-colorspace",
                "bt709",
                "-color_primaries",
                "bt709",
                "-color_trc",
                "bt709",
                "-color_range",
                "tv",
                "-video_track_timescale",
                "1000000",
                "-movflags",
                "+faststart",
                "-f",
                "mp4",
                "file:" + proxy.toAbsolutePath()));
        all.addAll(List.of("-map", "[small]", "-fps_mode", "passthrough", "-f", "rawvideo", "pipe:1"));
        all.addAll(timesOutput(times));
        return all;
    }

    /** Lines of numbers with commas between them; the third is the time. What begins with # is about the whole. */
    private static List<Long> ticks(Path times) throws IOException {
        List<Long> out = new ArrayList<>();
        for (String line : Files.readAllLines(times, StandardCharsets.UTF_8)) {
            String[] columns = line.split(",", -1);
            if (!line.startsWith("#") && columns.length > 3) {
                out.add(Long.parseLong(columns[2].strip()));
            }
        }
        return out;
    }

    private static Plane lightness(byte[] rgb, Size size) {
        Plane out = new Plane(size);
        float[] samples = out.samples();
        for (int i = 0; i < samples.length; i++) {
            samples[i] = (2 * (rgb[3 * i] & 0xff) + 5 * (rgb[3 * i + 1] & 0xff) + (rgb[3 * i + 2] & 0xff)) / (8 * 255f);
        }
        return out;
    }

    /** Every so many frames one is kept; when there are too many, every second one of them goes. */
    private static final class Thumbnails {
        private final Size size;
        private final List<byte[]> kept = new ArrayList<>();
        private int every = 1;
        private int seen;

        Thumbnails(Size size) {
            this.size = size;
        }

        void add(byte[] rgb) {
            if (seen++ % every != 0) {
                return;
            }
            kept.add(rgb.clone());
            if (kept.size() >= 2 * MOST_THUMBNAILS) {
                for (int i = kept.size() - 1; i > 0; i -= 2) {
                    kept.remove(i);
                }
                every *= 2;
            }
        }

        int count() {
            return Math.min(kept.size(), MOST_THUMBNAILS);
        }

        BufferedImage image() {
            int count = Math.max(1, count());
            BufferedImage out = new BufferedImage(size.width() * count, size.height(), BufferedImage.TYPE_INT_RGB);
            for (int i = 0; i < count(); i++) {
                byte[] rgb = kept.get((int) ((i + 0.5) * kept.size() / count));
                for (int y = 0; y < size.height(); y++) {
                    for (int x = 0; x < size.width(); x++) {
                        int at = 3 * (y * size.width() + x);
                        out.setRGB(
                                i * size.width() + x,
                                y,
                                (rgb[at] & 0xff) << 16 | (rgb[at + 1] & 0xff) << 8 | rgb[at + 2] & 0xff);
                    }
                }
            }
            return out;
        }
    }
}
