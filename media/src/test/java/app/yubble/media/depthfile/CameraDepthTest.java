package app.yubble.media.depthfile;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.picture.HeifTools;
import app.yubble.media.picture.JpegSegments;
import app.yubble.media.picture.PictureFile;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.UnreadablePictureException;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.Random;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

class CameraDepthTest {
    private static final Size PHOTO = new Size(160, 120);
    private final CameraDepthReader reader = new CameraDepthReader(PictureReader.DEFAULT);

    private static byte[] picture(int width, int height, int type, String format) throws IOException {
        BufferedImage image = new BufferedImage(width, height, type);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                int v = 255 * x / (width - 1);
                if (type == BufferedImage.TYPE_BYTE_GRAY) {
                    image.getRaster().setSample(x, y, 0, v);
                } else {
                    image.setRGB(x, y, v << 16 | v << 8 | v);
                }
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, format, out);
        return out.toByteArray();
    }

    private static byte[] photo() throws IOException {
        return picture(160, 120, BufferedImage.TYPE_INT_RGB, "jpg");
    }

    private static Plane noise(Size size) {
        Plane plane = new Plane(size);
        Random random = new Random(5);
        for (int i = 0; i < plane.samples().length; i++) {
            plane.samples()[i] = random.nextFloat();
        }
        return plane;
    }

    private static byte[] withSegment(byte[] jpeg, int marker, byte[]... content) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        int length = 2;
        for (byte[] part : content) {
            length += part.length;
        }
        out.write(jpeg, 0, 2);
        out.writeBytes(new byte[] {(byte) 0xff, (byte) marker, (byte) (length >> 8), (byte) length});
        for (byte[] part : content) {
            out.writeBytes(part);
        }
        out.write(jpeg, 2, jpeg.length - 2);
        return out.toByteArray();
    }

    private static byte[] withXmp(byte[] jpeg, String attributes) {
        String packet = "<x:xmpmeta xmlns:x=\"adobe:ns:meta/\"><rdf:RDF"
                + " xmlns:rdf=\"http://www.w3.org/1999/02/22-rdf-syntax-ns#\"><rdf:Description rdf:about=\"\" "
                + attributes
                + "/></rdf:RDF></x:xmpmeta>";
        return withSegment(jpeg, 0xe1, JpegParts.XMP, packet.getBytes(StandardCharsets.UTF_8));
    }

    private static String described(String format, String more, byte[] map) {
        return "xmlns:GDepth=\"http://ns.google.com/photos/1.0/depthmap/\" GDepth:Format=\"" + format + "\" " + more
                + " GDepth:Mime=\"image/png\" GDepth:Data=\""
                + Base64.getEncoder().encodeToString(map) + "\"";
    }

    @Test
    void whatOurWriterStoresComesBackWithItsDistances() throws IOException {
        // Noise does not compress: the map needs several parts of an extended packet.
        Plane nearness = noise(new Size(320, 240));
        byte[] file = StoredDepthWriter.store(photo(), nearness, 0.8, 12.5);
        CameraDepth depth = reader.read(file, PHOTO).orElseThrow();
        assertThat(depth.nearMetres()).isCloseTo(0.8, within(1e-3));
        assertThat(depth.farMetres()).isCloseTo(12.5, within(1e-3));
        assertThat(depth.nearness().size()).isEqualTo(nearness.size());
        for (int i = 0; i < nearness.samples().length; i += 97) {
            assertThat(depth.nearness().samples()[i]).isCloseTo(nearness.samples()[i], within(1f / 65535));
        }
        // The photo in it is still the photo.
        assertThat(PictureReader.DEFAULT.read(file).picture().green().samples())
                .isEqualTo(PictureReader.DEFAULT.read(photo()).picture().green().samples());
    }

    @Test
    void linearRangesAreTurnedIntoInverseDistance() throws IOException {
        byte[] map = picture(80, 60, BufferedImage.TYPE_BYTE_GRAY, "png");
        byte[] file = withXmp(photo(), described("RangeLinear", "GDepth:Near=\"1\" GDepth:Far=\"5\"", map));
        Plane nearness = reader.read(file, PHOTO).orElseThrow().nearness();
        // Halfway the distance is 3: (1/3 - 1/5) / (1 - 1/5) = 1/6.
        assertThat(nearness.at(0, 10)).isCloseTo(1, within(1e-4f));
        assertThat(nearness.at(79, 10)).isCloseTo(0, within(1e-4f));
        double distance = 1 + 4 * (255 * 40 / 79) / 255.0;
        assertThat(nearness.at(40, 10)).isCloseTo((float) ((1 / distance - 0.2) / 0.8), within(0.02f));
    }

    @Test
    void distancesInOtherUnitsAreNotTakenForMetres() throws IOException {
        byte[] map = picture(80, 60, BufferedImage.TYPE_BYTE_GRAY, "png");
        byte[] file = withXmp(
                photo(), described("RangeInverse", "GDepth:Near=\"1\" GDepth:Far=\"5\" GDepth:Units=\"mm\"", map));
        assertThat(reader.read(file, PHOTO).orElseThrow().nearMetres()).isNull();
    }

    @Test
    void brokenDepthIsToldAndNotGuessed() throws IOException {
        byte[] map = picture(80, 60, BufferedImage.TYPE_BYTE_GRAY, "png");
        byte[] cut = java.util.Arrays.copyOf(map, map.length / 2);
        byte[] square = picture(60, 60, BufferedImage.TYPE_BYTE_GRAY, "png");
        assertRefused(withXmp(photo(), described("RangeInverse", "", cut)), "cut off or damaged");
        assertRefused(withXmp(photo(), described("RangeInverse", "", square)), "60x60");
        assertRefused(withXmp(photo(), described("Sideways", "", map)), "Sideways");
        assertRefused(withXmp(photo(), described("RangeLinear", "", map)), "near and a far");
        assertRefused(withXmp(photo(), described("RangeInverse", "GDepth:Near=\"close\"", map)), "close");
        assertRefused(withXmp(photo(), "not even=\"xml"), "damaged");
        byte[] whole = StoredDepthWriter.store(photo(), noise(new Size(320, 240)), 1, 9);
        assertRefused(withoutOneExtendedPart(whole), "incomplete");
    }

    private void assertRefused(byte[] file, String words) {
        assertThatThrownBy(() -> reader.read(file, PHOTO))
                .isInstanceOf(UnreadablePictureException.class)
                .hasMessageContaining("stored in this photo")
                .hasMessageContaining(words);
    }

    private static byte[] withoutOneExtendedPart(byte[] file) {
        JpegSegments.Segment gone = JpegSegments.of(file, 0).stream()
                .filter(segment -> segment.startsWith(file, JpegParts.EXTENDED_XMP))
                .findFirst()
                .orElseThrow();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(file, 0, gone.from() - 4);
        out.write(file, gone.to(), file.length - gone.to());
        return out.toByteArray();
    }

    @Test
    void depthTurnsWithThePhoto() throws IOException {
        byte[] map = picture(160, 120, BufferedImage.TYPE_BYTE_GRAY, "png");
        // EXIF orientation 6: the camera was held upright, the picture is to be turned right.
        byte[] exif = ByteBuffer.allocate(32)
                .put("Exif\0\0MM\0*".getBytes(StandardCharsets.ISO_8859_1))
                .putInt(8)
                .putShort((short) 1)
                .putShort((short) 0x112)
                .putShort((short) 3)
                .putInt(1)
                .putShort((short) 6)
                .putShort((short) 0)
                .putInt(0)
                .array();
        byte[] file = withSegment(withXmp(photo(), described("RangeInverse", "", map)), 0xe1, exif);
        Plane upright = reader.read(file, new Size(120, 160)).orElseThrow().nearness();
        assertThat(upright.size()).isEqualTo(new Size(120, 160));
        // Left (near) in the file is up when it is turned to the right.
        assertThat(upright.at(60, 0)).isCloseTo(1, within(0.01f));
        assertThat(upright.at(60, 159)).isCloseTo(0, within(0.01f));
    }

    /** A photo, and behind it another picture listed by the multi-picture index. */
    private static byte[] multiPicture(byte[] second, int type) throws IOException {
        byte[] first = photo();
        ByteBuffer index = ByteBuffer.allocate(4 + 8 + 2 + 12 + 4 + 32);
        index.put("MPF\0MM\0*".getBytes(StandardCharsets.ISO_8859_1)).putInt(8).putShort((short) 1);
        index.putShort((short) 0xb002).putShort((short) 7).putInt(32).putInt(26).putInt(0);
        int start = 2 + 4 + index.capacity() + first.length - 2;
        int base = 2 + 4 + 4;
        index.putInt(0x20030000).putInt(start).putInt(0).putInt(0);
        index.putInt(type).putInt(second.length).putInt(start - base).putInt(0);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(withSegment(first, 0xe2, index.array()));
        out.writeBytes(second);
        return out.toByteArray();
    }

    @Test
    void aGreyPictureOfTheSameShapeBehindThePhotoIsItsDepth() throws IOException {
        byte[] grey = picture(80, 60, BufferedImage.TYPE_BYTE_GRAY, "jpg");
        CameraDepth depth = reader.read(multiPicture(grey, 0), PHOTO).orElseThrow();
        assertThat(depth.nearness().at(79, 30)).isCloseTo(1, within(0.03f));
        assertThat(depth.nearness().at(0, 30)).isCloseTo(0, within(0.03f));
    }

    @Test
    void anAuxiliaryPictureOfDistancesHasWhiteFar() throws IOException {
        String said = "xmlns:aux=\"http://ns.example.org/aux/\" aux:AuxiliaryImageType=\"urn:example:aux:depth\"";
        byte[] grey = withXmp(picture(80, 60, BufferedImage.TYPE_BYTE_GRAY, "jpg"), said);
        CameraDepth depth = reader.read(multiPicture(grey, 0x20002), PHOTO).orElseThrow();
        assertThat(depth.nearness().at(79, 30)).isCloseTo(0, within(0.03f));
    }

    @Test
    void otherPicturesBehindThePhotoAreNotTakenForDepth() throws IOException {
        byte[] colour = picture(80, 60, BufferedImage.TYPE_INT_RGB, "jpg");
        byte[] square = picture(60, 60, BufferedImage.TYPE_BYTE_GRAY, "jpg");
        byte[] gain = withXmp(
                picture(80, 60, BufferedImage.TYPE_BYTE_GRAY, "jpg"),
                "xmlns:hdrgm=\"http://ns.example.org/hdr/\" hdrgm:Version=\"1.0\"");
        for (byte[] second : new byte[][] {colour, square, gain}) {
            assertThat(reader.read(multiPicture(second, 0), PHOTO)).isEmpty();
        }
        assertThat(reader.read(photo(), PHOTO)).isEmpty();
    }

    @Test
    void auxiliaryDepthOfAnAvifFileIsRead() throws IOException {
        assumeTrue(Files.isExecutable(Path.of("/usr/bin/heif-convert")), "libheif tools are installed");
        byte[] file;
        try (var in = CameraDepthTest.class.getResourceAsStream("/app/yubble/media/with-depth.avif")) {
            file = in.readAllBytes();
        }
        PictureFile opened = PictureFile.of(file);
        assertThat(PictureReader.DEFAULT.inspect(opened).format()).isEqualTo("HEIF");
        HeifTools.Converted converted = opened.converted();
        var decoded = PictureReader.DEFAULT.read(opened);
        assertThat(reader.read(opened, decoded.picture().size())).isPresent();
        assertThat(opened.converted()).as("converted once").isSameAs(converted);
        assertThat(decoded.picture().size()).isEqualTo(new Size(128, 96));
        // A box of 220 on 40, written as depth of half the size.
        Plane nearness =
                reader.read(file, decoded.picture().size()).orElseThrow().nearness();
        assertThat(nearness.size()).isEqualTo(new Size(64, 48));
        assertThat(nearness.at(30, 25)).isCloseTo(220 / 255f, within(0.03f));
        assertThat(nearness.at(5, 5)).isCloseTo(40 / 255f, within(0.03f));
        assertThatThrownBy(() -> PictureReader.DEFAULT.read(java.util.Arrays.copyOf(file, 500)))
                .isInstanceOf(UnreadablePictureException.class);
    }
}
