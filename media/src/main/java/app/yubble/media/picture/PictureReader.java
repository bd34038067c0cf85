package app.yubble.media.picture;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Size;
import com.drew.imaging.ImageMetadataReader;
import com.drew.imaging.ImageProcessingException;
import com.drew.lang.ByteArrayReader;
import com.drew.metadata.Metadata;
import com.drew.metadata.exif.ExifIFD0Directory;
import com.drew.metadata.exif.ExifReader;
import com.drew.metadata.exif.ExifSubIFDDirectory;
import java.awt.color.ColorSpace;
import java.awt.color.ICC_ColorSpace;
import java.awt.color.ICC_Profile;
import java.awt.image.BufferedImage;
import java.awt.image.ColorConvertOp;
import java.awt.image.IndexColorModel;
import java.awt.image.Raster;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Iterator;
import java.util.Locale;
import java.util.Optional;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.ImageTypeSpecifier;
import javax.imageio.stream.ImageInputStream;
import org.jspecify.annotations.Nullable;

/**
 * Reads picture files as specified in the package documentation.
 *
 * @param mostPixels pictures that claim more are refused before they are decoded
 */
public record PictureReader(long mostPixels) {
    /** 120 megapixels. */
    public static final PictureReader DEFAULT = new PictureReader(120_000_000L);

    private static final String HEIF = "HEIF";

    private static final String RAW = "raw";

    static {
        ImageIO.setUseCache(false);
    }

    /** Size and metadata of a file, without its pixels. */
    public Origin inspect(byte[] file) {
        return inspect(PictureFile.of(file));
    }

