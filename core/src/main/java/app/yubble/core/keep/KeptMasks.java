package app.yubble.core.keep;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.DataFormatException;
import java.util.zip.Deflater;
import java.util.zip.Inflater;
import org.jspecify.annotations.Nullable;

/** Masks of a clip's frames, each all or nothing, kept small. */
public final class KeptMasks {
    /** Begins the bytes. */
    private static final int MAGIC = 0x594b4d31;
    /** Of the numbers before the frames. */
    private static final int HEAD = 16;
    /** Of the numbers before a frame's bits. */
    private static final int FRAME_HEAD = 8;
    /** Side of the largest masks that are read. */
    private static final int MOST_SIDE = 4096;

    private final Size size;
    private final TreeMap<Integer, byte[]> frames = new TreeMap<>();

    public KeptMasks(Size size) {
        this.size = size;
    }

    public KeptMasks(KeptMasks from) {
        this(from.size);
        frames.putAll(from.frames);
    }

    /** @param mask more than a half is all */
    public void put(int frame, Plane mask) {
        byte[] bits = new byte[bytes()];
        for (int i = 0; i < mask.samples().length; i++) {
            if (mask.samples()[i] > 0.5f) {
                bits[i >> 3] |= (byte) (1 << (i & 7));
            }
        }
        frames.put(frame, deflated(bits));
    }

    /** 1 on the subject, 0 elsewhere; null when it was not carried to this frame. */
    public @Nullable Plane at(int frame) {
        byte[] packed = frames.get(frame);
        if (packed == null) {
            return null;
        }
        byte[] bits = inflated(packed);
        Plane out = new Plane(size);
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = (bits[i >> 3] >> (i & 7)) & 1;
        }
        return out;
    }

    /** Whether anything of it is seen at a frame. */
    public boolean isSeen(int frame) {
        byte[] packed = frames.get(frame);
        if (packed != null) {
            for (byte each : inflated(packed)) {
                if (each != 0) {
                    return true;
                }
            }
        }
        return false;
    }

    private int bytes() {
        return (int) ((size.pixels() + 7) / 8);
    }

    /** All of it, to be stored. */
    public byte[] written() {
        int length = HEAD
                + frames.values().stream()
                        .mapToInt(each -> FRAME_HEAD + each.length)
                        .sum();
        ByteBuffer out = ByteBuffer.allocate(length);
        out.putInt(MAGIC).putInt(size.width()).putInt(size.height()).putInt(frames.size());
        for (Map.Entry<Integer, byte[]> each : frames.entrySet()) {
            out.putInt(each.getKey()).putInt(each.getValue().length).put(each.getValue());
        }
        return out.array();
    }

    /** @throws IllegalArgumentException when the bytes are none of {@link #written} */
    public static KeptMasks read(byte[] bytes) {
        ByteBuffer in = ByteBuffer.wrap(bytes);
        require(bytes.length >= HEAD && in.getInt() == MAGIC);
        int width = in.getInt();
        int height = in.getInt();
        require(width > 0 && height > 0 && width <= MOST_SIDE && height <= MOST_SIDE);
        KeptMasks out = new KeptMasks(new Size(width, height));
        int count = in.getInt();
        for (int i = 0; i < count; i++) {
            require(in.remaining() >= FRAME_HEAD);
            int frame = in.getInt();
            int length = in.getInt();
            require(length >= 0 && length <= in.remaining());
            byte[] packed = new byte[length];
            in.get(packed);
            out.frames.put(frame, packed);
        }
        return out;
    }

    private static void require(boolean right) {
        if (!right) {
            throw new IllegalArgumentException("masks of a kept subject are damaged");
        }
    }

    private static byte[] deflated(byte[] bits) {
        Deflater deflater = new Deflater(Deflater.BEST_SPEED);
        try {
            deflater.setInput(bits);
            deflater.finish();
            // What cannot be made smaller grows by a few bytes.
            byte[] out = new byte[bits.length + bits.length / 8 + 64];
            int length = deflater.deflate(out);
            return Arrays.copyOf(out, length);
        } finally {
            deflater.end();
        }
    }

    private byte[] inflated(byte[] packed) {
        Inflater inflater = new Inflater();
        try {
            inflater.setInput(packed);
            byte[] out = new byte[bytes()];
            require(inflater.inflate(out) == out.length);
            return out;
        } catch (DataFormatException damaged) {
            throw new IllegalArgumentException("masks of a kept subject are damaged", damaged);
        } finally {
            inflater.end();
        }
    }
}
