package app.yubble.core.raster;

/**
 * One float per pixel, row-major without gaps.
 *
 * <p>{@link #samples()} is the backing array, given out so that inner loops run on it directly. Whoever creates a
 * plane may fill it; once it has been handed on it is read only.
 */
public final class Plane {
    private final int width;
    private final int height;
    private final float[] samples;

    public Plane(int width, int height) {
        this(width, height, new float[Math.multiplyExact(width, height)]);
    }

    public Plane(Size size) {
        this(size.width(), size.height());
    }

    public Plane(int width, int height, float[] samples) {
        if (width < 1 || height < 1 || samples.length != Math.multiplyExact(width, height)) {
            throw new IllegalArgumentException(
                    "a plane of " + width + "x" + height + " does not fit " + samples.length + " samples");
        }
        this.width = width;
        this.height = height;
        this.samples = samples;
    }

    public int width() {
        return width;
    }

    public int height() {
        return height;
    }

    public Size size() {
        return new Size(width, height);
    }

    /** The backing array; sample (x, y) is at {@code y * width + x}. */
    public float[] samples() {
        return samples;
    }

    public float at(int x, int y) {
        return samples[y * width + x];
    }

    /** The sample at the nearest pixel inside the plane. */
    public float nearestTo(double x, double y) {
        int px = Math.min(width - 1, Math.max(0, (int) Math.floor(x)));
        int py = Math.min(height - 1, Math.max(0, (int) Math.floor(y)));
        return samples[py * width + px];
    }

    /** Bytes held by the samples. */
    public long bytes() {
        return size().pixels() * Float.BYTES;
    }

    public static Plane filled(Size size, float value) {
        Plane plane = new Plane(size);
        java.util.Arrays.fill(plane.samples, value);
        return plane;
    }

    public Plane copy() {
        return new Plane(width, height, samples.clone());
    }

    /** The square root of every sample, 0 for negative ones: dark and light edges of linear light count alike in it. */
    public Plane rooted() {
        Plane out = new Plane(width, height);
        for (int i = 0; i < samples.length; i++) {
            out.samples[i] = (float) Math.sqrt(Math.max(0, samples[i]));
        }
        return out;
    }

    /** Smallest and largest sample. NaN samples are not allowed. */
    public Range range() {
        float low = Float.POSITIVE_INFINITY;
        float high = Float.NEGATIVE_INFINITY;
        for (float sample : samples) {
            low = Math.min(low, sample);
            high = Math.max(high, sample);
        }
        return new Range(low, high);
    }

    /** The sample that a share of all, in [0,1], lies below. NaN samples are not allowed. */
    public float quantile(double share) {
        float[] sorted = samples.clone();
        java.util.Arrays.sort(sorted);
        return sorted[(int) Math.min(sorted.length - 1, Math.floor(share * sorted.length))];
    }

    /** Smallest and largest value, both inclusive. */
    public record Range(float low, float high) {
        public float span() {
            return high - low;
        }
    }
}
