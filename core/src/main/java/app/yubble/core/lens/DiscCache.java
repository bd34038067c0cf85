package app.yubble.core.lens;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** Discs of single lamps; lamps of nearly the same radius, and the same part of the picture where it matters, share one. */
final class DiscCache {
    /** Kernels that are kept. */
    private static final int MOST = 1000;
    // A disc of 100 px is then at most 0.2 px off, a squeezed one 0.8.
    private static final double SIZES = 256;
    /** Steps of radius for an octave where the disc varies over the picture. */
    private static final double VARIED_SIZES = 64;
    /** In half the picture's diagonal, at which a kernel that varies over the picture is made anew. */
    private static final double PLACES = 24;

    private final DiscShape shape;
    private final KernelField.Frame frame;
    private final double half;
    private final Map<Long, DiscShape.Kernel> made = new ConcurrentHashMap<>();

    DiscCache(DiscShape shape, KernelField.Frame frame) {
        this.shape = shape;
        this.frame = frame;
        half = Math.hypot(frame.width(), frame.height()) / 2;
    }

    int reach(float radius) {
        return (int) Math.ceil(radius * shape.most() * 1.02 + 0.5);
    }

    /** As a kernel that gathers. */
    DiscShape.Kernel at(float radius, boolean inFront, float x, float y) {
        double sizes = shape.varies() ? VARIED_SIZES : SIZES;
        long size = Math.round(Math.log(radius) * sizes);
        long across = 0;
        long down = 0;
        if (shape.varies()) {
            across = Math.round((frame.originX() + x - frame.width() / 2.0) / half * PLACES);
            down = Math.round((frame.originY() + y - frame.height() / 2.0) / half * PLACES);
        }
        long key = (size << 16 | (across & 0xff) << 8 | down & 0xff) << 1 | (inFront ? 1 : 0);
        DiscShape.Kernel known = made.get(key);
        if (known != null) {
            return known;
        }
        if (made.size() > MOST) {
            made.clear();
        }
        double exact = Math.exp(size / sizes);
        // Size 0: all of the disc is squeezed as at the lamp itself.
        DiscShape.Kernel kernel = shape.kernel(exact, inFront, across / PLACES, down / PLACES, 0);
        made.put(key, kernel);
        return kernel;
    }
}
