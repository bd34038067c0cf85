package app.yubble.core.raster;

import java.util.Arrays;

/**
 * Makes pictures smaller for delivery: a windowed sinc of three lobes (Duchon, "Lanczos Filtering in One and Two Dimensions", 1979),
 * which keeps more of the fine details than the mean of an area and draws no stairs. In linear light, so that fine patterns keep their
 * brightness.
 */
public final class Reduction {
    /** Lobes to each side. */
    private static final int LOBES = 3;

    /** How much larger than wanted a smaller picture is drawn. */
    private static final int OVERSIZE = 2;

    private Reduction() {}

    /** The size at which a picture of {@code full} size is best drawn when {@code wanted} is to be made of it. */
    public static Size drawnAt(Size full, Size wanted) {
        return wanted.equals(full) ? full : full.fitting(Math.min(full.longSide(), OVERSIZE * wanted.longSide()));
    }

    /** Neither side may grow. */
    public static Picture of(Picture source, Size size) {
        if (source.size().equals(size)) {
            return source;
        }
        Taps across = Taps.of(source.width(), size.width());
        Taps down = Taps.of(source.height(), size.height());
        return new Picture(
                reduced(source.red(), across, down),
                reduced(source.green(), across, down),
                reduced(source.blue(), across, down));
    }

    /**
     * What each new sample is made of.
     *
     * @param firsts index of its first sample
     * @param weights of that and those after it; they sum to 1
     */
    private record Taps(int[] firsts, float[][] weights) {
        static Taps of(int from, int to) {
            if (to > from) {
                throw new IllegalArgumentException("cannot reduce " + from + " to " + to);
            }
            double step = (double) from / to;
            int[] firsts = new int[to];
            float[][] weights = new float[to][];
            for (int i = 0; i < to; i++) {
                double centre = (i + 0.5) * step - 0.5;
                int first = Math.max(0, (int) Math.ceil(centre - LOBES * step));
                int last = Math.min(from - 1, (int) Math.floor(centre + LOBES * step));
                double[] own = new double[last - first + 1];
                for (int k = 0; k < own.length; k++) {
                    own[k] = weight((first + k - centre) / step);
                }
                double sum = Arrays.stream(own).sum();
                firsts[i] = first;
                weights[i] = new float[own.length];
                for (int k = 0; k < own.length; k++) {
                    weights[i][k] = (float) (own[k] / sum);
                }
            }
            return new Taps(firsts, weights);
        }

        private static double weight(double x) {
            if (x == 0) {
                return 1;
            }
            double angle = Math.PI * x;
            return Math.abs(x) >= LOBES ? 0 : LOBES * Math.sin(angle) * Math.sin(angle / LOBES) / (angle * angle);
        }
    }

    private static Plane reduced(Plane source, Taps across, Taps down) {
        int width = across.firsts.length;
        int height = down.firsts.length;
        Plane narrow = new Plane(new Size(width, source.height()));
        Bands.ofRows(source.height(), (from, to) -> {
            for (int y = from; y < to; y++) {
                int row = y * source.width();
                for (int x = 0; x < width; x++) {
                    float[] weights = across.weights[x];
                    int first = row + across.firsts[x];
                    float sum = 0;
                    for (int k = 0; k < weights.length; k++) {
                        sum += weights[k] * source.samples()[first + k];
                    }
                    narrow.samples()[y * width + x] = sum;
                }
            }
        });
        Plane out = new Plane(new Size(width, height));
        Bands.ofRows(height, (from, to) -> {
            for (int y = from; y < to; y++) {
                float[] weights = down.weights[y];
                for (int k = 0; k < weights.length; k++) {
                    int row = (down.firsts[y] + k) * width;
                    for (int x = 0; x < width; x++) {
                        out.samples()[y * width + x] += weights[k] * narrow.samples()[row + x];
                    }
                }
                for (int i = y * width; i < (y + 1) * width; i++) {
                    out.samples()[i] = Math.max(0, out.samples()[i]);
                }
            }
        });
        return out;
    }
}
