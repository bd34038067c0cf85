package app.yubble.media.picture;

import app.yubble.core.raster.Bands;
import java.awt.image.DataBuffer;
import java.awt.image.DataBufferUShort;
import java.awt.image.PixelInterleavedSampleModel;
import java.awt.image.Raster;
import java.awt.image.RenderedImage;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.zip.Adler32;
import java.util.zip.CRC32;
import java.util.zip.Deflater;

/**
 * Writes PNG files of 16 bits, grey or RGB, as {@link DeepPng} reads them (ISO/IEC 15948): rows as differences from pixel to pixel, pieces of
 * rows deflated beside each other. The platform's writer tries five differences for each row on one core; it took most of the time that
 * bringing a photo in takes.
 */
final class DeepPngWriter {
    /** Bytes of a piece; each begins to be packed anew. */
    private static final int PIECE = 1 << 20;
    /** Pieces that are in memory at once. */
    private static final int AT_ONCE = 8;
    /** More takes twice as long and saves next to nothing: the lower bytes are noise. */
    private static final int LEVEL = 2;
    /** Each pixel is less the one on its left. */
    private static final byte SUB = 1;
    /** Deflate, with a window of 32 KB; the second byte makes the two a multiple of 31. */
    private static final byte[] ZLIB = {0x78, 0x01};

    private static final byte[] SIGNATURE = {(byte) 0x89, 'P', 'N', 'G', '\r', '\n', 0x1a, '\n'};
    private static final int HEADER = 13;
    private static final byte DEPTH = 16;
    /** Kinds of colour: grey, and red, green and blue. */
    private static final byte GREY = 0;

    private static final byte RGB = 2;
    /** Modulus of the sum that ends the data. */
    private static final long ADLER = 65_521;

    private final RenderedImage image;
    private final int width;
    private final int height;
    private final int bands;
    private final OutputStream out;

    private DeepPngWriter(RenderedImage image, OutputStream out) {
        this.image = image;
        width = image.getWidth();
        height = image.getHeight();
        bands = image.getSampleModel().getNumBands();
        this.out = out;
    }

    /** Whether an image is as this writer takes it: its samples lie side by side, in one piece or in pieces of rows. */
    static boolean takes(RenderedImage image) {
        if (!(image.getTile(0, 0).getSampleModel() instanceof PixelInterleavedSampleModel model)) {
            return false;
        }
        int bands = model.getNumBands();
        return model.getDataType() == DataBuffer.TYPE_USHORT
                && !image.getColorModel().hasAlpha()
                && (bands == 1 || bands == 3)
                && model.getPixelStride() == bands
                && model.getScanlineStride() == image.getWidth() * bands
                && Arrays.equals(model.getBandOffsets(), Arrays.copyOf(new int[] {0, 1, 2}, bands))
                && image.getNumXTiles() == 1
                && image.getMinY() == 0
                && image.getTile(0, 0).getSampleModelTranslateX() == 0
                && image.getTile(0, 0).getDataBuffer().getOffset() == 0;
    }

    /**
     * @param image that it {@link #takes}
     * @param notes chunks before the data, of name and content
     */
    static void write(RenderedImage image, Iterable<PngWriter.Chunk> notes, OutputStream out) throws IOException {
        DeepPngWriter writer = new DeepPngWriter(image, out);
        out.write(SIGNATURE);
        ByteBuffer header = ByteBuffer.allocate(HEADER).putInt(writer.width).putInt(writer.height);
        header.put(DEPTH).put(writer.bands == 1 ? GREY : RGB);
        writer.chunk("IHDR", header.array());
        for (PngWriter.Chunk each : notes) {
            writer.chunk(each.type(), each.content());
        }
        writer.data();
        writer.chunk("IEND", new byte[0]);
    }

