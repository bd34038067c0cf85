package app.yubble.media.picture;

import java.awt.image.RenderedImage;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Writes WebP and AVIF through Debian's tools, which read a PNG that is written for them. */
final class CodecTools {
    private static final Duration MOST = Duration.ofMinutes(10);
    private static final OutsideProgram WEBP =
            new OutsideProgram("the WebP file", "could not be written", "webp", MOST);
    private static final OutsideProgram AVIF =
            new OutsideProgram("the AVIF file", "could not be written", "libheif-examples", MOST);
    /** Of a side; the format has 14 bits for it. */
    private static final int MOST_WEBP = 16_383;

    private CodecTools() {}

    /** Without loss at quality 1. */
    static void webp(RenderedImage image, Origin origin, double quality, OutputStream out) throws IOException {
        if (Math.max(image.getWidth(), image.getHeight()) > MOST_WEBP) {
            throw new IOException("a WebP file can be " + MOST_WEBP + " pixels wide and high; make it smaller");
        }
        OutsideProgram.inFolder(folder -> {
            Origin plain = origin.withNotes(Notes.NONE);
            writePng(folder, image, plain);
            List<String> command = new ArrayList<>(List.of("cwebp", "-quiet", "-mt", "-metadata", "icc"));
            command.addAll(
                    quality >= 1
                            ? List.of("-lossless", "-exact", "-z", "2")
                            : List.of("-q", percent(quality), "-sharp_yuv"));
            command.addAll(List.of("in.png", "-o", "out.webp"));
            WEBP.run(folder, command);
            ExifBlock exif = origin.notes().exif();
            add(folder, "exif", exif == null ? null : exif.bytes());
            add(folder, "xmp", origin.notes().xmp());
            Files.copy(folder.resolve("out.webp"), out);
            return folder;
        });
    }

    private static void add(Path folder, String kind, byte @Nullable [] content) throws IOException {
        if (content != null) {
            Files.write(folder.resolve(kind), content);
            WEBP.run(folder, List.of("webpmux", "-set", kind, kind, "out.webp", "-o", "with.webp"));
            Files.move(
                    folder.resolve("with.webp"),
                    folder.resolve("out.webp"),
                    java.nio.file.StandardCopyOption.REPLACE_EXISTING);
        }
    }

    /** Ten bits when the image has sixteen. */
    static void avif(RenderedImage image, Origin origin, WriteSettings settings, OutputStream out) throws IOException {
        OutsideProgram.inFolder(folder -> {
            writePng(folder, image, origin);
            boolean lossless = settings.quality() >= 1;
            List<String> command = new ArrayList<>(List.of("heif-enc", "-A"));
            command.addAll(
                    lossless
                            ? List.of("-L", "--matrix_coefficients=0")
                            : List.of("-q", percent(settings.quality()), "-p", "speed=8"));
            command.addAll(List.of(
                    "-p",
                    "chroma=" + (settings.halvesColour() && !lossless ? "420" : "444"),
                    "in.png",
                    "-o",
                    "out.avif"));
            AVIF.run(folder, command);
            Files.copy(folder.resolve("out.avif"), out);
            return folder;
        });
    }

    private static void writePng(Path folder, RenderedImage image, Origin origin) throws IOException {
        try (OutputStream to = Files.newOutputStream(folder.resolve("in.png"))) {
            PngWriter.write(image, origin, to);
        }
    }

    private static String percent(double quality) {
        return String.valueOf(Math.round(100 * quality));
    }
}
