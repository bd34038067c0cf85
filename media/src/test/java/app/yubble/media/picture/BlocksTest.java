package app.yubble.media.picture;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
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
}
