package app.yubble.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.picture.DecodedPicture;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.PictureWriter;
import app.yubble.media.picture.UnreadablePictureException;
import java.awt.color.ColorSpace;
import java.awt.color.ICC_Profile;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.OptionalDouble;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

class PictureFilesTest {
    private final PictureReader reader = PictureReader.DEFAULT;

    private static byte[] resource(String name) {
        try (InputStream in = PictureFilesTest.class.getResourceAsStream(name)) {
            return in.readAllBytes();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static byte[] written(Picture picture, Origin origin, PictureWriter.Format format) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            PictureWriter.write(picture, origin, format, 0.95, out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static Picture ramp() {
        Size size = new Size(256, 64);
        Picture picture = Picture.blank(size);
        for (int i = 0; i < size.pixels(); i++) {
            float v = i % 256 / 255f;
            picture.red().samples()[i] = v * v;
            picture.green().samples()[i] = v;
            picture.blue().samples()[i] = 1 - v;
        }
        return picture;
    }

    private static double distance(Picture a, Picture b) {
        double most = 0;
        for (int c = 0; c < 3; c++) {
            Plane p = a.planes().get(c);
            Plane q = b.planes().get(c);
            for (int i = 0; i < p.samples().length; i++) {
                most = Math.max(most, Math.abs(Math.sqrt(p.samples()[i]) - Math.sqrt(q.samples()[i])));
            }
        }
        return most;
    }

    @ParameterizedTest
    @EnumSource(PictureWriter.Format.class)
    void everyFormatComesBackAsItWasWritten(PictureWriter.Format format) {
        Picture picture = ramp();
        DecodedPicture back = reader.read(written(picture, Origin.srgb(picture.size()), format));
        double allowed = switch (format) {
            case JPEG, WEBP, AVIF -> 0.06;
            case PNG8, TIFF8 -> 0.03; // half a code value is up to 0.03 of the root near black
            case PNG16, TIFF16 -> 0.002;
        };
        assertThat(distance(back.picture(), picture)).isLessThan(allowed);
    }

    @Test
    void eightBitValuesSurviveUnchanged() throws IOException {
        BufferedImage image = new BufferedImage(256, 40, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < 40; y++) {
            for (int x = 0; x < 256; x++) {
                image.setRGB(x, y, x << 16 | (255 - x) << 8 | (x * 7 & 255));
            }
        }
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        ImageIO.write(image, "png", file);
        DecodedPicture decoded = reader.read(file.toByteArray());
        BufferedImage back = ImageIO.read(
                new ByteArrayInputStream(written(decoded.picture(), decoded.origin(), PictureWriter.Format.PNG8)));
        for (int x = 0; x < 256; x++) {
            assertThat(back.getRGB(x, 17) & 0xffffff).isEqualTo(image.getRGB(x, 17) & 0xffffff);
        }
    }

    @ParameterizedTest
    @EnumSource(PictureWriter.Format.class)
    void theProfileTravelsAndItsCurveIsUsed(PictureWriter.Format format) {
        // A profile with a gamma of 1: code values are linear light.
        byte[] linearProfile = ICC_Profile.getInstance(ColorSpace.CS_LINEAR_RGB).getData();
        Picture picture = ramp();
        Origin srgb = Origin.srgb(picture.size());
        Origin origin = new Origin(
                "PNG",
                picture.size(),
                linearProfile,
                app.yubble.media.picture.ToneCurve.ofProfile(linearProfile).orElseThrow(),
                srgb.camera());
        DecodedPicture back = reader.read(written(picture, origin, format));
        assertThat(back.origin().profile()).isEqualTo(linearProfile);
        assertThat(back.picture().green().at(128, 30)).isCloseTo(128 / 255f, within(0.02f));
    }

    @Test
    void orientationIsHonouredAndCameraDataRead() {
        DecodedPicture decoded = reader.read(resource("oriented.jpg"));
        // Orientation 6: the file's upper left corner is the picture's upper right.
        assertThat(decoded.picture().size()).isEqualTo(new Size(48, 64));
        assertThat(decoded.origin().size()).isEqualTo(new Size(48, 64));
        assertThat(decoded.picture().green().at(40, 5)).isLessThan(0.1f);
        assertThat(decoded.picture().green().at(5, 5)).isGreaterThan(0.8f);
        assertThat(decoded.picture().green().at(40, 60)).isGreaterThan(0.8f);
        assertThat(decoded.origin().camera().focalLength()).hasValue(85);
        assertThat(decoded.origin().camera().distance().orElse(0)).isCloseTo(1.8, within(1e-6));
        assertThat(decoded.origin().camera().sensorWidth().orElse(0)).isCloseTo(36.0 * 85 / 127, within(1e-6));
    }

    @ParameterizedTest
    @EnumSource(
            value = PictureWriter.Format.class,
            names = {"JPEG", "PNG16", "TIFF16"})
    void metadataIsKeptAndTheResultIsUpright(PictureWriter.Format format) {
        DecodedPicture decoded = reader.read(resource("oriented.jpg"));
        byte[] file = written(decoded.picture(), decoded.origin(), format);
        DecodedPicture back = reader.read(file);
        assertThat(back.picture().size()).isEqualTo(new Size(48, 64));
        assertThat(back.origin().camera().focalLength()).isEqualTo(OptionalDouble.of(85));
        assertThat(back.origin().camera().fNumber().orElse(0)).isCloseTo(2.8, within(1e-6));
        assertThat(new String(file, java.nio.charset.StandardCharsets.ISO_8859_1))
                .contains("Signalworks")
                .contains("Mira Lund");
    }

    @ParameterizedTest
    @ValueSource(strings = {"cmyk.jpg", "progressive.jpg", "lossy.webp", "lossless.webp", "deep.tif", "palette.png"})
    void ordinaryKindsOfFilesAreRead(String name) {
        DecodedPicture decoded = reader.read(resource(name));
        assertThat(decoded.picture().size().pixels()).isGreaterThanOrEqualTo(64 * 48);
        Plane.Range range = decoded.picture().red().range();
        assertThat(range.low()).isGreaterThanOrEqualTo(0);
        assertThat(range.high()).isGreaterThan(0.2f).isLessThanOrEqualTo(1.0001f);
    }

    /** One colour everywhere takes no bits of a file of 38 bytes, whose end is no sign that it was cut off. */
    @Test
    void aPictureOfOneColourMayEndAtItsFirstPixel() {
        Picture picture = reader.read(resource("solid.webp")).picture();
        assertThat(picture.size()).isEqualTo(new Size(3000, 2000));
        assertThat(picture.blue().at(2999, 1999))
                .isCloseTo((float) Math.pow((0xc8 / 255.0 + 0.055) / 1.055, 2.4), within(0.02f));
    }

    @Test
    void cmykIsRedAtTheTopAndBlueAtTheBottom() {
        Picture picture = reader.read(resource("cmyk.jpg")).picture();
        assertThat(picture.red().at(30, 2)).isGreaterThan(2 * picture.blue().at(30, 2));
        assertThat(picture.blue().at(30, 45)).isGreaterThan(2 * picture.red().at(30, 45));
    }

    @Test
    void sixteenBitsAreNotCutToEight() {
        Picture picture = reader.read(resource("deep.tif")).picture();
        long different =
                Arrays.stream(toDoubles(picture.red().samples())).distinct().count();
        assertThat(different).isGreaterThanOrEqualTo(48);
    }

    private static double[] toDoubles(float[] values) {
        double[] out = new double[values.length];
        Arrays.setAll(out, i -> values[i]);
        return out;
    }

    @Test
    void transparencyIsLaidOverNothing() throws IOException {
        BufferedImage image = new BufferedImage(20, 10, BufferedImage.TYPE_INT_ARGB);
        for (int x = 0; x < 20; x++) {
            for (int y = 0; y < 10; y++) {
                image.setRGB(x, y, x < 10 ? 0xffffffff : 0x00ffffff);
            }
        }
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        ImageIO.write(image, "png", file);
        Picture picture = reader.read(file.toByteArray()).picture();
        assertThat(picture.red().at(3, 3)).isEqualTo(1f);
        assertThat(picture.red().at(15, 3)).isEqualTo(0f);
    }

    @Test
    void whatIsNoPictureIsRefusedWithTheReason() {
        assertThatThrownBy(() -> reader.read(new byte[0]))
                .isInstanceOf(UnreadablePictureException.class)
                .hasMessageContaining("empty");
        assertThatThrownBy(() -> reader.read("this is a text, not a picture".getBytes()))
                .isInstanceOf(UnreadablePictureException.class)
                .hasMessageContaining("JPEG, PNG, TIFF, WebP");
    }

    @ParameterizedTest
    @ValueSource(doubles = {0.02, 0.3, 0.7, 0.97})
    void aFileThatIsCutOffIsRefused(double share) {
        for (String name :
                new String[] {"progressive.jpg", "oriented.jpg", "lossless.webp", "deep.tif", "palette.png"}) {
            byte[] file = resource(name);
            byte[] part = Arrays.copyOf(file, (int) (file.length * share));
            assertThatThrownBy(() -> reader.read(part))
                    .describedAs(name)
                    .isInstanceOf(UnreadablePictureException.class);
        }
    }

    @Test
    void aSmallFileThatClaimsAHugePictureIsRefusedBeforeDecoding() {
        byte[] png = written(ramp(), Origin.srgb(new Size(256, 64)), PictureWriter.Format.PNG8);
        ByteBuffer header = ByteBuffer.wrap(png);
        header.putInt(16, 60_000).putInt(20, 60_000);
        java.util.zip.CRC32 sum = new java.util.zip.CRC32();
        sum.update(png, 12, 17);
        header.putInt(29, (int) sum.getValue());
        assertThatThrownBy(() -> reader.read(png))
                .isInstanceOf(UnreadablePictureException.class)
                .hasMessageContaining("60000 x 60000")
                .hasMessageContaining("limit is 120");
    }

    @Test
    void noiseInAFileNeverDoesMoreThanRefuseIt() {
        java.util.Random random = new java.util.Random(11);
        for (String name : new String[] {"oriented.jpg", "lossy.webp", "deep.tif", "palette.png"}) {
            for (int round = 0; round < 40; round++) {
                byte[] file = resource(name);
                for (int i = 0; i < 6; i++) {
                    file[12 + random.nextInt(file.length - 12)] = (byte) random.nextInt();
                }
                try {
                    assertThat(reader.read(file).picture().size().pixels()).isPositive();
                } catch (UnreadablePictureException refused) {
                    assertThat(refused).hasMessageMatching("(?s).+");
                }
            }
        }
    }
}
