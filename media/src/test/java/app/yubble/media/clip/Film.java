package app.yubble.media.clip;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** Clips for tests, made and measured by ffmpeg itself. */
final class Film {
    private Film() {}

    /** Runs a program and gives what it writes. */
    static byte[] run(String... command) {
        try {
            Path errors = Files.createTempFile("film", ".txt");
            Process process =
                    new ProcessBuilder(command).redirectError(errors.toFile()).start();
            byte[] out = process.getInputStream().readAllBytes();
            int code = process.waitFor();
            String said = Files.readString(errors);
            Files.delete(errors);
            assertThat(code).as("%s: %s", String.join(" ", command), said).isZero();
            return out;
        } catch (IOException fault) {
            throw new UncheckedIOException(fault);
        } catch (InterruptedException stopped) {
            throw new IllegalStateException(stopped);
        }
    }

    /** Runs ffmpeg with arguments in one text; {@code OUT} stands for the file. */
    static Path make(Path out, String arguments) {
        List<String> command = new ArrayList<>(List.of("ffmpeg", "-v", "error", "-nostdin", "-y"));
        command.addAll(Arrays.stream(arguments.split(" "))
                .map(each -> each.equals("OUT") ? out.toString() : each)
                .toList());
        run(command.toArray(String[]::new));
        return out;
    }

    /** Times of the frames that ffprobe decodes, in seconds. */
    static List<Double> times(Path file) {
        return numbers(run(
                "ffprobe",
                "-v",
                "error",
                "-select_streams",
                "v:0",
                "-show_entries",
                "frame=pts_time",
                "-of",
                "csv=p=0",
                file.toString()));
    }

    /** Hashes of the packets of the sound. */
    static List<String> sound(Path file) {
        return new String(
                        run(
                                "ffmpeg",
                                "-v",
                                "error",
                                "-i",
                                file.toString(),
                                "-map",
                                "0:a",
                                "-c",
                                "copy",
                                "-f",
                                "framemd5",
                                "-"),
                        StandardCharsets.UTF_8)
                .lines()
                .filter(line -> !line.startsWith("#"))
                .map(line -> line.split(",", -1)[5].strip())
                .toList();
    }

    /** One value of the picture stream. */
    static String told(Path file, String name) {
        return new String(
                        run(
                                "ffprobe",
                                "-v",
                                "error",
                                "-select_streams",
                                "v:0",
                                "-show_entries",
                                "stream=" + name,
                                "-of",
                                "default=nw=1:nk=1",
                                file.toString()),
                        StandardCharsets.UTF_8)
                .strip();
    }

    /** All frames as ffmpeg itself makes 8-bit red, green and blue of them. */
    static byte[] rgb(Path file, String scale) {
        return run(
                "ffmpeg",
                "-v",
                "error",
                "-i",
                file.toString(),
                "-vf",
                "scale=flags=accurate_rnd+full_chroma_int+full_chroma_inp" + scale + ",format=rgb24",
                "-fps_mode",
                "passthrough",
                "-f",
                "rawvideo",
                "-");
    }

    private static List<Double> numbers(byte[] text) {
        return new String(text, StandardCharsets.UTF_8)
                .lines()
                .map(line -> line.replace(",", "").strip())
                .filter(line -> !line.isEmpty())
                .map(Double::parseDouble)
                .toList();
    }
}
