package app.yubble.media.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.junit.jupiter.api.Test;

class ToneCurveTest {
    /** A profile with nothing but a header and one curve for all three channels. */
    private static byte[] profile(byte[] curve) {
        ByteBuffer icc = ByteBuffer.allocate(132 + 3 * 12 + curve.length);
        icc.position(16);
        icc.put("RGB ".getBytes(StandardCharsets.US_ASCII));
        icc.position(128);
        icc.putInt(3);
        for (String tag : new String[] {"rTRC", "gTRC", "bTRC"}) {
            icc.put(tag.getBytes(StandardCharsets.US_ASCII)).putInt(168).putInt(curve.length);
        }
        return icc.put(curve).array();
    }

    private static byte[] parametric(int kind, double... values) {
        ByteBuffer curve = ByteBuffer.allocate(12 + 4 * values.length);
        curve.put("para".getBytes(StandardCharsets.US_ASCII))
                .putInt(0)
                .putShort((short) kind)
                .putShort((short) 0);
        for (double value : values) {
            curve.putInt((int) Math.round(value * 65536));
        }
        return curve.array();
    }

    private static ToneCurve read(byte[] curve) {
        return ToneCurve.ofProfile(profile(curve)).orElseThrow();
    }

    @Test
    void theParametricFormOfTheStandardCurveIsTheStandardCurve() {
        // IEC 61966-2-1 in ICC's third form: Y = (aX + b)^g above d, cX below.
        ToneCurve read = read(parametric(3, 2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045));
        float[] ours = read.decoding(1, 255);
        float[] standard = ToneCurve.SRGB.decoding(1, 255);
        for (int i = 0; i < 256; i++) {
            assertThat(ours[i]).isCloseTo(standard[i], within(2e-4f));
        }
    }

    @Test
    void gammaAndSampledCurvesAreRead() {
        assertThat(read(parametric(0, 2.2)).decoding(0, 2)[1]).isCloseTo((float) Math.pow(0.5, 2.2), within(1e-4f));
        ByteBuffer gamma = ByteBuffer.allocate(14);
        gamma.put("curv".getBytes(StandardCharsets.US_ASCII))
                .putInt(0)
                .putInt(1)
                .putShort((short) 0x0200);
        assertThat(read(gamma.array()).decoding(0, 2)[1]).isCloseTo(0.25f, within(1e-5f));
        ByteBuffer sampled = ByteBuffer.allocate(18);
        sampled.put("curv".getBytes(StandardCharsets.US_ASCII)).putInt(0).putInt(3);
        sampled.putShort((short) 0).putShort((short) 0x4000).putShort((short) 0xffff);
        assertThat(read(sampled.array()).decoding(0, 4)[1]).isCloseTo(0.125f, within(1e-3f));
    }

    @Test
    void encodingUndoesDecodingForEveryEightBitValue() {
        float[] decode = ToneCurve.SRGB.decoding(2, 255);
        float[] encode = ToneCurve.SRGB.encoding(2);
        for (int code = 0; code < 256; code++) {
            double at = Math.sqrt(decode[code]) * (encode.length - 1);
            int before = Math.min(encode.length - 2, (int) at);
            double back = encode[before] + (at - before) * (encode[before + 1] - encode[before]);
            assertThat(back * 255).isCloseTo(code, within(0.04));
        }
    }

    @Test
    void brokenProfilesAreNoReasonToFail() {
        byte[] good = profile(parametric(0, 2.2));
        assertThat(ToneCurve.ofProfile(new byte[10])).isEmpty();
        assertThat(ToneCurve.ofProfile(Arrays.copyOf(good, 140))).isEmpty();
        byte[] grey = good.clone();
        grey[16] = 'G';
        assertThat(ToneCurve.ofProfile(grey)).isEmpty();
        byte[] unknown = good.clone();
        unknown[168] = 'x';
        assertThat(ToneCurve.ofProfile(unknown)).isEmpty();
        byte[] kind = good.clone();
        kind[177] = 9;
        assertThat(ToneCurve.ofProfile(kind)).isEmpty();
    }

    @Test
    void metadataIsRewrittenUprightAndReadBack() {
        // Little-endian, one directory: orientation 6 and an artist's name of more than four bytes.
        ByteBuffer tiff = ByteBuffer.allocate(64).order(java.nio.ByteOrder.LITTLE_ENDIAN);
        tiff.put((byte) 'I').put((byte) 'I').putShort((short) 42).putInt(8).putShort((short) 2);
        tiff.putShort((short) 0x0112).putShort((short) 3).putInt(1).putInt(6);
        tiff.putShort((short) 0x013b).putShort((short) 2).putInt(10).putInt(40);
        tiff.position(40);
        tiff.put("Mira Lund\0".getBytes(StandardCharsets.US_ASCII));
        byte[] rewritten = ExifBlock.parse(tiff.array()).orElseThrow().bytes();
        assertThat(new String(rewritten, StandardCharsets.ISO_8859_1))
                .startsWith("MM")
                .contains("Mira Lund");
        ByteBuffer out = ByteBuffer.wrap(rewritten);
        assertThat(out.getShort(8)).isEqualTo((short) 2);
        assertThat(out.getShort(10)).isEqualTo((short) 0x0112);
        assertThat(out.getShort(18)).isEqualTo((short) 1);
        assertThat(ExifBlock.parse(new byte[] {'I', 'I', 42})).isEmpty();
        assertThat(ExifBlock.parse(new byte[0])).isEmpty();
    }
}
