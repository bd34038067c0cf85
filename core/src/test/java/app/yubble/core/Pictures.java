package app.yubble.core;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import java.util.Random;

/** Pictures made up for tests. */
public final class Pictures {
    private Pictures() {}

    /** Value of a plane at a pixel. */
    @FunctionalInterface
    public interface At {
        double value(int x, int y);
    }

    public static Plane plane(int width, int height, At at) {
        Plane plane = new Plane(width, height);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                plane.samples()[y * width + x] = (float) at.value(x, y);
            }
        }
        return plane;
    }

    public static Picture grey(int width, int height, At at) {
        Plane plane = plane(width, height, at);
        return new Picture(plane, plane, plane);
    }

    public static Picture noise(int width, int height, long seed) {
        Random random = new Random(seed);
        return new Picture(
                plane(width, height, (x, y) -> random.nextDouble()),
                plane(width, height, (x, y) -> random.nextDouble()),
                plane(width, height, (x, y) -> random.nextDouble()));
    }

    public static double sum(Plane plane) {
        double sum = 0;
        for (float sample : plane.samples()) {
            sum += sample;
        }
        return sum;
    }

    public static double mean(Plane plane) {
        return sum(plane) / plane.size().pixels();
    }

    /** Largest difference between two planes of one size. */
    public static double distance(Plane a, Plane b) {
        if (!a.size().equals(b.size())) {
            throw new AssertionError(a.size() + " is not " + b.size());
        }
        double most = 0;
        for (int i = 0; i < a.samples().length; i++) {
            most = Math.max(most, Math.abs(a.samples()[i] - b.samples()[i]));
        }
        return most;
    }

    /** Peak signal to noise ratio in dB of square-root encoded values, peak 1. */
    public static double psnr(Picture a, Picture b) {
        double sum = 0;
        for (int c = 0; c < 3; c++) {
            float[] p = a.planes().get(c).samples();
            float[] q = b.planes().get(c).samples();
            for (int i = 0; i < p.length; i++) {
                double d = Math.sqrt(Math.min(1, Math.max(0, p[i]))) - Math.sqrt(Math.min(1, Math.max(0, q[i])));
                sum += d * d;
            }
        }
        return -10 * Math.log10(sum / (3.0 * a.size().pixels()));
    }

    public static Size size(int width, int height) {
        return new Size(width, height);
    }
}
