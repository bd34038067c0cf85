package app.yubble.media.layered;

import app.yubble.core.refocus.Layers;
import app.yubble.media.picture.Carried;
import app.yubble.media.picture.DecodedPicture;
import app.yubble.media.picture.FileType;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureWriter;
import app.yubble.media.picture.PngWriter;
import app.yubble.media.picture.TiffWriter;
import java.awt.image.BufferedImage;
import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.zip.CRC32;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * Writes the photo, the refocused layer over it, and the result of both, with as many bits as the photo has.
 *
 * <p>{@code OPENRASTER}: OpenRaster 0.0.5, a zip of PNGs. {@code TIFF_PAGES}: the result, the photo and the layer, a page each, in this
 * order; a program that reads only the first page shows the result.
 */
public final class LayeredWriter {
    private static final String MEDIA_TYPE = "image/openraster";
    /** Pixels of the longer side of the thumbnail that the format asks for. */
    private static final int THUMBNAIL = 256;

    private LayeredWriter() {}

    /** What can be written. */
    public enum Format {
        OPENRASTER(MEDIA_TYPE, "ora"),
        TIFF_PAGES("image/tiff", "tif");

        private final FileType type;

        Format(String mediaType, String ending) {
            type = new FileType(mediaType, ending);
        }

        public FileType type() {
            return type;
        }

        /** By the ending of a file name. */
        public static Optional<Format> ofName(String name) {
            return switch (FileType.endingOf(name)) {
                case "ora" -> Optional.of(OPENRASTER);
                case "tif", "tiff" -> Optional.of(TIFF_PAGES);
                default -> Optional.empty();
            };
        }
    }

    public static void write(Layers layers, Origin origin, Format format, Carried carried, OutputStream out)
            throws IOException {
        DecodedPicture photo = carried.by(layers.photo(), origin);
        Layers there = new Layers(
                photo.picture(), carried.by(layers.refocused(), origin).picture(), layers.share());
        LayerImages images = LayerImages.of(there, photo.origin().curve(), origin.isDeep());
        switch (format) {
            case OPENRASTER -> writeOpenRaster(images, there.fitting(THUMBNAIL), photo.origin(), out);
            case TIFF_PAGES ->
                TiffWriter.write(List.of(images.flat(), images.photo(), images.refocused()), photo.origin(), out);
        }
    }

    private static void writeOpenRaster(LayerImages images, Layers small, Origin origin, OutputStream out)
            throws IOException {
        try (ZipOutputStream zip = new ZipOutputStream(new Unclosed(out))) {
            // The format wants it first and uncompressed, so that it can be read at a fixed place.
            byte[] type = MEDIA_TYPE.getBytes(StandardCharsets.US_ASCII);
            ZipEntry first = new ZipEntry("mimetype");
            first.setMethod(ZipEntry.STORED);
            first.setSize(type.length);
            CRC32 sum = new CRC32();
            sum.update(type);
            first.setCrc(sum.getValue());
            zip.putNextEntry(first);
            zip.write(type);
            zip.closeEntry();
            // Pictures are packed already.
            zip.setLevel(Deflater.NO_COMPRESSION);
            zip.putNextEntry(new ZipEntry("stack.xml"));
            zip.write(stack(images.flat()).getBytes(StandardCharsets.UTF_8));
            zip.closeEntry();
            add(zip, "data/refocused.png", images.refocused(), origin);
            add(zip, "data/photo.png", images.photo(), origin);
            add(zip, "mergedimage.png", images.flat(), origin);
            add(
                    zip,
                    "Thumbnails/thumbnail.png",
                    PictureWriter.encoded(small.composed(), origin.curve(), false),
                    origin);
        }
    }

    private static String stack(BufferedImage image) {
        return """
                <?xml version="1.0" encoding="UTF-8"?>
                <image version="0.0.5" w="%d" h="%d">
                  <stack>
                    <layer name="Refocused" src="data/refocused.png" composite-op="svg:src-over" opacity="1.0" x="0" y="0"/>
                    <layer name="Photo" src="data/photo.png" composite-op="svg:src-over" opacity="1.0" x="0" y="0"/>
                  </stack>
                </image>
                """.formatted(image.getWidth(), image.getHeight());
    }

    private static void add(ZipOutputStream zip, String name, BufferedImage image, Origin origin) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        PngWriter.write(image, origin, new Unclosed(zip));
        zip.closeEntry();
    }

    /** More is written after what is written to it. */
    private static final class Unclosed extends FilterOutputStream {
        Unclosed(OutputStream out) {
            super(out);
        }

        @Override
        public void write(byte[] bytes, int from, int length) throws IOException {
            out.write(bytes, from, length);
        }

        @Override
        public void close() throws IOException {
            flush();
        }
    }
}