    public Origin inspect(PictureFile file) {
        if (file.isHeif()) {
            return named(inspect(file.converted().picture()), HEIF);
        }
        if (file.isRaw()) {
            Size size = claimed(file.developed());
            return rawOrigin(file, size);
        }
        byte[] bytes = file.bytes();
        try (ImageInputStream in = FileStream.of(bytes)) {
            ImageReader reader = reader(bytes, in);
            try {
                return origin(bytes, reader);
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException e) {
            throw unreadable(e);
        }
    }

    public DecodedPicture read(Path file) throws IOException {
        return read(Files.readAllBytes(file));
    }

    /** Decodes the whole file or refuses it. */
    public DecodedPicture read(byte[] file) {
        return read(PictureFile.of(file));
    }

    public DecodedPicture read(PictureFile file) {
        if (file.isHeif()) {
            DecodedPicture converted = read(file.converted().picture());
            return new DecodedPicture(converted.picture(), named(converted.origin(), HEIF));
        }
        if (file.isRaw()) {
            return developed(file);
        }
        byte[] bytes = file.bytes();
        try (ImageInputStream in = FileStream.of(bytes)) {
            ImageReader reader = reader(bytes, in);
            try {
                Origin origin = origin(bytes, reader);
                int turn = orientation(bytes);
                return decoded(whole(bytes, reader), origin, turn);
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException e) {
            throw unreadable(e);
        } catch (OutOfMemoryError e) {
            throw new UnreadablePictureException("the picture needs more memory than there is");
        }
    }

    private DecodedPicture developed(PictureFile file) {
        BufferedImage image = readPlain(file.developed());
        Size size = new Size(image.getWidth(), image.getHeight());
        Picture linear = linear(image, ToneCurve.ofGamma(1), size, 1);
        return ColourSpace.BT2020.ofLinear(linear, RawTools.toSrgb(), rawOrigin(file, size));
    }

    private static Origin rawOrigin(PictureFile file, Size size) {
        byte[] bytes = file.bytes();
        boolean tiff = formatOf(bytes).isPresent();
        Notes notes = tiff ? notes(new Blocks(null, bytes, null, null)) : Notes.NONE;
        Origin plain = new Origin(RAW, size, null, ToneCurve.SRGB, notes, rawCamera(bytes, tiff, size), 16);
        return ColourSpace.BT2020.of(plain);
    }

    private static Camera rawCamera(byte[] bytes, boolean tiff, Size size) {
        return tiff ? camera(bytes, size) : Camera.UNKNOWN;
    }

    /**
     * How large a file says it is as it stands, before anything is decoded.
     *
     * @throws UnreadablePictureException when it is no picture, or larger than any that is taken
     */
    public Size claimed(byte[] file) {
        try (ImageInputStream in = FileStream.of(file)) {
            ImageReader reader = reader(file, in);
            try {
                return claimedSize(reader);
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException e) {
            throw unreadable(e);
        }
    }

    private static Origin named(Origin origin, String format) {
        return origin.withFormat(format);
    }

    /** The samples as they stand in the file, in [0,1], without tone curve: for depth maps. */
    public BufferedImage readPlain(byte[] file) {
        try (ImageInputStream in = FileStream.of(file)) {
            ImageReader reader = reader(file, in);
            try {
                claimedSize(reader);
                return withoutPalette(whole(file, reader));
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException e) {
            throw unreadable(e);
        }
    }

    private static UnreadablePictureException unreadable(Exception e) {
        if (e instanceof UnreadablePictureException already) {
            return already;
        }
        String detail = Optional.ofNullable(e.getMessage()).orElse(e.getClass().getSimpleName());
        return new UnreadablePictureException("the file is cut off or damaged (" + detail + ")", e);
    }

    private static ImageReader reader(byte[] file, ImageInputStream in) {
        String format = formatOf(file)
                .orElseThrow(() -> new UnreadablePictureException(
                        "not a picture that Yubble reads (JPEG, PNG, TIFF, WebP, HEIF, AVIF, raw)"));
        Iterator<ImageReader> readers = ImageIO.getImageReadersByFormatName(format.toLowerCase(Locale.ROOT));
        // The platform's JPEG reader says when a file is cut off; the library's can read CMYK.
        boolean own = format.equals("JPEG") && Blocks.jpegComponents(file) <= 3;
        ImageReader reader = null;
        while (readers.hasNext()) {
            ImageReader candidate = readers.next();
            if (reader == null || own && candidate.getClass().getName().startsWith("com.sun.")) {
                reader = candidate;
            }
        }
        if (reader == null) {
            throw new UnreadablePictureException("no reader for " + format + " files is installed");
        }
        reader.setInput(in, true, false);
        return reader;
    }

    /** By the first bytes, never by the name. */
    static Optional<String> formatOf(byte[] file) {
        if (file.length < 12) {
            return Optional.empty();
        }
        int head = (file[0] & 0xff) << 24 | (file[1] & 0xff) << 16 | (file[2] & 0xff) << 8 | file[3] & 0xff;
        if (head >>> 8 == 0xffd8ff) {
            return Optional.of("JPEG");
        }
        if (head == 0x89504e47) {
            return Optional.of("PNG");
        }
        if (head == 0x49492a00 || head == 0x4d4d002a) {
            return Optional.of("TIFF");
        }
        if (head == 0x52494646 && file[8] == 'W' && file[9] == 'E' && file[10] == 'B' && file[11] == 'P') {
            return Optional.of("WebP");
        }
        return Optional.empty();
    }

    private Size claimedSize(ImageReader reader) throws IOException {
        long width = reader.getWidth(0);
        long height = reader.getHeight(0);
        if (width < 1 || height < 1) {
            throw new UnreadablePictureException("the file says it is " + width + " x " + height + " pixels");
        }
        if (width * height > mostPixels) {
            throw new UnreadablePictureException(String.format(
                    Locale.ROOT,
                    "the file says it is %d x %d pixels, %.0f megapixels; the limit is %.0f",
                    width,
                    height,
                    width * height / 1e6,
                    mostPixels / 1e6));
        }
        return new Size((int) width, (int) height);
    }

    private static BufferedImage whole(byte[] file, ImageReader reader) throws IOException {
        BufferedImage deep = DeepPng.read(file);
        if (deep != null) {
            return deep;
        }
        String[] warnings = {""};
        reader.addIIOReadWarningListener((source, warning) -> warnings[0] += warning + " ");
        BufferedImage image = reader.read(0);
        String said = warnings[0].toLowerCase(Locale.ROOT);
        if (said.contains("premature end") || said.contains("truncated") || said.contains("corrupt")) {
            throw new UnreadablePictureException("the file is cut off or damaged (" + warnings[0].strip() + ")");
        }
        return image;
    }

    private Origin origin(byte[] file, ImageReader reader) throws IOException {
        Size size = claimedSize(reader);
        String format = formatOf(file).orElseThrow();
        Blocks blocks = Blocks.find(file, format);
        Optional<ToneCurve> curve = Optional.ofNullable(blocks.profile()).flatMap(ToneCurve::ofProfile);
        Size upright = orientation(file) >= 5 ? new Size(size.height(), size.width()) : size;
        return new Origin(
                format,
                upright,
                curve.isPresent() ? blocks.profile() : null,
                curve.orElse(ToneCurve.SRGB),
                notes(blocks),
                camera(file, upright),
                bits(reader));
    }

    private static Notes notes(Blocks blocks) {
        byte[] exif = blocks.exif();
        byte[] xmp = blocks.xmp();
        return new Notes(
                exif == null ? null : ExifBlock.parse(exif).orElse(null),
                xmp == null ? null : XmpPacket.kept(xmp),
                blocks.iptc());
    }

    private static int bits(ImageReader reader) throws IOException {
        ImageTypeSpecifier type = reader.getRawImageType(0);
        if (type == null) {
            type = reader.getImageTypes(0).next();
        }
        return type.getSampleModel().getSampleSize(0) > 8 ? 16 : 8;
    }

    private DecodedPicture decoded(BufferedImage read, Origin origin, int turn) {
        BufferedImage image = withoutPalette(read);
        ColorSpace space = image.getColorModel().getColorSpace();
        boolean plain = space.getType() == ColorSpace.TYPE_RGB || space.getType() == ColorSpace.TYPE_GRAY;
        byte[] profile = origin.profile();
        ToneCurve curve = origin.curve();
        if (!plain || profile == null && hasTables(space)) {
            image = new ColorConvertOp(ColorSpace.getInstance(ColorSpace.CS_sRGB), null)
                    .filter(image, new BufferedImage(image.getWidth(), image.getHeight(), BufferedImage.TYPE_INT_RGB));
            profile = null;
            curve = ToneCurve.SRGB;
        }
        Picture picture = linear(image, curve, origin.size(), turn);
        return new DecodedPicture(picture, origin.withColours(profile, curve));
    }

    // An RGB space that is neither sRGB nor described by a curve per channel.
    private static boolean hasTables(ColorSpace space) {
        if (space.isCS_sRGB() || space.getType() != ColorSpace.TYPE_RGB || !(space instanceof ICC_ColorSpace icc)) {
            return false;
        }
        ICC_Profile profile = icc.getProfile();
        return ToneCurve.ofProfile(profile.getData()).isEmpty();
    }

    private static BufferedImage withoutPalette(BufferedImage image) {
        if (image.getColorModel() instanceof IndexColorModel palette) {
            return palette.convertToIntDiscrete(image.getRaster(), palette.hasAlpha());
        }
        return image;
    }

    private static Picture linear(BufferedImage image, ToneCurve curve, Size upright, int turn) {
        Raster raster = image.getRaster();
        Samples samples = Samples.of(image, curve);
        Picture out = Picture.blank(upright);
        float[][] planes = {
            out.red().samples(), out.green().samples(), out.blue().samples()
        };
        int width = image.getWidth();
        int height = image.getHeight();
        Bands.ofRows(height, (from, to) -> {
            float[][] light = new float[planes.length][width];
            for (int y = from; y < to; y++) {
                samples.read(raster, y, light);
                if (turn == 1) {
                    for (int c = 0; c < planes.length; c++) {
                        System.arraycopy(light[c], 0, planes[c], y * width, width);
                    }
                    continue;
                }
                for (int x = 0; x < width; x++) {
                    int at = turned(x, y, width, height, turn);
                    for (int c = 0; c < planes.length; c++) {
                        planes[c][at] = light[c][x];
                    }
                }
            }
        });
        return out;
    }

    /** Where pixel (x, y) of the file goes in the upright picture; {@code turn} is the EXIF orientation 1 to 8. */
    static int turned(int x, int y, int width, int height, int turn) {
        return switch (turn) {
            case 2 -> y * width + (width - 1 - x);
            case 3 -> (height - 1 - y) * width + (width - 1 - x);
            case 4 -> (height - 1 - y) * width + x;
            case 5 -> x * height + y;
            case 6 -> x * height + (height - 1 - y);
            case 7 -> (width - 1 - x) * height + (height - 1 - y);
            case 8 -> (width - 1 - x) * height + y;
            default -> y * width + x;
        };
    }

    /** Only of the EXIF block, which our own walk has found: other parts of a file may claim any length. */
    private static @Nullable Metadata metadata(byte[] file) {
        try {
            if (HeifTools.isHeif(file)) {
                return ImageMetadataReader.readMetadata(new ByteArrayInputStream(file), file.length);
            }
            byte[] exif = formatOf(file)
                    .map(format -> Blocks.find(file, format).exif())
                    .orElse(null);
            if (exif == null) {
                return null;
            }
            Metadata out = new Metadata();
            new ExifReader().extract(new ByteArrayReader(exif), out);
            return out;
        } catch (ImageProcessingException | IOException | RuntimeException broken) {
            // Damaged metadata does not spoil a picture that decodes.
            return null;
        }
    }

    static int orientation(byte[] file) {
        Metadata metadata = metadata(file);
        ExifIFD0Directory main = metadata == null ? null : metadata.getFirstDirectoryOfType(ExifIFD0Directory.class);
        Integer turn = main == null ? null : main.getInteger(ExifIFD0Directory.TAG_ORIENTATION);
        return turn == null || turn < 1 || turn > 8 ? 1 : turn;
    }

    private static Camera camera(byte[] file, Size size) {
        Metadata metadata = metadata(file);
        ExifSubIFDDirectory exif =
                metadata == null ? null : metadata.getFirstDirectoryOfType(ExifSubIFDDirectory.class);
        return exif == null ? Camera.UNKNOWN : CameraReader.read(exif, size);
    }
}
