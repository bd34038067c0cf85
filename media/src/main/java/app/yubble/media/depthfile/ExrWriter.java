package app.yubble.media.depthfile;

import app.yubble.core.raster.Plane;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.zip.Deflater;

/** Writes one plane as an OpenEXR file of scan lines with ZIP compression (openexr.com, "OpenEXR File Layout"): channel Y, 32-bit. */
final class ExrWriter {
    private static final int MAGIC = 20000630;
    private static final int VERSION = 2;
    private static final int FLOAT = 2;
    private static final int ZIP = 3;
    /** Lines of a block of this compression. */
    private static final int LINES = 16;

    private ExrWriter() {}

    static void write(Plane plane, OutputStream out) throws IOException {
        byte[] header = header(plane.width(), plane.height());
        int blocks = (plane.height() + LINES - 1) / LINES;
        byte[][] packed = new byte[blocks][];
        for (int i = 0; i < blocks; i++) {
            packed[i] = packed(plane, i * LINES, Math.min(plane.height(), (i + 1) * LINES));
        }
        out.write(header);
        ByteBuffer table = little(8 * blocks);
        long at = header.length + 8L * blocks;
        for (byte[] each : packed) {
            table.putLong(at);
            at += 8 + each.length;
        }
        out.write(table.array());
        for (int i = 0; i < blocks; i++) {
            out.write(little(8).putInt(i * LINES).putInt(packed[i].length).array());
            out.write(packed[i]);
        }
    }

    private static ByteBuffer little(int bytes) {
        return ByteBuffer.allocate(bytes).order(ByteOrder.LITTLE_ENDIAN);
    }

    private static byte[] header(int width, int height) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(little(8).putInt(MAGIC).putInt(VERSION).array());
        byte[] box = little(16)
                .putInt(0)
                .putInt(0)
                .putInt(width - 1)
                .putInt(height - 1)
                .array();
        byte[] channel = little(19)
                .put((byte) 'Y')
                .put((byte) 0)
                .putInt(FLOAT)
                .putInt(0)
                .putInt(1)
                .putInt(1)
                .array();
        attribute(out, "channels", "chlist", channel);
        attribute(out, "compression", "compression", new byte[] {ZIP});
        attribute(out, "dataWindow", "box2i", box);
        attribute(out, "displayWindow", "box2i", box);
        attribute(out, "lineOrder", "lineOrder", new byte[1]);
        attribute(out, "pixelAspectRatio", "float", little(4).putFloat(1).array());
        attribute(out, "screenWindowCenter", "v2f", new byte[8]);
        attribute(out, "screenWindowWidth", "float", little(4).putFloat(1).array());
        out.write(0);
        return out.toByteArray();
    }

    private static void attribute(ByteArrayOutputStream out, String name, String type, byte[] value) {
        out.writeBytes((name + "\0" + type + "\0").getBytes(StandardCharsets.US_ASCII));
        out.writeBytes(little(4).putInt(value.length).array());
        out.writeBytes(value);
    }

    /** Bytes of even places first, then those of odd ones, each as its difference from the one before, deflated. */
    private static byte[] packed(Plane plane, int first, int end) {
        int samples = (end - first) * plane.width();
        ByteBuffer plain = little(4 * samples);
        plain.asFloatBuffer().put(plane.samples(), first * plane.width(), samples);
        byte[] from = plain.array();
        byte[] sorted = new byte[from.length];
        int half = (from.length + 1) / 2;
        for (int i = 0; i < from.length; i++) {
            sorted[i % 2 == 0 ? i / 2 : half + i / 2] = from[i];
        }
        for (int i = sorted.length - 1; i > 0; i--) {
            sorted[i] = (byte) (sorted[i] - sorted[i - 1] + 128);
        }
        Deflater deflater = new Deflater(Deflater.BEST_SPEED);
        try {
            deflater.setInput(sorted);
            deflater.finish();
            ByteArrayOutputStream out = new ByteArrayOutputStream(sorted.length / 2);
            byte[] buffer = new byte[1 << 16];
            while (!deflater.finished()) {
                out.write(buffer, 0, deflater.deflate(buffer));
            }
            // What does not become smaller stands as it is, which its length tells.
            return out.size() < from.length ? out.toByteArray() : from;
        } finally {
            deflater.end();
        }
    }
}
