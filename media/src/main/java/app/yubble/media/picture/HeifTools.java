package app.yubble.media.picture;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/**
 * Converts HEIF and AVIF files through Debian's libheif tools, as a separate process with a time limit, in a folder of its
 * own that is removed afterwards. The library refuses pictures that claim unreasonable sizes.
 */
public final class HeifTools {
    private static final String PROGRAM = "heif-convert";
    // A file can claim any size; 4 GB are enough for 120 megapixels.
    private static final String LIMITED =
            "ulimit -v 4000000; command -v \"$0\" >/dev/null || exit 127; exec \"$0\" \"$@\"";
    private static final int NOT_FOUND = 127;
    private static final long SECONDS = 60;

    private HeifTools() {}

    /**
     * A converted file.
     *
     * @param picture PNG with the profile of the file, upright
     * @param depth PNG of its auxiliary depth picture, as it is stored; null when there is none
     */
    public record Converted(byte[] picture, byte @Nullable [] depth) {}

    /** By the first bytes: an ISO base media file with a brand of still pictures. */
    public static boolean isHeif(byte[] file) {
        if (file.length < 16 || file[4] != 'f' || file[5] != 't' || file[6] != 'y' || file[7] != 'p') {
            return false;
        }
        String brand = new String(file, 8, 4, java.nio.charset.StandardCharsets.ISO_8859_1);
        return List.of("heic", "heix", "heim", "heis", "mif1", "msf1", "avif", "avis")
                .contains(brand);
    }

    /** @throws UnreadablePictureException when the tools are missing, or refuse the file */
    public static Converted convert(byte[] file) {
        Path folder = null;
        try {
            folder = Files.createTempDirectory("yubble-heif-");
            Path in = folder.resolve("in.heif");
            Path out = folder.resolve("out.png");
            Files.write(in, file);
            run(folder, in, out);
            try (var made = Files.list(folder)) {
                Optional<Path> depth = made.filter(
                                path -> path.getFileName().toString().startsWith("out-depth"))
                        .findFirst();
                if (!Files.exists(out)) {
                    throw new UnreadablePictureException("the HEIF file holds no picture, or several");
                }
                return new Converted(
                        Files.readAllBytes(out), depth.isPresent() ? Files.readAllBytes(depth.get()) : null);
            }
        } catch (IOException fault) {
            throw new UncheckedIOException("the HEIF file could not be converted", fault);
        } finally {
            remove(folder);
        }
    }

    private static void run(Path folder, Path in, Path out) throws IOException {
        Process process = new ProcessBuilder(
                        "sh", "-c", LIMITED, PROGRAM, "--quiet", "--with-aux", in.toString(), out.toString())
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("said").toFile())
                .start();
        try {
            if (!process.waitFor(SECONDS, TimeUnit.SECONDS)) {
                throw new UnreadablePictureException("the HEIF file took longer than a minute to decode");
            }
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
            throw new UnreadablePictureException("decoding the HEIF file was interrupted", interrupted);
        } finally {
            process.destroyForcibly();
        }
        if (process.exitValue() == NOT_FOUND) {
            throw new UnreadablePictureException(
                    "HEIF and AVIF files need the libheif tools; on Debian: apt-get install libheif-examples");
        }
        if (process.exitValue() != 0) {
            String said = Files.readString(folder.resolve("said"), java.nio.charset.StandardCharsets.ISO_8859_1)
                    .strip();
            throw new UnreadablePictureException("the HEIF file is cut off or damaged ("
                    + said.lines()
                            .findFirst()
                            .map(line -> line.length() > 120 ? line.substring(0, 120) : line)
                            .orElse("no reason given")
                    + ")");
        }
    }

    private static void remove(@Nullable Path folder) {
        if (folder == null) {
            return;
        }
        try (var all = Files.walk(folder)) {
            for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(path);
            }
        } catch (IOException fault) {
            throw new UncheckedIOException("temporary files could not be removed", fault);
        }
    }
}
