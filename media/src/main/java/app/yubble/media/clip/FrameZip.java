package app.yubble.media.clip;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.picture.Camera;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureWriter;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;

/** Frames as pictures in a zip: {@code frame-0001.png} and on. */
public final class FrameZip implements AutoCloseable {
    private final ZipOutputStream zip;
    private final PictureWriter.Format format;
    private final Origin origin;

    private FrameZip(ZipOutputStream zip, PictureWriter.Format format, Origin origin) {
        this.zip = zip;
        this.format = format;
        this.origin = origin;
    }

    /** @param source whose tone curve the pictures get */
    public static FrameZip create(Path file, ClipFormat format, ClipInfo source, Size size) throws IOException {
        PictureWriter.Format each =
                format == ClipFormat.TIFF_FRAMES ? PictureWriter.Format.TIFF16 : PictureWriter.Format.PNG16;
        Origin origin = new Origin("PNG", size, null, source.colours().curve(), Camera.UNKNOWN);
        return new FrameZip(opened(file), each, origin);
    }

    private static ZipOutputStream opened(Path file) throws IOException {
        ZipOutputStream zip =
                new ZipOutputStream(new BufferedOutputStream(Files.newOutputStream(file)), StandardCharsets.UTF_8);
        // The pictures are deflated already.
        zip.setLevel(0);
        return zip;
    }

    /** @param number from 0 */
    public void add(int number, Picture picture) {
        try {
            put(
                    zip,
                    String.format(
                            Locale.ROOT,
                            "frame-%04d.%s",
                            number + 1,
                            format.type().ending()));
            PictureWriter.write(picture, origin, format, 1, zip);
            zip.closeEntry();
        } catch (IOException fault) {
            throw new UncheckedIOException("a picture could not be stored", fault);
        }
    }

    /** A map as 16-bit grey PNG. */
    public void add(int number, Plane map) {
        try {
            put(zip, String.format(Locale.ROOT, "frame-%04d.png", number + 1));
            PictureWriter.writeGrey(map, zip);
            zip.closeEntry();
        } catch (IOException fault) {
            throw new UncheckedIOException("a map could not be stored", fault);
        }
    }

    private static void put(ZipOutputStream zip, String name) throws IOException {
        ZipEntry entry = new ZipEntry(name);
        // The same bytes for the same frames.
        entry.setTime(0);
        zip.putNextEntry(entry);
    }

    /** Puts all that is in several zips into one. */
    public static void join(List<Path> parts, Path out) throws IOException {
        try (ZipOutputStream all = opened(out)) {
            for (Path part : parts) {
                try (InputStream in = Files.newInputStream(part);
                        ZipInputStream from = new ZipInputStream(in, StandardCharsets.UTF_8)) {
                    for (ZipEntry entry = from.getNextEntry(); entry != null; entry = from.getNextEntry()) {
                        put(all, entry.getName());
                        from.transferTo(all);
                        all.closeEntry();
                    }
                }
            }
        }
    }

    @Override
    public void close() throws IOException {
        zip.close();
    }
}
