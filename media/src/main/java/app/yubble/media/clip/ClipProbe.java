package app.yubble.media.clip;

import app.yubble.core.raster.Size;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Asks a file what it is, without decoding more than a few of its frames. */
public final class ClipProbe {
    private static final Duration MOST = Duration.ofSeconds(30);
    private static final int MOST_ANSWER = 4 << 20;
    private static final JsonMapper JSON = new JsonMapper();

    private static final Map<String, String> CODECS = Map.ofEntries(
            Map.entry("h264", "H.264"),
            Map.entry("hevc", "H.265"),
            Map.entry("vp8", "VP8"),
            Map.entry("vp9", "VP9"),
            Map.entry("av1", "AV1"),
            Map.entry("prores", "ProRes"),
            Map.entry("ffv1", "FFV1"),
            Map.entry("mjpeg", "Motion JPEG"),
            Map.entry("mpeg4", "MPEG-4"),
            Map.entry("dnxhd", "VC-3"),
            Map.entry("rawvideo", "uncompressed"));

    /** Still pictures that lie in a file of sound, and the like. */
    private static final String COVER = "attached_pic";

    /** First words of a file in one of the containers, behind four bytes of length: ISO/IEC 14496-12, QuickTime. */
    private static final Set<String> FIRST_BOXES = Set.of("ftyp", "moov", "mdat", "wide", "free", "skip", "pnot");

    /** Longest sides; more than any camera makes. */
    private static final int MOST_SIDE = 16384;

    private static final String NO_CLIP =
            "it is no clip in a form that is read here (MP4, MOV, MKV or WebM), or it is damaged";

    /** Bytes that tell what a file is. */
    public static final int START = 16;

    private ClipProbe() {}

    /** Whether a file that begins so may be a clip: ISO base media but no still picture, or Matroska. */
    public static boolean looksLikeClip(byte[] start) {
        if (start.length < START) {
            return false;
        }
        boolean matroska = (start[0] & 0xff) == 0x1a && start[1] == 0x45 && (start[2] & 0xff) == 0xdf;
        String box = new String(start, 4, 4, java.nio.charset.StandardCharsets.ISO_8859_1);
        return matroska || FIRST_BOXES.contains(box) && !app.yubble.media.picture.HeifTools.isHeif(start);
    }

    /** @throws UnreadableClipException with the reason why it cannot be worked with */
    public static ClipInfo probe(Path file) {
        if (!looksLikeClip(start(file))) {
            throw new UnreadableClipException(NO_CLIP);
        }
        List<String> arguments = new ArrayList<>(List.of("-show_streams", "-show_format", "-of", "json"));
        arguments.addAll(Tool.input(file));
        try (Tool tool = Tool.ffprobe(MOST, arguments)) {
            byte[] answer = tool.out().readNBytes(MOST_ANSWER);
            if (!tool.ended()) {
                throw new UnreadableClipException(refusal(tool.reason()));
            }
            return info(JSON.readTree(answer));
        } catch (IOException | JacksonException fault) {
            throw new ClipToolException("ffprobe's answer could not be read", fault);
        }
    }

    private static byte[] start(Path file) {
        try (InputStream in = Files.newInputStream(file)) {
            return in.readNBytes(START);
        } catch (IOException fault) {
            throw new UnreadableClipException("it cannot be opened", fault);
        }
    }

    private static String refusal(String reason) {
        if (reason.contains("moov atom not found")) {
            return "its index is missing: the file was cut off while it was recorded or copied";
        }
        if (reason.contains("Invalid data found") || reason.contains("not allowed") || reason.isEmpty()) {
            return NO_CLIP;
        }
        return "it cannot be read (" + reason + ")";
    }

    private static ClipInfo info(JsonNode answer) {
        JsonNode pictures = null;
        List<String> sounds = new ArrayList<>();
        for (JsonNode stream : answer.path("streams")) {
            String type = stream.path("codec_type").asString("");
            if (type.equals("video")
                    && pictures == null
                    && stream.path("disposition").path(COVER).asInt(0) == 0) {
                pictures = stream;
            } else if (type.equals("audio")) {
                sounds.add(stream.path("codec_name").asString(ClipColours.UNKNOWN));
            }
        }
        if (pictures == null) {
            throw new UnreadableClipException(
                    sounds.isEmpty() ? "there are no pictures in it" : "there are no pictures in it, only sound");
        }
        return info(answer.path("format"), pictures, sounds);
    }

