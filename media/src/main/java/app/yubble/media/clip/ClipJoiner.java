package app.yubble.media.clip;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Joins stretches into one film, with the sound of the clip that they were made from. Nothing is encoded anew but sound that the container does not take. */
public final class ClipJoiner {
    private static final Duration MOST = Duration.ofHours(1);

    /** A stretch that was written, and how long its frames are shown in all. */
    public record Stretch(Path file, long micros) {}

    /**
     * Sound for a film.
     *
     * @param fromMicros the time of the film's first frame in the clip, from the clip's first frame
     * @param micros how long the film is
     */
    public record Sound(Path clip, ClipInfo info, long fromMicros, long micros) {}

    private ClipJoiner() {}

    /**
     * @param list a temporary file
     * @param source whose times the frames have
     * @param wanted null for a silent film
     */
    public static void join(
            List<Stretch> stretches, Path list, ClipInfo source, @Nullable Sound wanted, ClipFormat format, Path out) {
        join(stretches, list, source, wanted, format, out, true);
    }

    /** A film of depth, which has no colours and no sound. */
    public static void joinDepth(List<Stretch> stretches, Path list, ClipInfo source, ClipFormat format, Path out) {
        join(stretches, list, source, null, format, out, false);
    }

    private static void join(
            List<Stretch> stretches,
            Path list,
            ClipInfo source,
            @Nullable Sound wanted,
            ClipFormat format,
            Path out,
            boolean coloured) {
        StringBuilder names = new StringBuilder("ffconcat version 1.0\n");
        for (Stretch each : stretches) {
            names.append("file '")
                    .append(each.file().toAbsolutePath().toString().replace("'", "'\\''"))
                    .append("'\nduration ")
                    .append(seconds(each.micros()))
                    .append('\n');
        }
        try {
            Files.writeString(list, names, StandardCharsets.UTF_8);
        } catch (IOException fault) {
            throw new ClipToolException("the clip could not be joined", fault);
        }
        Sound sound = wanted == null || wanted.info().sounds().isEmpty() ? null : wanted;
        List<String> arguments = new ArrayList<>();
        if (sound != null && sound.fromMicros() == 0) {
            // Sound may begin before the first frame: both keep their distance.
            arguments.addAll(List.of("-itsoffset", seconds(sound.info().startMicros())));
        }
        arguments.addAll(List.of(
                "-protocol_whitelist",
                "file,pipe",
                "-f",
                "concat",
                "-safe",
                "0",
                "-i",
                "file:" + list.toAbsolutePath()));
        if (sound != null) {
            if (sound.fromMicros() > 0) {
                arguments.addAll(List.of("-ss", seconds(sound.info().startMicros() + sound.fromMicros())));
            }
            arguments.addAll(List.of("-t", seconds(sound.micros() + sound.info().startMicros())));
            arguments.addAll(Tool.input(sound.clip()));
        }
        arguments.addAll(List.of("-map", "0:v:0"));
        if (sound != null) {
            arguments.addAll(List.of("-map", "1:a"));
            arguments.addAll(format.sound(sound.info().sounds()));
        }
        arguments.addAll(List.of("-c:v", "copy", "-map_metadata", sound != null ? "1" : "-1"));
        if (coloured) {
            arguments.addAll(source.colours().tags());
        }
        if (format == ClipFormat.MP4 || format == ClipFormat.DEPTH_MP4) {
            arguments.addAll(
                    List.of("-video_track_timescale", source.timeBase().split("/", 2)[1], "-movflags", "+faststart"));
        }
        arguments.addAll(List.of("-f", format.muxer(), "file:" + out.toAbsolutePath()));
        try (Tool tool = Tool.ffmpeg(MOST, arguments)) {
            if (!tool.ended()) {
                throw new ClipToolException("the clip could not be joined (" + tool.reason() + ")");
            }
        }
    }

    private static String seconds(long micros) {
        return String.format(java.util.Locale.ROOT, "%d.%06d", micros / 1_000_000, micros % 1_000_000);
    }
}
