package app.yubble.media.picture;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Converts HEIF and AVIF files through Debian's libheif tools, as a separate process with a time limit, in a folder of its
 * own that is removed afterwards. The library refuses pictures that claim unreasonable sizes.
 */
public final class HeifTools {
    private static final OutsideProgram PROGRAM =
            new OutsideProgram("the HEIF file", "is cut off or damaged", "libheif-examples", Duration.ofMinutes(1));

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
        try {
            return OutsideProgram.inFolder(folder -> {
                Files.write(folder.resolve("in.heif"), file);
                PROGRAM.run(folder, List.of("heif-convert", "--quiet", "--with-aux", "in.heif", "out.png"));
                Path out = folder.resolve("out.png");
                if (!Files.exists(out)) {
                    throw new UnreadablePictureException("the HEIF file holds no picture, or several");
                }
                try (var made = Files.list(folder)) {
                    Optional<Path> depth = made.filter(
                                    path -> path.getFileName().toString().startsWith("out-depth"))
                            .findFirst();
                    return new Converted(
                            Files.readAllBytes(out), depth.isPresent() ? Files.readAllBytes(depth.get()) : null);
                }
            });
        } catch (IOException fault) {
            throw new UncheckedIOException("the HEIF file could not be converted", fault);
        }
    }
}
