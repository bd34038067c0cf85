package app.yubble.core.finish;

import app.yubble.core.raster.Picture;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;

/** The noise of a photo: its standard deviation in each channel by brightness, how alike the channels are, and how large it is. */
public final class Noise {
    /** Steps of brightness, of the square root of light. */
    static final int BINS = 12;
    /** Correlation of neighbours up to which noise is one of single pixels. */
    private static final double SINGLE = 0.05;
    /** Correlation of neighbours beyond which noise is not told apart. */
    private static final double WIDEST = 0.95;

    /** Memory held, about. */
    public static final long BYTES = 3L * BINS * Float.BYTES;

    private final float[][] levels;
    private final double alike;
    private final double side;

    /** @param levels by channel and step of brightness */
    Noise(float[][] levels, double alike, double side) {
        this.levels = levels;
        this.alike = alike;
        this.side = side;
    }

    /** The noise of a photo. */
    public static Noise of(Picture photo) {
        return NoiseMeasure.of(photo);
    }

    /** No noise at all. */
    public static Noise none() {
        return new Noise(new float[3][BINS], 0, 0);
    }

    /**
     * Of the photo in fewer pixels, each the mean of as many.
     *
     * @param factor of the sides, at least 1
     */
    public Noise shrunk(double factor) {
        double together = together(side);
        float left = (float) Math.sqrt(together / (together + factor * factor - 1));
        float[][] fewer = new float[3][BINS];
        for (int c = 0; c < 3; c++) {
            for (int bin = 0; bin < BINS; bin++) {
                fewer[c][bin] = left * levels[c][bin];
            }
        }
        return new Noise(fewer, alike, Math.pow(side, factor * factor));
    }

    /** Pixels over which noise hangs together: the sum of the correlations of a Gaussian whose neighbours are alike by {@code beside}. */
    static double together(double beside) {
        return beside < SINGLE ? 1 : Math.max(1, Math.PI / -Math.log(Math.min(WIDEST, beside)));
    }

    public boolean isNone() {
        return Arrays.stream(levels).allMatch(each -> most(each) == 0);
    }

    /** How much the channels vary together, in [0,1]. */
    double alike() {
        return alike;
    }

    /** Correlation of neighbouring pixels, in [0,1]: 0 for noise of single pixels. */
    double beside() {
        return side;
    }

    /** Standard deviation in a channel at a brightness, both in square roots of light. */
    public float level(int channel, float brightness) {
        float at = Math.max(0, Math.min(BINS - 1, brightness * BINS - 0.5f));
        int low = (int) at;
        int high = Math.min(BINS - 1, low + 1);
        return levels[channel][low] + (at - low) * (levels[channel][high] - levels[channel][low]);
    }

    /** All of it, for {@link #read(ByteBuffer)}; little-endian. */
    public ByteBuffer written() {
        ByteBuffer out = ByteBuffer.allocate((int) BYTES + 2 * Double.BYTES)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putDouble(alike)
                .putDouble(side);
        for (float[] channel : levels) {
            for (float level : channel) {
                out.putFloat(level);
            }
        }
        return out.rewind();
    }

    public static Noise read(ByteBuffer from) {
        double alike = from.getDouble();
        double side = from.getDouble();
        float[][] levels = new float[3][BINS];
        for (float[] channel : levels) {
            from.asFloatBuffer().get(channel);
            from.position(from.position() + channel.length * Float.BYTES);
        }
        return new Noise(levels, alike, side);
    }

    private static float most(float[] levels) {
        float most = 0;
        for (float each : levels) {
            most = Math.max(most, each);
        }
        return most;
    }
}
