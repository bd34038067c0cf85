package app.yubble.media.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.depthfile.DepthFileReader;
import java.awt.color.ColorSpace;
import java.awt.image.BufferedImage;
import java.awt.image.ComponentColorModel;
import java.awt.image.DataBuffer;
import java.awt.image.DataBufferUShort;
import java.awt.image.Raster;
import java.awt.image.WritableRaster;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Random;
import java.util.zip.CRC32;
import java.util.zip.DeflaterOutputStream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class DeepPngTest {
    /** Slopes, noise and flat parts, so that a writer chooses different filters. */
    private static BufferedImage image(int bands, int transfer) {
        int width = 203;
        int height = 90;
        WritableRaster raster = Raster.createInterleavedRaster(transfer, width, height, bands, null);
        Random random = new Random(7);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                for (int band = 0; band < bands; band++) {
                    int value = switch (y / 15) {
                        case 0 -> random.nextInt(65536);
                        case 1 -> 300 * x;
                        case 2 -> 700 * (y % 15) + 3 * x * band;
                        case 3 -> 150 * x + 900 * (y % 15) + random.nextInt(40);
                        case 4 -> 65535 - band;
                        default -> x / 20 * 4000 + y * 100;
                    };
                    raster.setSample(
                            x, y, band, transfer == DataBuffer.TYPE_BYTE ? value >>> 8 & 0xff : value & 0xffff);
                }
            }
        }
        ColorSpace space = ColorSpace.getInstance(bands < 3 ? ColorSpace.CS_GRAY : ColorSpace.CS_sRGB);
        boolean alpha = bands == 2 || bands == 4;
        return new BufferedImage(
                new ComponentColorModel(space, alpha, false, alpha ? 3 : 1, transfer), raster, false, null);
    }

    private static byte[] file(BufferedImage image) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    private static short[] samples(BufferedImage image) {
        return ((DataBufferUShort) image.getRaster().getDataBuffer()).getData();
    }

    /** The same as the platform writes it, but with each of the five filters in turn, and in many small chunks. */
    private static byte[] filtered(BufferedImage image, int bands) throws IOException {
        int before = 2 * bands;
        short[] samples = samples(image);
        int length = image.getWidth() * before;
        byte[] above = new byte[before + length];
        ByteArrayOutputStream rows = new ByteArrayOutputStream();
        try (DeflaterOutputStream packed = new DeflaterOutputStream(rows)) {
            for (int y = 0; y < image.getHeight(); y++) {
                byte[] row = new byte[before + length];
                ByteBuffer.wrap(row, before, length).asShortBuffer().put(samples, y * length / 2, length / 2);
                packed.write(y % 5);
                for (int i = before; i < row.length; i++) {
                    int left = row[i - before] & 0xff;
                    int up = above[i] & 0xff;
                    int corner = above[i - before] & 0xff;
                    int expected = left + up - corner;
                    int nearest = Math.abs(expected - left) <= Math.abs(expected - up)
                                    && Math.abs(expected - left) <= Math.abs(expected - corner)
                            ? left
                            : Math.abs(expected - up) <= Math.abs(expected - corner) ? up : corner;
                    packed.write(row[i] - new int[] {0, left, up, (left + up) / 2, nearest}[y % 5]);
                }
                above = row;
            }
        }
        byte[] plain = file(image);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(plain, 0, 8 + 12 + 13);
        byte[] all = rows.toByteArray();
        for (int from = 0; from < all.length; from += 1000) {
            chunk("IDAT", Arrays.copyOfRange(all, from, Math.min(all.length, from + 1000)), out);
        }
        chunk("IEND", new byte[0], out);
        return out.toByteArray();
    }

    private static void chunk(String kind, byte[] content, ByteArrayOutputStream to) throws IOException {
        byte[] named = (kind + "x".repeat(content.length)).getBytes(StandardCharsets.ISO_8859_1);
        System.arraycopy(content, 0, named, 4, content.length);
        CRC32 sum = new CRC32();
        sum.update(named);
        to.write(ByteBuffer.allocate(4).putInt(content.length).array());
        to.write(named);
        to.write(ByteBuffer.allocate(4).putInt((int) sum.getValue()).array());
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 3})
    void greyAndColourAreReadToTheLastBit(int bands) throws Exception {
        BufferedImage image = image(bands, DataBuffer.TYPE_USHORT);
        assertThat(samples(DeepPng.read(file(image)))).isEqualTo(samples(image));
        byte[] file = filtered(image, bands);
        BufferedImage read = DeepPng.read(file);
        assertThat(read).isNotNull();
        assertThat(samples(read)).isEqualTo(samples(image));
        BufferedImage platform = ImageIO.read(new ByteArrayInputStream(file));
        assertThat(read.getColorModel().getColorSpace())
                .isEqualTo(platform.getColorModel().getColorSpace());
        assertThat(read.getRaster().getPixels(0, 0, 203, 90, (int[]) null))
                .isEqualTo(platform.getRaster().getPixels(0, 0, 203, 90, (int[]) null));
    }

    /** The platform checks the sums. In pieces of some rows, as pictures come, and in one; in one piece of packed data, and in many. */
    @ParameterizedTest
    @CsvSource({"203, 90", "3000, 400", "3000, 2800"})
    void whatIsWrittenIsReadByAnybody(int width, int height) throws Exception {
        Picture picture = Picture.blank(new Size(width, height));
        Random random = new Random(5);
        for (Plane each : picture.planes()) {
            for (int i = 0; i < each.samples().length; i++) {
                each.samples()[i] = random.nextFloat();
            }
        }
        Origin origin = Origin.srgb(picture.size());
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        PictureWriter.write(picture, origin, PictureWriter.Format.PNG16, 1, file);
        BufferedImage platform = ImageIO.read(new ByteArrayInputStream(file.toByteArray()));
        BufferedImage wanted = PictureWriter.encoded(picture, origin.curve(), true);
        assertThat(samples(platform)).isEqualTo(samples(wanted));
        assertThat(samples(DeepPng.read(file.toByteArray()))).isEqualTo(samples(wanted));
        ByteArrayOutputStream grey = new ByteArrayOutputStream();
        PictureWriter.writeGrey(picture.green(), grey);
        Plane read = new DepthFileReader(PictureReader.DEFAULT).read(grey.toByteArray(), picture.size());
        for (int i = 0; i < read.samples().length; i += 7) {
            assertThat(read.samples()[i]).isCloseTo(picture.green().samples()[i], within(1 / 65000f));
        }
        assertThat(ImageIO.read(new ByteArrayInputStream(grey.toByteArray())).getWidth())
                .isEqualTo(width);
    }

    @Test
    void otherKindsAreLeftToThePlatform() throws Exception {
        assertThat(DeepPng.read(file(image(3, DataBuffer.TYPE_BYTE)))).isNull();
        assertThat(DeepPng.read(file(image(4, DataBuffer.TYPE_USHORT)))).isNull();
        assertThat(DeepPng.read(file(image(2, DataBuffer.TYPE_USHORT)))).isNull();
        assertThat(DeepPng.read(new byte[40])).isNull();
        assertThat(DeepPng.read(new byte[3])).isNull();
    }

    @Test
    void whatIsCutOffOrDamagedIsRefusedAsBefore() throws Exception {
        byte[] file = file(image(3, DataBuffer.TYPE_USHORT));
        for (int length = 1; length < file.length; length += 997) {
            assertThat(DeepPng.read(Arrays.copyOf(file, length))).isNull();
        }
        byte[] half = Arrays.copyOf(file, file.length / 2);
        assertThatThrownBy(() -> PictureReader.DEFAULT.read(half)).isInstanceOf(UnreadablePictureException.class);
        Random random = new Random(3);
        for (int i = 0; i < 300; i++) {
            byte[] damaged = file.clone();
            damaged[8 + random.nextInt(file.length - 8)] ^= (byte) (1 << random.nextInt(8));
            BufferedImage read = DeepPng.read(damaged);
            assertThat(read == null || read.getWidth() * (long) read.getHeight() < 1_000_000)
                    .isTrue();
        }
    }
}