    private void chunk(String type, byte[]... parts) throws IOException {
        CRC32 sum = new CRC32();
        byte[] name = type.getBytes(StandardCharsets.US_ASCII);
        sum.update(name);
        int length = 0;
        for (byte[] each : parts) {
            sum.update(each);
            length += each.length;
        }
        out.write(
                ByteBuffer.allocate(2 * Integer.BYTES).putInt(length).put(name).array());
        for (byte[] each : parts) {
            out.write(each);
        }
        out.write(number((int) sum.getValue()));
    }

    private static byte[] number(int value) {
        return ByteBuffer.allocate(Integer.BYTES).putInt(value).array();
    }

    /**
     * Some rows.
     *
     * @param sum Adler's, of the rows before they were packed
     * @param length of them
     */
    private record Packed(byte[] bytes, long sum, long length) {}

    private void data() throws IOException {
        int rows = Math.max(1, PIECE / (2 * bands * width + 1));
        int pieces = (height + rows - 1) / rows;
        long sum = 1;
        for (int first = 0; first < pieces; first += AT_ONCE) {
            Packed[] packed = new Packed[Math.min(AT_ONCE, pieces - first)];
            int from = first;
            Bands.ofPieces(packed.length, i -> {
                int piece = from + i;
                packed[i] = packed(piece * rows, Math.min(height, (piece + 1) * rows), piece == pieces - 1);
            });
            for (int i = 0; i < packed.length; i++) {
                sum = joined(sum, packed[i]);
                byte[] begin = first + i == 0 ? ZLIB : new byte[0];
                byte[] end = first + i == pieces - 1 ? number((int) sum) : new byte[0];
                chunk("IDAT", begin, packed[i].bytes(), end);
            }
        }
    }

    /** Adler's sum of bytes and more bytes behind them. */
    private static long joined(long before, Packed more) {
        long low = before & 0xffff;
        long ones = (low + (more.sum() & 0xffff) + ADLER - 1) % ADLER;
        long all = (before >>> 16) + (more.sum() >>> 16) + more.length() % ADLER * (low + ADLER - 1) % ADLER;
        return all % ADLER << 16 | ones;
    }

    private Packed packed(int from, int to, boolean last) {
        int row = 2 * bands * width + 1;
        byte[] plain = new byte[row * (to - from)];
        for (int y = from; y < to; y++) {
            differences(y, plain, (y - from) * row);
        }
        Adler32 sum = new Adler32();
        sum.update(plain);
        Deflater deflater = new Deflater(LEVEL, true);
        try {
            deflater.setStrategy(Deflater.FILTERED);
            deflater.setInput(plain);
            if (last) {
                deflater.finish();
            }
            byte[] bytes = new byte[plain.length / 2 + PIECE / 4];
            int length = 0;
            while (true) {
                int more = deflater.deflate(
                        bytes, length, bytes.length - length, last ? Deflater.NO_FLUSH : Deflater.SYNC_FLUSH);
                length += more;
                // Its first answer comes before it has looked at anything, when the strategy was set.
                if (last ? deflater.finished() : more == 0 && deflater.getTotalIn() == plain.length) {
                    return new Packed(Arrays.copyOf(bytes, length), sum.getValue(), plain.length);
                }
                if (length == bytes.length) {
                    bytes = Arrays.copyOf(bytes, 2 * bytes.length);
                }
            }
        } finally {
            deflater.end();
        }
    }

    private void differences(int y, byte[] to, int at) {
        to[at] = SUB;
        Raster rows = image.getTile(0, y / image.getTileHeight());
        short[] samples = ((DataBufferUShort) rows.getDataBuffer()).getData();
        int first = (y - rows.getSampleModelTranslateY()) * width * bands;
        for (int i = 0, j = at + 1; i < width * bands; i++, j += 2) {
            int own = samples[first + i];
            int before = i < bands ? 0 : samples[first + i - bands];
            // Byte by byte: nothing is carried from the lower to the upper.
            to[j] = (byte) ((own >> 8) - (before >> 8));
            to[j + 1] = (byte) (own - before);
        }
    }
}
