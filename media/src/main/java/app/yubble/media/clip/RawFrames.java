package app.yubble.media.clip;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.picture.ToneCurve;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;

/**
 * Uncompressed pictures with the time of each on a stream, as Matroska (RFC 9559) with the codec {@code V_UNCOMPRESSED}: 16 bits,
 * planes of green, blue and red. Every frame has a cluster of its own, so that times of any distance fit.
 */
final class RawFrames {
    /** Layout of the samples, as programs that follow the four-letter codes of raw video name it. */
    private static final byte[] PLANAR_16 = {'G', '3', 0, 16};

    private static final byte[] GREY_16 = {'Y', '1', 0, 16};

    private static final int STEPS = 65535;
    private static final int EBML = 0x1A45DFA3;
    private static final int DOC_TYPE = 0x4282;
    private static final int SEGMENT = 0x18538067;
    private static final int INFO = 0x1549A966;
    private static final int TIMESTAMP_SCALE = 0x2AD7B1;
    private static final int MUXING_APP = 0x4D80;
    private static final int WRITING_APP = 0x5741;
    private static final int TRACKS = 0x1654AE6B;
    private static final int TRACK_ENTRY = 0xAE;
    private static final int TRACK_NUMBER = 0xD7;
    private static final int TRACK_UID = 0x73C5;
    private static final int TRACK_TYPE = 0x83;
    private static final int CODEC_ID = 0x86;
    private static final int VIDEO = 0xE0;
    private static final int PIXEL_WIDTH = 0xB0;
    private static final int PIXEL_HEIGHT = 0xBA;
    private static final int COLOUR_SPACE = 0x2EB524;
    private static final int CLUSTER = 0x1F43B675;
    private static final int TIMESTAMP = 0xE7;
    private static final int BLOCK_GROUP = 0xA0;
    private static final int BLOCK = 0xA1;
    private static final int BLOCK_DURATION = 0x9B;
    /** Nanoseconds of a tick: microseconds are written. */
    private static final long SCALE = 1000;
    /** Track 1, at the cluster's own time, no flags. */
    private static final byte[] BLOCK_HEAD = {(byte) 0x81, 0, 0, 0};

    private static final int LONG_SIZE = 8;

    private final OutputStream out;
    private final Size size;
    private final float[][] codes;
    private final byte[] samples;

    private RawFrames(OutputStream out, Size size, byte[] layout, int planes, float[][] codes) throws IOException {
        this.out = out;
        this.size = size;
        this.codes = codes;
        samples = new byte[Math.toIntExact(size.pixels() * 2 * planes)];
        out.write(element(EBML, text(DOC_TYPE, "matroska")));
        out.write(id(SEGMENT));
        // Of unknown size.
        out.write(new byte[] {1, -1, -1, -1, -1, -1, -1, -1});
        out.write(
                element(INFO, number(TIMESTAMP_SCALE, SCALE), text(MUXING_APP, "yubble"), text(WRITING_APP, "yubble")));
        out.write(element(
                TRACKS,
                element(
                        TRACK_ENTRY,
                        number(TRACK_NUMBER, 1),
                        number(TRACK_UID, 1),
                        number(TRACK_TYPE, 1),
                        text(CODEC_ID, "V_UNCOMPRESSED"),
                        element(
                                VIDEO,
                                number(PIXEL_WIDTH, size.width()),
                                number(PIXEL_HEIGHT, size.height()),
                                element(COLOUR_SPACE, layout)))));
    }

    static RawFrames ofPictures(OutputStream out, Size size, ToneCurve curve) throws IOException {
        return new RawFrames(out, size, PLANAR_16, 3, curve.codes());
    }

    /** One plane, its samples written as they are. */
    static RawFrames ofPlanes(OutputStream out, Size size) throws IOException {
        return new RawFrames(out, size, GREY_16, 1, new float[0][]);
    }

    void write(Plane plane, long micros, long lastsMicros) throws IOException {
        float[] from = plane.samples();
        for (int i = 0; i < from.length; i++) {
            int code = Math.round(Math.max(0, Math.min(1, from[i])) * STEPS);
            samples[2 * i] = (byte) code;
            samples[2 * i + 1] = (byte) (code >> 8);
        }
        block(micros, lastsMicros);
    }

    /** @param micros from the beginning; rising from frame to frame */
    void write(Picture picture, long micros, long lastsMicros) throws IOException {
        int pixels = (int) size.pixels();
        encode(picture.green().samples(), codes[1], 0);
        encode(picture.blue().samples(), codes[2], 2 * pixels);
        encode(picture.red().samples(), codes[0], 4 * pixels);
        block(micros, lastsMicros);
    }

    private void block(long micros, long lastsMicros) throws IOException {
        byte[] time = number(TIMESTAMP, micros);
        byte[] lasts = number(BLOCK_DURATION, lastsMicros);
        int block = BLOCK_HEAD.length + samples.length;
        int group = 1 + LONG_SIZE + block + lasts.length;
        out.write(id(CLUSTER));
        out.write(longSize(time.length + 1 + LONG_SIZE + group));
        out.write(time);
        out.write(id(BLOCK_GROUP));
        out.write(longSize(group));
        out.write(id(BLOCK));
        out.write(longSize(block));
        out.write(BLOCK_HEAD);
        out.write(samples);
        out.write(lasts);
    }

    private void encode(float[] from, float[] table, int start) {
        int width = size.width();
        Bands.ofRows(size.height(), (first, end) -> {
            int at = start + 2 * first * width;
            for (int i = first * width; i < end * width; i++, at += 2) {
                int code = Math.round(ToneCurve.encoded(table, from[i]) * STEPS);
                samples[at] = (byte) code;
                samples[at + 1] = (byte) (code >> 8);
            }
        });
    }

    private static byte[] element(int id, byte[]... parts) throws IOException {
        ByteArrayOutputStream content = new ByteArrayOutputStream();
        for (byte[] part : parts) {
            content.write(part);
        }
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        all.write(id(id));
        all.write(longSize(content.size()));
        content.writeTo(all);
        return all.toByteArray();
    }

    private static byte[] text(int id, String value) throws IOException {
        return element(id, value.getBytes(StandardCharsets.US_ASCII));
    }

    private static byte[] number(int id, long value) throws IOException {
        return element(id, ByteBuffer.allocate(Long.BYTES).putLong(value).array());
    }

    private static byte[] id(int id) {
        int bytes = (32 - Integer.numberOfLeadingZeros(id) + 7) / 8;
        byte[] out = new byte[bytes];
        for (int i = 0; i < bytes; i++) {
            out[i] = (byte) (id >> 8 * (bytes - 1 - i));
        }
        return out;
    }

    private static byte[] longSize(int size) {
        return ByteBuffer.allocate(LONG_SIZE).putLong(size | 1L << 56).array();
    }
}
