package app.yubble.media.picture;

import java.nio.ByteBuffer;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReferenceArray;

/**
 * From code values to linear light and back, for each of three channels.
 *
 * <p>Read from the {@code rTRC}, {@code gTRC} and {@code bTRC} tags of an ICC profile (ICC.1:2022, sections 10.6 and
 * 10.18: sampled curves and parametric curves), or the sRGB curve of IEC 61966-2-1.
 */
public final class ToneCurve {
    public static final ToneCurve SRGB = of(srgb());

    /** ITU-R BT.709 and BT.2020, the camera's side (BT.709-6, item 1.2, turned round). */
    public static final ToneCurve BT709 =
            of(code -> code < 0.081 ? code / 4.5 : Math.pow((code + 0.099) / 1.099, 1 / 0.45));

    private static final int STEPS = 1 << 16;

    private final Channel[] channels;
    /** Made when first wanted: a table takes longer to make than a preview to encode. */
    /** So bright, over white, is nothing that a lens draws; more would only overflow. */
    private static final double MOST = 1e4;

    private final AtomicReferenceArray<float[]> encodings = new AtomicReferenceArray<>(3);

    private final AtomicReferenceArray<EightBit> eightBits = new AtomicReferenceArray<>(3);

    private ToneCurve(Channel[] channels) {
        this.channels = channels;
    }

    /** Linear light at a code value in [0,1]. */
    @FunctionalInterface
    private interface Channel {
        double linear(double code);
    }

    private static ToneCurve of(Channel each) {
        return new ToneCurve(new Channel[] {each, each, each});
    }

    /** Light is the code value to the power of {@code gamma}. */
    public static ToneCurve ofGamma(double gamma) {
        return of(code -> Math.pow(code, gamma));
    }

    private static Channel srgb() {
        return code -> code <= 0.04045 ? code / 12.92 : Math.pow((code + 0.055) / 1.055, 2.4);
    }

    /** The curves of an RGB profile; empty when it has none (tables only) or is not an RGB profile. */
    public static Optional<ToneCurve> ofProfile(byte[] profile) {
        Optional<IccProfile> icc = IccProfile.of(profile);
        if (icc.isEmpty()) {
            return Optional.empty();
        }
        try {
            Channel[] channels = new Channel[3];
            for (int c = 0; c < 3; c++) {
                Optional<Integer> offset = icc.get().offset("rgb".charAt(c) + "TRC");
                if (offset.isEmpty()) {
                    return Optional.empty();
                }
                channels[c] = channel(icc.get().bytes(), offset.get());
            }
            return Optional.of(new ToneCurve(channels));
        } catch (IndexOutOfBoundsException | IllegalArgumentException broken) {
            return Optional.empty();
        }
    }

    private static Channel channel(ByteBuffer icc, int at) {
        int type = icc.getInt(at);
        if (type == IccProfile.tag("curv")) {
            int count = icc.getInt(at + 8);
            if (count == 0) {
                return code -> code;
            }
            if (count == 1) {
                double gamma = (icc.getShort(at + 12) & 0xffff) / 256.0;
                return code -> Math.pow(code, gamma);
            }
            if (count < 0 || count > STEPS) {
                throw new IllegalArgumentException("a curve of " + count + " points");
            }
            double[] points = new double[count];
            for (int i = 0; i < count; i++) {
                points[i] = (icc.getShort(at + 12 + 2 * i) & 0xffff) / 65535.0;
            }
            return code -> {
                double position = code * (points.length - 1);
                int before = Math.min(points.length - 2, (int) position);
                return points[before] + (position - before) * (points[before + 1] - points[before]);
            };
        }
        if (type == IccProfile.tag("para")) {
            return parametric(icc, at);
        }
        throw new IllegalArgumentException("a curve of an unknown type");
    }