    private static ClipInfo info(JsonNode format, JsonNode pictures, List<String> sounds) {
        String codec = pictures.path("codec_name").asString("");
        if (!CODECS.containsKey(codec)) {
            throw new UnreadableClipException("its pictures are stored as " + (codec.isEmpty() ? "something" : codec)
                    + ", which is not read here; "
                    + String.join(", ", CODECS.values().stream().sorted().toList())
                    + " are");
        }
        Size size = upright(pictures);
        String pixels = pictures.path("pix_fmt").asString("");
        if (pixels.isEmpty()) {
            throw new UnreadableClipException("it holds no picture that can be decoded");
        }
        ClipColours colours = ClipColours.of(
                pixels,
                told(pictures, "color_space"),
                told(pictures, "color_transfer"),
                told(pictures, "color_primaries"),
                told(pictures, "color_range"),
                Math.min(size.width(), size.height()));
        colours.curve();
        if (!colours.isRgb()) {
            colours.scalerMatrix();
        }
        double start = seconds(pictures, "start_time") - seconds(format, "start_time");
        return new ClipInfo(
                container(format.path("format_name").asString(""), pictures),
                codec,
                pixels,
                bits(pictures, pixels),
                size,
                pictures.path("time_base").asString("1/1000"),
                shape(pictures.path("sample_aspect_ratio").asString("1:1")),
                colours,
                Math.max(0, Math.round(start * 1e6)),
                Math.round(seconds(format, "duration") * 1e6),
                fraction(pictures.path("avg_frame_rate").asString("0/0")),
                !Set.of("progressive", ClipColours.UNKNOWN).contains(told(pictures, "field_order")),
                sounds);
    }

    private static String told(JsonNode stream, String name) {
        String value = stream.path(name).asString(ClipColours.UNKNOWN);
        return value.equals("reserved") || value.equals("unspecified") ? ClipColours.UNKNOWN : value;
    }

    private static String container(String format, JsonNode pictures) {
        if (format.contains("matroska")) {
            String codec = pictures.path("codec_name").asString("");
            return Set.of("vp8", "vp9", "av1").contains(codec) ? "WebM" : "MKV";
        }
        return Set.of("prores", "mjpeg", "dnxhd", "rawvideo")
                        .contains(pictures.path("codec_name").asString(""))
                ? "MOV"
                : "MP4";
    }

    private static int bits(JsonNode stream, String pixels) {
        int told = stream.path("bits_per_raw_sample").asInt(0);
        for (int bits : new int[] {16, 14, 12, 10, 9}) {
            if (pixels.contains(bits + "le") || pixels.contains(bits + "be")) {
                return bits;
            }
        }
        return told > 8 ? told : 8;
    }

    private static Size upright(JsonNode stream) {
        int width = stream.path("width").asInt(0);
        int height = stream.path("height").asInt(0);
        if (width < 1 || height < 1 || width > MOST_SIDE || height > MOST_SIDE) {
            throw new UnreadableClipException("it says its pictures are " + width + "x" + height + " pixels");
        }
        long turn = 0;
        for (JsonNode side : stream.path("side_data_list")) {
            turn = side.path("rotation").isNumber()
                    ? Math.round(side.path("rotation").doubleValue())
                    : turn;
        }
        return Math.floorMod(turn, 180) == 90 ? new Size(height, width) : new Size(width, height);
    }

    private static String shape(String ratio) {
        String fraction = ratio.replace(':', '/');
        return fraction(fraction) <= 0 ? "1/1" : fraction;
    }

    private static double seconds(JsonNode of, String name) {
        try {
            return Double.parseDouble(of.path(name).asString("0"));
        } catch (NumberFormatException untold) {
            return 0;
        }
    }

    /** The value of a text such as 30000/1001; 0 when it is none. */
    static double fraction(String text) {
        String[] parts = text.split("/", 2);
        try {
            double value = Double.parseDouble(parts[0]) / (parts.length == 2 ? Double.parseDouble(parts[1]) : 1);
            return Double.isFinite(value) ? value : 0;
        } catch (NumberFormatException none) {
            return 0;
        }
    }
}
