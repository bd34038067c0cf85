package app.yubble.core.refocus;

import app.yubble.core.raster.Bands;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.WritableByteChannel;
import org.jspecify.annotations.Nullable;

/**
 * Samples as bytes that give the very same samples again. A channel of a file of 8 or 16 bits has as many values at most, and then a sample
 * is written as the number of its value: a quarter or half of the bytes.
 */
final class PackedSamples {
    /** That of the machines we run on: numbers are copied as they lie. */
    static final ByteOrder ORDER = ByteOrder.LITTLE_ENDIAN;

    /** Samples that are written, or read by one thread, at a time. */
    private static final int PIECE = 1 << 18;
    /** So many values have numbers of 8 bits. */
    private static final int FEW = 1 << Byte.SIZE;
    /** So many one of 16. */
    private static final int MANY = 1 << Short.SIZE;

    /** Values by their bits, by open addressing. */
    private static final class Values {
        /** Of a table four times as large as the most values. */
        private static final int MASK = 4 * MANY - 1;
        /** Spreads bits: 2^32 over the golden ratio. */
        private static final int SPREAD = 0x9E3779B9;

        /** To that table from 32 bits. */
        private static final int SHIFT = Integer.numberOfLeadingZeros(MASK);

        private final int[] numbers = new int[MASK + 1];
        private final float[] values = new float[MANY];
        private int count;

        /** Of all samples; null when there are too many. */
        static @Nullable Values of(float[] samples) {
            Values out = new Values();
            for (float each : samples) {
                if (out.number(each) < 0) {
                    return null;
                }
            }
            return out;
        }

        /** The number of a value, a new one if it has none yet; -1 when all are taken. */
        int number(float value) {
            int bits = Float.floatToRawIntBits(value);
            for (int at = bits * SPREAD >>> SHIFT; ; at = at + 1 & MASK) {
                int number = numbers[at] - 1;
                if (number < 0) {
                    if (count == MANY) {
                        return -1;
                    }
                    values[count] = value;
                    numbers[at] = ++count;
                    return count - 1;
                }
                if (Float.floatToRawIntBits(values[number]) == bits) {
                    return number;
                }
            }
        }
    }

    private PackedSamples() {}

    static void write(float[] samples, WritableByteChannel out) throws IOException {
        Values known = Values.of(samples);
        ByteBuffer piece = ByteBuffer.allocate(PIECE * Float.BYTES).order(ORDER);
        piece.putInt(known == null ? 0 : known.count);
        if (known != null) {
            piece.asFloatBuffer().put(known.values, 0, known.count);
            piece.position(piece.position() + known.count * Float.BYTES);
        }
        out.write(piece.flip());
        for (int from = 0; from < samples.length; from += PIECE) {
            int to = Math.min(samples.length, from + PIECE);
            piece.clear();
            if (known == null) {
                piece.asFloatBuffer().put(samples, from, to - from);
                piece.position((to - from) * Float.BYTES);
            } else if (known.count <= FEW) {
                for (int i = from; i < to; i++) {
                    piece.put((byte) known.number(samples[i]));
                }
            } else {
                for (int i = from; i < to; i++) {
                    piece.putShort((short) known.number(samples[i]));
                }
            }
            out.write(piece.flip());
        }
    }

    /** Reads as many as {@code to} holds, and goes on behind them. */
    static void read(ByteBuffer in, float[] to) {
        int count = in.getInt();
        float[] values = new float[count];
        in.asFloatBuffer().get(values);
        in.position(in.position() + count * Float.BYTES);
        int bytes = count == 0 ? Float.BYTES : count <= FEW ? Byte.BYTES : Short.BYTES;
        ByteBuffer own = in.slice(in.position(), to.length * bytes).order(ORDER);
        Bands.ofPieces((to.length + PIECE - 1) / PIECE, piece -> {
            int from = piece * PIECE;
            int end = Math.min(to.length, from + PIECE);
            if (count == 0) {
                own.duplicate()
                        .order(ORDER)
                        .position(from * Float.BYTES)
                        .asFloatBuffer()
                        .get(to, from, end - from);
            } else if (count <= FEW) {
                byte[] numbers = new byte[end - from];
                own.get(from, numbers);
                for (int i = from; i < end; i++) {
                    to[i] = values[Byte.toUnsignedInt(numbers[i - from])];
                }
            } else {
                short[] numbers = new short[end - from];
                own.duplicate()
                        .order(ORDER)
                        .position(from * Short.BYTES)
                        .asShortBuffer()
                        .get(numbers);
                for (int i = from; i < end; i++) {
                    to[i] = values[Short.toUnsignedInt(numbers[i - from])];
                }
            }
        });
        in.position(in.position() + to.length * bytes);
    }
}
