package app.yubble.media.clip;

import app.yubble.media.picture.ToneCurve;
import java.util.ArrayList;
import java.util.List;

/**
 * How the numbers of a clip are meant, in the words of ITU-T H.273 as ffmpeg writes them.
 *
 * @param matrix from colour differences to red, green and blue: {@code bt709}, {@code smpte170m}, {@code bt470bg},
 *     {@code bt2020nc} or {@code gbr}
 * @param transfer from code values to light
 * @param primaries what red, green and blue are
 * @param full whether black is 0 instead of 16 (of 255)
 * @param told whether the file says which matrix it is; else it was chosen by the picture's size
 */
public record ClipColours(String matrix, String transfer, String primaries, boolean full, boolean told) {
    /** Rows from which a picture whose file says nothing is taken for high definition (ITU-R BT.709, else BT.601). */
    private static final int HIGH_DEFINITION = 720;

    static final String UNKNOWN = "unknown";

    /** What the file says, completed where it says nothing. */
    static ClipColours of(
            String pixels, String matrix, String transfer, String primaries, String range, int shortSide) {
        boolean rgb = pixels.startsWith("gray")
                || pixels.startsWith("gbr")
                || pixels.startsWith("rgb")
                || pixels.startsWith("bgr");
        boolean told = rgb || !matrix.equals(UNKNOWN);
        String usual = shortSide >= HIGH_DEFINITION ? "bt709" : "smpte170m";
        return new ClipColours(
                rgb ? "gbr" : told ? matrix : usual,
                transfer,
                primaries,
                rgb || range.equals("pc") || pixels.startsWith("yuvj"),
                told);
    }

    /** The matrix as ffmpeg's scaler calls it. */
    String scalerMatrix() {
        return switch (matrix) {
            case "bt709" -> "bt709";
            case "smpte170m", "bt470bg" -> "smpte170m";
            case "smpte240m" -> "smpte240m";
            case "fcc" -> "fcc";
            case "bt2020nc" -> "bt2020";
            default ->
                throw new UnreadableClipException("its colours are stored in a way that is not read here (" + matrix
                        + "); convert it to BT.709 first");
        };
    }

    boolean isRgb() {
        return matrix.equals("gbr");
    }

    /** The same numbers taken as they are, without a curve. */
    ClipColours asCodes() {
        return new ClipColours(matrix, "linear", primaries, full, told);
    }

    /** Arguments that write all of it into a film; red, green and blue are written as BT.709. */
    List<String> tags() {
        List<String> out = new ArrayList<>(
                List.of("-colorspace", isRgb() ? "bt709" : matrix, "-color_range", full && !isRgb() ? "pc" : "tv"));
        if (!primaries.equals(UNKNOWN)) {
            out.addAll(List.of("-color_primaries", primaries));
        }
        if (!transfer.equals(UNKNOWN)) {
            out.addAll(List.of("-color_trc", transfer));
        }
        return out;
    }

    String scalerRange() {
        return full ? "full" : "limited";
    }

    /**
     * From code values to light.
     *
     * @throws UnreadableClipException for what cannot be shown faithfully
     */
    public ToneCurve curve() {
        return switch (transfer) {
            case UNKNOWN, "bt709", "smpte170m", "bt2020-10", "bt2020-12", "iec61966-2-4", "bt1361e" -> ToneCurve.BT709;
            case "iec61966-2-1" -> ToneCurve.SRGB;
            case "bt470m" -> ToneCurve.ofGamma(2.2);
            case "bt470bg" -> ToneCurve.ofGamma(2.8);
            case "linear" -> ToneCurve.ofGamma(1);
            case "smpte2084", "arib-std-b67" ->
                throw new UnreadableClipException("it is a high dynamic range clip ("
                        + (transfer.equals("smpte2084") ? "PQ" : "HLG")
                        + "), which is not read yet; convert it to standard dynamic range (BT.709) first");
            default ->
                throw new UnreadableClipException("its brightness is stored in a way that is not read here (" + transfer
                        + "); convert it to BT.709 first");
        };
    }
}
