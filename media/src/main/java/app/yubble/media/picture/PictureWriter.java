package app.yubble.media.picture;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import java.awt.color.ColorSpace;
import java.awt.image.BufferedImage;
import java.awt.image.ComponentColorModel;
import java.awt.image.DataBuffer;
import java.awt.image.DataBufferUShort;
import java.awt.image.Raster;
import java.awt.image.WritableRaster;
import java.io.IOException;
import java.io.OutputStream;
import java.util.Optional;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.ImageOutputStream;

/**
 * Writes pictures with the tone curve, profile and metadata of their origin.
 *
 * <p>Eight-bit values are dithered by less than half a step: a value that came unchanged from an 8-bit file comes out
 * unchanged, and the smooth gradients that blur makes do not show bands. See {@link CodedImage}.
 */
public final class PictureWriter {
    private PictureWriter() {}

    /** What can be written. */
    public enum Format {
        JPEG("image/jpeg", "jpg"),
        PNG8("image/png", "png"),
        PNG16("image/png", "png"),
        TIFF8("image/tiff", "tif"),
        TIFF16("image/tiff", "tif"),
        WEBP("image/webp", "webp"),
        AVIF("image/avif", "avif");

        private final FileType type;

        Format(String mediaType, String ending) {
            type = new FileType(mediaType, ending);
        }

        public FileType type() {
            return type;
        }

        /** By the ending of a file name; PNG and TIFF are 16-bit. */
        public static Optional<Format> ofName(String name) {
            return switch (FileType.endingOf(name)) {
                case "jpg", "jpeg" -> Optional.of(JPEG);
                case "png" -> Optional.of(PNG16);
                case "tif", "tiff" -> Optional.of(TIFF16);
                case "webp" -> Optional.of(WEBP);
                case "avif" -> Optional.of(AVIF);
                default -> Optional.empty();
            };
        }
    }

    /**
     * With the metadata and colours of its origin.
     *
     * @param quality of what is not without loss, in [0,1]
     */
    public static void write(Picture picture, Origin origin, Format format, double quality, OutputStream out)
            throws IOException {
        write(picture, origin, WriteSettings.of(format, quality), out);
    }

    public static void write(Picture picture, Origin origin, WriteSettings settings, OutputStream out)
            throws IOException {
        PictureSheet sheet = new PictureSheet(picture.size(), origin, settings);
        sheet.add(picture, 0, 0);
        sheet.write(out);
    }

    /** A JPEG for looking at, without any profile: browsers take its code values as they are. */
    public static void writeSeen(Picture picture, ToneCurve curve, double quality, OutputStream out)
            throws IOException {
        out.write(StripedJpeg.of(encoded(picture, curve, false), quality, false));
    }

    /** An image of eight bits as JPEG. */
    public static void writeJpeg(BufferedImage image, double quality, OutputStream out) throws IOException {
        ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        try (ImageOutputStream to = ImageIO.createImageOutputStream(out)) {
            ImageWriteParam how = writer.getDefaultWriteParam();
            how.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            how.setCompressionQuality((float) quality);
            writer.setOutput(to);
            writer.write(null, new IIOImage(image, null, null), how);
        } finally {
            writer.dispose();
        }
    }

    /** A plane in [0,1] as a 16-bit grey PNG. */
    public static void writeGrey(Plane plane, OutputStream out) throws IOException {
        WritableRaster raster =
                Raster.createInterleavedRaster(DataBuffer.TYPE_USHORT, plane.width(), plane.height(), 1, null);
        short[] data = ((DataBufferUShort) raster.getDataBuffer()).getData();
        for (int i = 0; i < data.length; i++) {
            data[i] = (short) Math.round(Math.max(0, Math.min(1, plane.samples()[i])) * 65535f);
        }
        ComponentColorModel model = new ComponentColorModel(
                ColorSpace.getInstance(ColorSpace.CS_GRAY), false, false, 1, DataBuffer.TYPE_USHORT);
        PngWriter.write(new BufferedImage(model, raster, false, null), Origin.srgb(plane.size()), out);
    }

    /** The code values of a picture, dithered when they have eight bits. */
    public static BufferedImage encoded(Picture picture, ToneCurve curve, boolean deep) {
        return CodedImage.of(picture, curve, deep);
    }

    static ImageWriter writer(String className, String format) {
        var writers = ImageIO.getImageWritersByFormatName(format);
        ImageWriter first = null;
        while (writers.hasNext()) {
            ImageWriter writer = writers.next();
            first = first == null ? writer : first;
            if (writer.getClass().getName().equals(className)) {
                return writer;
            }
        }
        if (first == null) {
            throw new IllegalStateException("no writer for " + format + " is installed");
        }
        return first;
    }
}
