package app.yubble.media.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Picture;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** TIFF with samples of 32 bits, uncompressed, written byte by byte as TIFF 6.0 says. */
class WideTiffTest {
    private static final int WIDTH = 4;
    /** Codes of grey, red and so on: black, a third, white. */
    private static final double[][] PIXELS = {{0, 0, 0}, {1 / 3.0, 1 / 3.0, 1 / 3.0}, {1, 0.5, 0}, {1, 1, 1}};

    private static byte[] tiff(int channels, int format) {
        ByteBuffer out = ByteBuffer.allocate(1000).order(ByteOrder.LITTLE_ENDIAN);
        out.put(new byte[] {'I', 'I', 42, 0}).putInt(8).putShort((short) 10);
        int behind = 8 + 2 + 12 * 10 + 4;
        entry(out, 256, 4, 1, WIDTH);
        entry(out, 257, 4, 1, 1);
        entry(out, 258, 3, channels, channels == 1 ? 32 : behind);
        entry(out, 259, 3, 1, 1);
        entry(out, 262, 3, 1, channels == 1 ? 1 : 2);
        entry(out, 273, 4, 1, behind + 16);
        entry(out, 277, 3, 1, channels);
        entry(out, 278, 4, 1, 1);
        entry(out, 279, 4, 1, WIDTH * channels * 4);
        entry(out, 339, 3, channels, channels == 1 ? format : behind + 6);
        out.putInt(0);
        for (int value : new int[] {32, 32, 32, format, format, format}) {
            out.putShort((short) value);
        }
        out.position(behind + 16);
        for (double[] pixel : PIXELS) {
            for (int c = 0; c < channels; c++) {
                if (format == 3) {
                    out.putFloat((float) pixel[c]);
                } else {
                    out.putInt((int) Math.round(pixel[c] * 4294967295.0));
                }
            }
        }
        return java.util.Arrays.copyOf(out.array(), out.position());
    }

    private static void entry(ByteBuffer out, int tag, int type, int count, int value) {
        out.putShort((short) tag).putShort((short) type).putInt(count).putInt(value);
    }

    @ParameterizedTest
    @CsvSource({"1,1", "3,1", "1,3", "3,3"})
    void integersAndFloatingPointOf32BitsAreReadAsTheirCodes(int channels, int format) {
        Picture picture = PictureReader.DEFAULT.read(tiff(channels, format)).picture();
        for (int x = 0; x < WIDTH; x++) {
            for (int c = 0; c < 3; c++) {
                double code = PIXELS[x][channels == 1 ? 0 : c];
                // IEC 61966-2-1
                double light = code <= 0.04045 ? code / 12.92 : Math.pow((code + 0.055) / 1.055, 2.4);
                assertThat((double) picture.planes().get(c).at(x, 0))
                        .as("colour %d of pixel %d", c, x)
                        .isCloseTo(light, within(1e-5));
            }
        }
    }
}