    private static Channel parametric(ByteBuffer icc, int at) {
        int[] parameterCounts = {1, 3, 4, 5, 7};
        int kind = icc.getShort(at + 8);
        double[] p = new double[7];
        for (int i = 0; i < parameterCounts[kind]; i++) {
            p[i] = icc.getInt(at + 12 + 4 * i) / 65536.0;
        }
        double g = p[0];
        double a = kind == 0 ? 1 : p[1];
        double b = p[2];
        double c = kind >= 3 ? p[3] : 0;
        double d = kind >= 3 ? p[4] : 0;
        double e = kind == 4 ? p[5] : kind == 2 ? p[3] : 0;
        double f = kind == 4 ? p[6] : kind == 2 ? p[3] : 0;
        double from = kind >= 3 ? d : kind == 0 ? 0 : -b / a;
        return code -> code >= from ? Math.pow(Math.max(0, a * code + b), g) + e : c * code + f;
    }

    /** Linear light at one code; 1 is white. What is brighter than white goes on in proportion, what is no number is black. */
    float linear(int channel, double code) {
        if (!(code > 0)) {
            return (float) channels[channel].linear(0);
        }
        return (float)
                (code <= 1 ? channels[channel].linear(code) : channels[channel].linear(1) * Math.min(MOST, code));
    }

    /** Linear light for each code value from 0 to {@code most}, for channel 0 red, 1 green, 2 blue. */
    float[] decoding(int channel, int most) {
        float[] table = new float[most + 1];
        for (int i = 0; i <= most; i++) {
            table[i] = (float) channels[channel].linear((double) i / most);
        }
        return table;
    }

    /** {@link #decoding} of red, green and blue. */
    public float[][] tables(int most) {
        return new float[][] {decoding(0, most), decoding(1, most), decoding(2, most)};
    }

    /**
     * The code in [0,1] for each of {@code steps + 1} equal steps of the square root of linear light, for each channel: entry i is
     * for {@code (i / steps)^2}.
     */
    public float[][] codes() {
        return new float[][] {encoding(0), encoding(1), encoding(2)};
    }

    /**
     * Code values in [0,1] for linear light in equal steps of its square root: entry i is for {@code (i / n)^2}.
     * The square root spends the entries where curves are steep.
     */
    float[] encoding(int channel) {
        float[] known = encodings.get(channel);
        if (known == null) {
            known = newEncoding(channel);
            encodings.set(channel, known);
        }
        return known;
    }

    /** The code in [0,1] of a linear sample, by a table of {@link #encoding}. */
    public static float encoded(float[] table, float linear) {
        if (!(linear > 0)) {
            return table[0];
        }
        if (linear >= 1) {
            return table[table.length - 1];
        }
        float at = (float) Math.sqrt(linear) * (table.length - 1);
        int before = Math.min(table.length - 2, (int) at);
        return table[before] + (at - before) * (table[before + 1] - table[before]);
    }

    private float[] newEncoding(int channel) {
        double[] linear = new double[STEPS];
        for (int i = 0; i < STEPS; i++) {
            linear[i] = channels[channel].linear(i / (STEPS - 1.0));
        }
        float[] table = new float[STEPS / 4 + 1];
        int at = 0;
        for (int i = 0; i < table.length; i++) {
            double root = (double) i / (table.length - 1);
            double wanted = root * root;
            while (at < STEPS - 2 && linear[at + 1] < wanted) {
                at++;
            }
            double span = linear[at + 1] - linear[at];
            double within = span <= 0 ? 0 : Math.max(0, Math.min(1, (wanted - linear[at]) / span));
            table[i] = (float) ((at + within) / (STEPS - 1));
        }
        return table;
    }

    /** The way from linear light to eight bits for a channel. */
    EightBit eightBit(int channel) {
        EightBit known = eightBits.get(channel);
        if (known == null) {
            known = new EightBit(encoding(channel));
            eightBits.set(channel, known);
        }
        return known;
    }
}
