package app.yubble.media.picture;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import java.awt.color.ColorSpace;
import java.awt.image.BufferedImage;
import java.awt.image.ComponentColorModel;
import java.awt.image.DataBuffer;
import java.awt.image.DataBufferByte;
import java.awt.image.DataBufferUShort;
import java.awt.image.Raster;
import java.awt.image.WritableRaster;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.zip.DeflaterOutputStream;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageTypeSpecifier;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.metadata.IIOMetadata;
import javax.imageio.metadata.IIOMetadataNode;
import javax.imageio.plugins.tiff.BaselineTIFFTagSet;
import javax.imageio.plugins.tiff.ExifGPSTagSet;
import javax.imageio.plugins.tiff.ExifParentTIFFTagSet;
import javax.imageio.plugins.tiff.ExifTIFFTagSet;
import javax.imageio.plugins.tiff.TIFFDirectory;
import javax.imageio.plugins.tiff.TIFFField;
import javax.imageio.plugins.tiff.TIFFTag;
import javax.imageio.plugins.tiff.TIFFTagSet;
import javax.imageio.stream.ImageOutputStream;
import org.jspecify.annotations.Nullable;

/**
 * Writes pictures with the tone curve, profile and metadata of their origin.
 *
 * <p>Eight-bit values are dithered by less than half a step: a value that came unchanged from an 8-bit file comes out
 * unchanged, and the smooth gradients that blur makes do not show bands.
 */
public final class PictureWriter {
    private PictureWriter() {}

    /** What can be written. */
    public enum Format {
        JPEG("image/jpeg", "jpg"),
        PNG8("image/png", "png"),
        PNG16("image/png", "png"),
        TIFF16("image/tiff", "tif");

        private final String mediaType;
        private final String ending;

        Format(String mediaType, String ending) {
            this.mediaType = mediaType;
            this.ending = ending;
        }

        public String mediaType() {
            return mediaType;
        }

        public String ending() {
            return ending;
        }

        /** By the ending of a file name; PNG and TIFF are 16-bit. */
        public static Optional<Format> ofName(String name) {
            String lower = name.toLowerCase(Locale.ROOT);
            if (lower.endsWith(".jpg") || lower.endsWith(".jpeg")) {
                return Optional.of(JPEG);
            }
            if (lower.endsWith(".png")) {
                return Optional.of(PNG16);
            }
            return lower.endsWith(".tif") || lower.endsWith(".tiff") ? Optional.of(TIFF16) : Optional.empty();
        }
    }

    /**
     * @param quality for JPEG, in [0,1]
     */
    public static void write(Picture picture, Origin origin, Format format, double quality, OutputStream out)
            throws IOException {
        switch (format) {
            case JPEG -> writeJpeg(picture, origin, quality, out);
            case PNG8 -> writePng(eightBit(picture, origin.curve()), origin, out);
            case PNG16 -> writePng(sixteenBit(picture, origin.curve()), origin, out);
            case TIFF16 -> writeTiff(sixteenBit(picture, origin.curve()), origin, out);
        }
    }

