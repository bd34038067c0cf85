package app.yubble.media.picture;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.zip.CRC32;
import java.util.zip.DeflaterOutputStream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Lengths in damaged files. */
class BlocksTest {
    @ParameterizedTest
    @ValueSource(ints = {Integer.MAX_VALUE, Integer.MAX_VALUE - 20, 1000, -1})
    void aChunkOfAPngThatIsLongerThanTheFileIsLeftOut(int length) {
        byte[] file = ByteBuffer.allocate(200)
                .position(8)
                .putInt(length)
                .put("iCCPname\0\0".getBytes(StandardCharsets.US_ASCII))
                .array();
        assertThat(Blocks.find(file, "PNG")).isEqualTo(Blocks.NONE);
    }

    @Test
    void aProfileOfATiffThatLiesBehindItsEndIsLeftOut() {
        ByteBuffer file = ByteBuffer.allocate(100).order(ByteOrder.LITTLE_ENDIAN);
        file.put("II*\0".getBytes(StandardCharsets.US_ASCII)).putInt(8).putShort((short) 1);
        file.putShort((short) 34675).putShort((short) 7).putInt(5000).putInt(Integer.MAX_VALUE - 100);
        assertThat(Blocks.find(file.array(), "TIFF").profile()).isNull();
    }

    /** 200 MB of text in 200 kB; the heap of the tests would hold it, so the time and the answer tell. */
    @ParameterizedTest
    @ValueSource(strings = {"zTXt", "iTXt"})
    void textInAPngIsNotInflated(String type) throws IOException {
        ByteArrayOutputStream text = new ByteArrayOutputStream();
        text.writeBytes(
                type.equals("zTXt") ? "note\0\0".getBytes(StandardCharsets.US_ASCII) : new byte[] {'n', 0, 1, 0, 0, 0});
        try (DeflaterOutputStream deflated = new DeflaterOutputStream(text)) {
            for (int i = 0; i < 200; i++) {
                deflated.write(new byte[1 << 20]);
            }
        }
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(4, 4, BufferedImage.TYPE_INT_RGB), "png", png);
        byte[] plain = png.toByteArray();
        int afterHeader = 8 + 25;
        CRC32 sum = new CRC32();
        sum.update(type.getBytes(StandardCharsets.US_ASCII));
        sum.update(text.toByteArray());
        byte[] file = ByteBuffer.allocate(plain.length + 12 + text.size())
                .put(plain, 0, afterHeader)
                .putInt(text.size())
                .put(type.getBytes(StandardCharsets.US_ASCII))
                .put(text.toByteArray())
                .putInt((int) sum.getValue())
                .put(plain, afterHeader, plain.length - afterHeader)
                .array();
        long before = allocated();
        assertThat(PictureReader.DEFAULT.read(file).picture().width()).isEqualTo(4);
        assertThat(allocated() - before).as("bytes").isLessThan(20_000_000);
    }

    private static long allocated() {
        return ((com.sun.management.ThreadMXBean) ManagementFactory.getThreadMXBean()).getCurrentThreadAllocatedBytes();
    }
}
