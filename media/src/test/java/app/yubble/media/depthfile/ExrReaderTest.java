package app.yubble.media.depthfile;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.UnreadablePictureException;
import java.io.ByteArrayOutputStream;
import java.lang.management.ManagementFactory;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.zip.Deflater;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class ExrReaderTest {
    private static final int WIDTH = 21;
    private static final int HEIGHT = 34;
    private final DepthFileReader reader = new DepthFileReader(PictureReader.DEFAULT);

    /** A pixel's value. */
    private interface Value {
        float at(int x, int y);
    }

    /** By the published layout: magic, version, attributes, offsets, blocks of lines. */
    private static byte[] exr(int compression, String channel, Value value) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(ints(20000630, 2));
        attribute(out, "channels", "chlist", join(text(channel), ints(2, 0, 1, 1), new byte[1]));
        attribute(out, "compression", "compression", new byte[] {(byte) compression});
        attribute(out, "dataWindow", "box2i", ints(5, 7, 5 + WIDTH - 1, 7 + HEIGHT - 1));
        attribute(out, "lineOrder", "lineOrder", new byte[1]);
        out.write(0);
        int lines = compression == 3 ? 16 : 1;
        int blocks = (HEIGHT + lines - 1) / lines;
        ByteArrayOutputStream body = new ByteArrayOutputStream();
        ByteBuffer offsets = ByteBuffer.allocate(8 * blocks).order(ByteOrder.LITTLE_ENDIAN);
        for (int first = 0; first < HEIGHT; first += lines) {
            offsets.putLong(out.size() + 8L * blocks + body.size());
            ByteBuffer raw = ByteBuffer.allocate(4 * WIDTH * Math.min(lines, HEIGHT - first))
                    .order(ByteOrder.LITTLE_ENDIAN);
            for (int y = first; y < Math.min(HEIGHT, first + lines); y++) {
                for (int x = 0; x < WIDTH; x++) {
                    raw.putFloat(value.at(x, y));
                }
            }
            byte[] packed = packed(compression, raw.array());
            body.writeBytes(ints(7 + first, packed.length));
            body.writeBytes(packed);
        }
        out.writeBytes(offsets.array());
        out.writeBytes(body.toByteArray());
        return out.toByteArray();
    }

    private static byte[] packed(int compression, byte[] raw) {
        if (compression == 0) {
            return raw;
        }
        byte[] parted = new byte[raw.length];
        for (int i = 0; i < raw.length; i++) {
            parted[(i & 1) == 0 ? i / 2 : (raw.length + 1) / 2 + i / 2] = raw[i];
        }
        for (int i = raw.length - 1; i > 0; i--) {
            parted[i] = (byte) (parted[i] - parted[i - 1] + 128);
        }
        byte[] small = compression == 1 ? runs(parted) : deflated(parted);
        return small.length < raw.length ? small : raw;
    }

    private static byte[] runs(byte[] bytes) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        for (int at = 0; at < bytes.length; ) {
            int same = at;
            while (same < bytes.length && bytes[same] == bytes[at] && same - at < 127) {
                same++;
            }
            if (same - at > 2) {
                out.write(same - at - 1);
                out.write(bytes[at]);
            } else {
                out.write(-(same - at));
                out.write(bytes, at, same - at);
            }
            at = same;
        }
        return out.toByteArray();
    }

    private static byte[] deflated(byte[] bytes) {
        Deflater deflater = new Deflater();
        deflater.setInput(bytes);
        deflater.finish();
        byte[] out = new byte[bytes.length + 100];
        int size = deflater.deflate(out);
        deflater.end();
        return java.util.Arrays.copyOf(out, size);
    }

    private static byte[] ints(int... values) {
        ByteBuffer out = ByteBuffer.allocate(4 * values.length).order(ByteOrder.LITTLE_ENDIAN);
        for (int value : values) {
            out.putInt(value);
        }
        return out.array();
    }

    private static byte[] text(String text) {
        return (text + "\0").getBytes(StandardCharsets.ISO_8859_1);
    }

    private static byte[] join(byte[]... parts) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        for (byte[] part : parts) {
            out.writeBytes(part);
        }
        return out.toByteArray();
    }

    private static void attribute(ByteArrayOutputStream out, String name, String type, byte[] value) {
        out.writeBytes(join(text(name), text(type), ints(value.length), value));
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 2, 3})
    void nearnessComesOutAsItWasPutIn(int compression) {
        // Flat stretches and a ramp, so that both run lengths and differences occur.
        Value value = (x, y) -> y < 10 ? 0.25f : x / 20f;
        Plane plane = reader.read(exr(compression, "Y", value), new Size(WIDTH * 3, HEIGHT * 3));
        for (int y = 0; y < HEIGHT; y++) {
            for (int x = 0; x < WIDTH; x++) {
                assertThat(plane.at(x, y)).isCloseTo(value.at(x, y), within(1e-6f));
            }
        }
    }

    @Test
    void aChannelOfDistancesBecomesInverseDistance() {
        // Distances 1 at the left, 3 at the right: halfway across, at 2, inverse distance is (1/2 - 1/3) / (1 - 1/3).
        byte[] file = exr(3, "depth.Z", (x, y) -> 1 + x / 10f);
        Plane plane = reader.read(file, new Size(WIDTH, HEIGHT));
        assertThat(plane.at(0, 5)).isCloseTo(1, within(1e-5f));
        assertThat(plane.at(10, 5)).isCloseTo(0.25f, within(1e-5f));
        assertThat(plane.at(20, 5)).isCloseTo(0, within(1e-5f));
    }

    @Test
    void otherFloatsCountFromTheirSmallestToTheirLargest() {
        Plane plane = reader.read(exr(2, "R", (x, y) -> 100 + 10 * x), new Size(WIDTH, HEIGHT));
        assertThat(plane.at(5, 3)).isCloseTo(0.25f, within(1e-5f));
    }

    @Test
    void valuesThatAreNoNumbersAreToldWithTheirPlace() {
        byte[] file = exr(0, "Y", (x, y) -> x == 4 && y == 9 ? Float.NaN : 0.1f * x);
        assertThatThrownBy(() -> reader.read(file, new Size(WIDTH, HEIGHT)))
                .isInstanceOf(UnreadablePictureException.class)
                .hasMessageContaining("4, 9");
        byte[] endless = exr(0, "Y", (x, y) -> x == 0 && y == 1 ? Float.POSITIVE_INFINITY : 0.1f * x);
        assertThatThrownBy(() -> reader.read(endless, new Size(WIDTH, HEIGHT))).hasMessageContaining("0, 1");
    }

    @Test
    void anAllEqualMapIsRefused() {
        assertThatThrownBy(() -> reader.read(exr(3, "Y", (x, y) -> 0.4f), new Size(WIDTH, HEIGHT)))
                .hasMessageContaining("equal");
    }

    @Test
    void aCutOffFileIsRefusedWhereverItEnds() {
        byte[] file = exr(3, "Y", (x, y) -> x * y / 1000f);
        for (int length = 12; length < file.length; length += 13) {
            byte[] cut = java.util.Arrays.copyOf(file, length);
            assertThatThrownBy(() -> reader.read(cut, new Size(WIDTH, HEIGHT)))
                    .isInstanceOf(UnreadablePictureException.class);
        }
    }

    @Test
    void aClaimedSizeOverTheLimitIsRefusedBeforeAnythingIsDecoded() {
        byte[] file = exr(0, "Y", (x, y) -> x);
        assertThatThrownBy(() -> new ExrReader(500).read(file)).hasMessageContaining("21 x 34");
    }

    /** A kilobyte that says it is a hundred million pixels. */
    @Test
    void nothingIsAllocatedForPixelsThatTheFileCannotHold() {
        byte[] file = exr(3, "Y", (x, y) -> 0.5f);
        int window = indexOf(file, "dataWindow") + "dataWindow box2i ".length() + Integer.BYTES;
        ByteBuffer.wrap(file)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putInt(window + 8, 5)
                .putInt(window + 12, 7 + 99_999_999);
        var memory = (com.sun.management.ThreadMXBean) ManagementFactory.getThreadMXBean();
        long before = memory.getCurrentThreadAllocatedBytes();

        assertThat(reader.claimed(file)).isEqualTo(new Size(1, 100_000_000));
        assertThatThrownBy(() -> reader.read(file, new Size(1, 100_000_000))).hasMessageContaining("cut off");
        assertThat(memory.getCurrentThreadAllocatedBytes() - before).isLessThan(2_000_000);
    }

    private static int indexOf(byte[] file, String word) {
        return new String(file, StandardCharsets.ISO_8859_1).indexOf(word);
    }
}