    /** A JPEG for looking at, without any profile: browsers take its code values as they are. */
    public static void writeSeen(Picture picture, ToneCurve curve, double quality, OutputStream out)
            throws IOException {
        writeJpeg(picture, new Origin("JPEG", picture.size(), null, curve, null, Camera.UNKNOWN), quality, out);
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
        writePng(new BufferedImage(model, raster, false, null), Origin.srgb(plane.size()), out);
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

    private static void writeJpeg(Picture picture, Origin origin, double quality, OutputStream out) throws IOException {
        byte[] bytes = StripedJpeg.of(eightBit(picture, origin.curve()), quality);
        out.write(bytes, 0, 2);
        out.write(Blocks.jpegSegments(origin.profile(), exifBytes(origin)));
        out.write(bytes, 2, bytes.length - 2);
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

    private static byte @Nullable [] exifBytes(Origin origin) {
        ExifBlock exif = origin.exif();
        return exif == null ? null : exif.bytes();
    }

    private static void writePng(BufferedImage image, Origin origin, OutputStream out) throws IOException {
        ImageWriter writer = writer("com.sun.imageio.plugins.png.PNGImageWriter", "png");
        try (ImageOutputStream to = ImageIO.createImageOutputStream(out)) {
            ImageWriteParam param = writer.getDefaultWriteParam();
            param.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            // 0 is the strongest and slowest, 1 stores; this is deflate at a low level, for large pictures.
            param.setCompressionQuality(0.6f);
            IIOMetadata metadata = writer.getDefaultImageMetadata(new ImageTypeSpecifier(image), param);
            IIOMetadataNode root = new IIOMetadataNode("javax_imageio_png_1.0");
            byte[] profile = origin.profile();
            if (profile != null) {
                IIOMetadataNode node = new IIOMetadataNode("iCCP");
                node.setAttribute("profileName", "profile");
                node.setAttribute("compressionMethod", "deflate");
                node.setUserObject(deflated(profile));
                root.appendChild(node);
            }
            byte[] exif = exifBytes(origin);
            if (exif != null) {
                IIOMetadataNode chunks = new IIOMetadataNode("UnknownChunks");
                IIOMetadataNode chunk = new IIOMetadataNode("UnknownChunk");
                chunk.setAttribute("type", "eXIf");
                chunk.setUserObject(exif);
                chunks.appendChild(chunk);
                root.appendChild(chunks);
            }
            if (root.hasChildNodes()) {
                metadata.mergeTree("javax_imageio_png_1.0", root);
            }
            writer.setOutput(to);
            writer.write(null, new IIOImage(image, null, metadata), param);
        } finally {
            writer.dispose();
        }
    }

    private static byte[] deflated(byte[] data) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (DeflaterOutputStream deflater = new DeflaterOutputStream(out)) {
            deflater.write(data);
        }
        return out.toByteArray();
    }

    private static void writeTiff(BufferedImage image, Origin origin, OutputStream out) throws IOException {
        ImageWriter writer = writer("com.sun.imageio.plugins.tiff.TIFFImageWriter", "tiff");
        try (ImageOutputStream to = ImageIO.createImageOutputStream(out)) {
            ImageWriteParam param = writer.getDefaultWriteParam();
            param.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            param.setCompressionType("ZLib");
            param.setCompressionQuality(0.6f);
            TIFFDirectory main = TIFFDirectory.createFromMetadata(
                    writer.getDefaultImageMetadata(new ImageTypeSpecifier(image), param));
            main.addTagSet(ExifParentTIFFTagSet.getInstance());
            byte[] profile = origin.profile();
            if (profile != null) {
                TIFFTag tag = BaselineTIFFTagSet.getInstance().getTag(BaselineTIFFTagSet.TAG_ICC_PROFILE);
                main.addTIFFField(new TIFFField(tag, TIFFTag.TIFF_UNDEFINED, profile.length, profile));
            }
            ExifBlock exif = origin.exif();
            if (exif != null) {
                addFields(main, BaselineTIFFTagSet.getInstance(), exif.main());
                addDirectory(
                        main, ExifTIFFTagSet.getInstance(), ExifParentTIFFTagSet.TAG_EXIF_IFD_POINTER, exif.exif());
                addDirectory(
                        main, ExifGPSTagSet.getInstance(), ExifParentTIFFTagSet.TAG_GPS_INFO_IFD_POINTER, exif.gps());
            }
            writer.setOutput(to);
            writer.write(null, new IIOImage(image, null, main.getAsMetadata()), param);
        } finally {
            writer.dispose();
        }
    }

    private static void addDirectory(
            TIFFDirectory main, TIFFTagSet tags, int pointer, Map<Integer, ExifBlock.Entry> entries) {
        if (!entries.isEmpty()) {
            TIFFTag parent = ExifParentTIFFTagSet.getInstance().getTag(pointer);
            TIFFDirectory directory = new TIFFDirectory(new TIFFTagSet[] {tags}, parent);
            addFields(directory, tags, entries);
            main.addTIFFField(new TIFFField(parent, TIFFTag.TIFF_LONG, 1L, directory));
        }
    }

    private static void addFields(TIFFDirectory directory, TIFFTagSet tags, Map<Integer, ExifBlock.Entry> entries) {
        entries.forEach((number, entry) -> {
            TIFFTag tag = tags.getTag(number);
            if (tag != null && tag.isDataTypeOK(entry.type()) && entry.count() > 0) {
                int count = entry.type() == TIFFTag.TIFF_ASCII ? 1 : entry.count();
                directory.addTIFFField(new TIFFField(tag, entry.type(), count, TiffValues.of(entry)));
            }
        });
    }
}
