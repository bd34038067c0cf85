package app.yubble.media.picture;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import java.awt.color.ColorSpace;
import java.awt.image.BufferedImage;
import java.awt.image.ComponentColorModel;
import java.awt.image.DataBuffer;
import java.awt.image.DataBufferByte;
import java.awt.image.DataBufferUShort;
import java.awt.image.Raster;
import java.awt.image.WritableRaster;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
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
 * unchanged, and the smooth gradients that blur makes do not show bands.
 */
public final class PictureWriter {
    /** Pixels of the longer side of a thumbnail, as EXIF has it. */
    private static final int THUMBNAIL = 160;

    private static final double THUMBNAIL_QUALITY = 0.8;

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
        DecodedPicture there = settings.carried().by(picture, origin);
        encode(there.picture(), there.origin(), settings, out);
    }

    static void encode(Picture picture, Origin origin, WriteSettings settings, OutputStream out) throws IOException {
        switch (settings.format()) {
            case JPEG -> writeJpeg(picture, origin, settings.quality(), settings.halvesColour(), out);
            case PNG8 -> PngWriter.write(eightBit(picture, origin.curve()), origin, out);
            case PNG16 -> PngWriter.write(sixteenBit(picture, origin.curve()), origin, out);
            case TIFF8 -> TiffWriter.write(List.of(eightBit(picture, origin.curve())), origin, out);
            case TIFF16 -> TiffWriter.write(List.of(sixteenBit(picture, origin.curve())), origin, out);
            case WEBP -> CodecTools.webp(picture, origin, settings.quality(), out);
            case AVIF -> CodecTools.avif(picture, origin, settings, out);
        }
    }

    /** A JPEG for looking at, without any profile: browsers take its code values as they are. */
    public static void writeSeen(Picture picture, ToneCurve curve, double quality, OutputStream out)
            throws IOException {
        writeJpeg(picture, new Origin("JPEG", picture.size(), null, curve, Camera.UNKNOWN), quality, false, out);
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
        return deep ? sixteenBit(picture, curve) : eightBit(picture, curve);
    }

    private static BufferedImage eightBit(Picture picture, ToneCurve curve) {
        int width = picture.width();
        BufferedImage image = new BufferedImage(width, picture.height(), BufferedImage.TYPE_3BYTE_BGR);
        byte[] data = ((DataBufferByte) image.getRaster().getDataBuffer()).getData();
        float[] red = picture.red().samples();
        float[] green = picture.green().samples();
        float[] blue = picture.blue().samples();
        EightBit redCode = curve.eightBit(0);
        EightBit greenCode = curve.eightBit(1);
        EightBit blueCode = curve.eightBit(2);
        Bands.ofRows(picture.height(), (first, last) -> {
            for (int i = first * width, o = 3 * i; i < last * width; i++, o += 3) {
                float noise = ((i * 0x9E3779B1) >>> 8) * (0.9f / (1 << 24)) - 0.45f;
                data[o] = blueCode.of(blue[i], noise);
                data[o + 1] = greenCode.of(green[i], noise);
                data[o + 2] = redCode.of(red[i], noise);
            }
        });
        return image;
    }

    private static BufferedImage sixteenBit(Picture picture, ToneCurve curve) {
        int width = picture.width();
        WritableRaster raster =
                Raster.createInterleavedRaster(DataBuffer.TYPE_USHORT, width, picture.height(), 3, null);
        short[] data = ((DataBufferUShort) raster.getDataBuffer()).getData();
        for (int c = 0; c < 3; c++) {
            float[] encoding = curve.encoding(c);
            float[] from = picture.planes().get(c).samples();
            int offset = c;
            Bands.ofRows(picture.height(), (first, last) -> {
                for (int i = first * width; i < last * width; i++) {
                    data[i * 3 + offset] = (short) Math.round(ToneCurve.encoded(encoding, from[i]) * 65535);
                }
            });
        }
        ComponentColorModel model = new ComponentColorModel(
                ColorSpace.getInstance(ColorSpace.CS_sRGB), false, false, 1, DataBuffer.TYPE_USHORT);
        return new BufferedImage(model, raster, false, null);
    }

    private static void writeJpeg(
            Picture picture, Origin origin, double quality, boolean halvesColour, OutputStream out) throws IOException {
        byte[] bytes = StripedJpeg.of(eightBit(picture, origin.curve()), quality, halvesColour);
        ExifBlock exif = origin.notes().exif();
        byte[] exifBytes = exif == null ? null : exif.bytes(thumbnail(picture, origin));
        out.write(bytes, 0, 2);
        out.write(Blocks.jpegSegments(new Blocks(
                origin.profile(),
                exifBytes,
                origin.notes().xmp(),
                origin.notes().iptc())));
        out.write(bytes, 2, bytes.length - 2);
    }

    private static byte[] thumbnail(Picture picture, Origin origin) throws IOException {
        Picture small = Resample.toSize(picture, picture.size().fitting(THUMBNAIL));
        return StripedJpeg.of(eightBit(small, origin.curve()), THUMBNAIL_QUALITY, true);
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
