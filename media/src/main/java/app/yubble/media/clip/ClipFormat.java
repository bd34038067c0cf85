package app.yubble.media.clip;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** What a clip can be delivered as. */
public enum ClipFormat {
    /** H.264 in MP4: plays everywhere. */
    MP4("mp4", "video/mp4", "mp4", Set.of("aac", "mp3", "ac3", "eac3", "alac", "opus", "flac"), List.of("aac", "320k")),
    /** VP9 in WebM. */
    VP9("webm", "video/webm", "webm", Set.of("opus", "vorbis"), List.of("libopus", "192k")),
    /** AV1 in WebM: small, slow to make. */
    AV1("webm", "video/webm", "webm", Set.of("opus", "vorbis"), List.of("libopus", "192k")),
    /** FFV1 in Matroska: without loss, for other programs. */
    FFV1("mkv", "video/x-matroska", "matroska", Set.of(), List.of()),
    /** A picture a frame, 16 bits, as one zip. */
    PNG_FRAMES("zip", "application/zip", "", Set.of(), List.of()),
    /** The same as TIFF. */
    TIFF_FRAMES("zip", "application/zip", "", Set.of(), List.of()),
    /** Depth without loss: FFV1 with 16 bits of grey, white near. */
    DEPTH_FFV1("mkv", "video/x-matroska", "matroska", Set.of(), List.of()),
    /** Depth with 8 bits of grey in MP4. */
    DEPTH_MP4("mp4", "video/mp4", "mp4", Set.of(), List.of()),
    /** Depth as 16-bit grey PNG files in a zip. */
    DEPTH_FRAMES("zip", "application/zip", "", Set.of(), List.of());

    private static final double BEST = 1;

    private final String ending;
    private final String mediaType;
    private final String muxer;
    private final Set<String> sounds;
    private final List<String> otherSound;

    ClipFormat(String ending, String mediaType, String muxer, Set<String> sounds, List<String> otherSound) {
        this.ending = ending;
        this.mediaType = mediaType;
        this.muxer = muxer;
        this.sounds = sounds;
        this.otherSound = otherSound;
    }

    public String ending() {
        return ending;
    }

    public String mediaType() {
        return mediaType;
    }

    String muxer() {
        return muxer;
    }

    /** Whether it is pictures and no film. */
    public boolean isFrames() {
        return muxer.isEmpty();
    }

    /** Whether it is depth and not the result. */
    public boolean isDepth() {
        return this == DEPTH_FFV1 || this == DEPTH_MP4 || this == DEPTH_FRAMES;
    }

    /** By the ending of a file's name. */
    public static Optional<ClipFormat> ofName(String name) {
        String lower = name.toLowerCase(Locale.ROOT);
        return lower.endsWith(".mp4")
                ? Optional.of(MP4)
                : lower.endsWith(".webm")
                        ? Optional.of(VP9)
                        : lower.endsWith(".mkv") ? Optional.of(FFV1) : Optional.empty();
    }

    /** How sound is written: as it is when the container takes it. */
    List<String> sound(List<String> codecs) {
        boolean kept = this == FFV1 || sounds.containsAll(codecs);
        return kept ? List.of("-c:a", "copy") : List.of("-c:a", otherSound.get(0), "-b:a", otherSound.get(1));
    }

    /** Layout of the samples that are encoded. */
    String pixels(int bits) {
        if (this != FFV1) {
            return "yuv420p";
        }
        // Two bits more than the source has: red, green and blue of eight bits come back exactly.
        return bits <= 8 ? "yuv444p10le" : bits <= 10 ? "yuv444p12le" : "yuv444p16le";
    }

    /** @param quality from 0.3 to 1 */
    List<String> encoder(double quality) {
        double less = BEST - quality;
        return switch (this) {
            case MP4 ->
                List.of(
                        "-c:v",
                        "libx264",
                        "-preset",
                        "medium",
                        "-crf",
                        String.valueOf(Math.round(13 + 25 * less)),
                        "-bf",
                        "2");
            case VP9 ->
                List.of(
                        "-c:v",
                        "libvpx-vp9",
                        "-b:v",
                        "0",
                        "-crf",
                        String.valueOf(Math.round(18 + 40 * less)),
                        "-row-mt",
                        "1",
                        "-deadline",
                        "good",
                        "-cpu-used",
                        "4",
                        "-auto-alt-ref",
                        "0");
            case AV1 ->
                List.of("-c:v", "libsvtav1", "-preset", "8", "-crf", String.valueOf(Math.round(20 + 45 * less)));
            case FFV1 -> List.of("-c:v", "ffv1", "-level", "3", "-g", "1", "-slices", "4", "-slicecrc", "1");
            default -> throw new IllegalStateException(this + " is no film");
        };
    }
}
