package app.yubble.media.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Size;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Raw files: negatives of our own making, as the DNG specification has them, developed by LibRaw. */
class RawTest {
    private static final Size SIZE = new Size(640, 480);
    /** From XYZ to a camera whose channels are those of linear sRGB. */
    private static final double[] TO_CAMERA = {
        3.2406, -1.5372, -0.4986, -0.9689, 1.8758, 0.0415, 0.0557, -0.2040, 1.0570
    };
    /** Linear red, green and blue of the left and the right half. */
    private static final double[][] HALVES = {{0.5, 0.3, 0.1}, {0.2, 0.2, 0.2}};

    private record Tag(int number, int type, int count, byte[] value) {}

    private static ByteBuffer little(int bytes) {
        return ByteBuffer.allocate(bytes).order(ByteOrder.LITTLE_ENDIAN);
    }

    private static Tag shorts(int number, int... values) {
        ByteBuffer out = little(2 * values.length);
        Arrays.stream(values).forEach(each -> out.putShort((short) each));
        return new Tag(number, 3, values.length, out.array());
    }

    private static Tag longs(int number, int value) {
        return new Tag(number, 4, 1, little(4).putInt(value).array());
    }

    private static Tag bytes(int number, int... values) {
        ByteBuffer out = little(values.length);
        Arrays.stream(values).forEach(each -> out.put((byte) each));
        return new Tag(number, 1, values.length, out.array());
    }

    private static Tag text(int number, String text) {
        byte[] value = (text + "\0").getBytes(StandardCharsets.US_ASCII);
        return new Tag(number, 2, value.length, value);
    }

    private static Tag fractions(int number, int type, double... values) {
        ByteBuffer out = little(8 * values.length);
        Arrays.stream(values)
                .forEach(each -> out.putInt((int) Math.round(each * 10000)).putInt(10000));
        return new Tag(number, type, values.length, out.array());
    }

    /** @param turn as EXIF has it */
    private static byte[] negative(int turn) {
        int width = SIZE.width();
        int height = SIZE.height();
        ByteBuffer samples = little(2 * width * height);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                int channel = y % 2 + x % 2;
                samples.putShort((short) Math.round(65535 * HALVES[x < width / 2 ? 0 : 1][channel]));
            }
        }
        int at = 8;
        List<Tag> tags = new ArrayList<>(List.of(
                longs(254, 0),
                longs(256, width),
                longs(257, height),
                shorts(258, 16),
                shorts(259, 1),
                shorts(262, 32803),
                text(271, "Seven Sleepers"),
                text(272, "Box No. 7"),
                longs(273, at),
                shorts(274, turn),
                shorts(277, 1),
                longs(278, height),
                longs(279, samples.capacity()),
                shorts(33421, 2, 2),
                bytes(33422, 0, 1, 1, 2),
                bytes(50706, 1, 4, 0, 0),
                text(50708, "Seven Sleepers Box No. 7"),
                longs(50717, 65535),
                fractions(50721, 10, TO_CAMERA),
                fractions(50728, 5, 1, 1, 1),
                shorts(50778, 21)));
        int directory = at + samples.capacity();
        int values = directory + 2 + 12 * tags.size() + 4;
        ByteBuffer out = little(
                values + tags.stream().mapToInt(tag -> tag.value().length).sum() + 64);
        out.put(new byte[] {'I', 'I', 42, 0}).putInt(directory).put(samples.array());
        out.putShort((short) tags.size());
        ByteBuffer outside = out.duplicate().order(ByteOrder.LITTLE_ENDIAN).position(values);
        for (Tag tag : tags) {
            out.putShort((short) tag.number()).putShort((short) tag.type()).putInt(tag.count());
            if (tag.value().length <= 4) {
                out.put(Arrays.copyOf(tag.value(), 4));
            } else {
                out.putInt(outside.position());
                outside.put(tag.value());
            }
        }
        return out.array();
    }

    @Test
    void aNegativeIsDevelopedToTheLightThatTheSensorSaw() {
        byte[] file = negative(1);
        PictureFile raw = PictureFile.of(file);
        assertThat(raw.isRaw()).isTrue();
        DecodedPicture developed = PictureReader.DEFAULT.read(raw);
        assertThat(developed.origin().format()).isEqualTo("raw");
        assertThat(developed.origin().isDeep()).isTrue();
        assertThat(developed.picture().size()).isEqualTo(SIZE);
        assertThat(PictureReader.DEFAULT.inspect(file).size()).isEqualTo(SIZE);
        DecodedPicture srgb = ColourSpace.SRGB.converted(developed.picture(), developed.origin());
        for (int half = 0; half < 2; half++) {
            for (int c = 0; c < 3; c++) {
                assertThat(srgb.picture().planes().get(c).at(160 + 320 * half, 240))
                        .as("half %d, channel %d", half, c)
                        .isCloseTo((float) HALVES[half][c], within(0.02f));
            }
        }
    }

    @Test
    void aCameraHeldUprightGivesAnUprightPicture() {
        DecodedPicture developed = PictureReader.DEFAULT.read(negative(6));
        assertThat(developed.picture().size()).isEqualTo(new Size(480, 640));
        assertThat(developed.origin().size()).isEqualTo(new Size(480, 640));
    }

    @Test
    void whatTheToolsDoNotKnowIsRefusedWithAReason() {
        byte[] file = negative(1);
        byte[] cut = Arrays.copyOf(file, 60);
        assertThatThrownBy(() -> PictureReader.DEFAULT.read(cut)).isInstanceOf(UnreadablePictureException.class);
        byte[] unknown = "FUJIFILMCCD-RAW and nothing that anybody knows".getBytes(StandardCharsets.US_ASCII);
        assertThatThrownBy(() -> PictureReader.DEFAULT.read(unknown))
                .isInstanceOf(UnreadablePictureException.class)
                .hasMessageContaining("raw file");
    }

    @Test
    void aPlainTiffIsNoNegative() {
        assertThat(RawTools.isRaw(new byte[] {'I', 'I', 42, 0, 8, 0, 0, 0, 0, 0, 0, 0, 0, 0}))
                .isFalse();
        assertThat(RawTools.isRaw(new byte[] {'I', 'I', 42, 0, 9, 9, 9, 9, 0, 0, 0, 0, 0, 0}))
                .isFalse();
    }
}
