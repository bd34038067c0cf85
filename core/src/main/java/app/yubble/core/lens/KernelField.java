package app.yubble.core.lens;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** The kernel of one layer everywhere in a tile: one for all, or one for each place when the disc is squeezed. */
final class KernelField {
    /** Radius in pixels of what is left when a level's own softness is taken off. */
    private static final double LEAST = 0.3;

    private final DiscShape shape;
    /** In cells. */
    private final double radius;

    private final double size;
    private final boolean inFront;
    private final Frame frame;
    private final int level;
    private final DiscShape.Kernel middle;
    /** Four blocks meet at a corner, and every block asks. */
    private final Map<Long, DiscShape.Kernel> corners = new ConcurrentHashMap<>();

    /**
     * Where a tile lies in the picture.
     *
     * @param originX of the tile, in pixels
     * @param width of the whole picture
     */
    record Frame(int originX, int originY, int width, int height) {}

    /** @param radius in pixels of the full size */
    KernelField(DiscShape shape, double radius, boolean inFront, Frame frame, int level) {
        this.shape = shape;
        this.radius = narrowed(radius / (1 << level), level);
        size = radius / (Math.hypot(frame.width, frame.height) / 2);
        this.inFront = inFront;
        this.frame = frame;
        this.level = level;
        middle = shape.kernel(this.radius, inFront, 0, 0, 0);
    }

    /**
     * Reducing to a level, reading the kernel in whole cells and doubling back each spread light a little more; the disc is
     * drawn narrower by as much, in the mean of squares: each axis of a disc has a quarter of its radius squared. At full size
     * the small discs came closer to the ray-traced truth as they are.
     */
    private static double narrowed(double radius, int level) {
        if (level == 0) {
            return radius;
        }
        double cells = (1 - 1.0 / (1 << 2 * level)) / 3;
        return Math.sqrt(Math.max(LEAST * LEAST, radius * radius - 4 * (cells + 1.0 / 12)));
    }

    int reach() {
        return middle.reach();
    }

    boolean varies() {
        return shape.varies();
    }

    /** The kernel where it does not vary. */
    DiscShape.Kernel kernel() {
        return middle;
    }

    /** The kernel around the corner of a cell. */
    DiscShape.Kernel at(int cellX, int cellY) {
        return corners.computeIfAbsent((long) cellX << 32 | cellY, place -> made(cellX, cellY));
    }

    private DiscShape.Kernel made(int cellX, int cellY) {
        double half = Math.hypot(frame.width, frame.height) / 2;
        double x = frame.originX + (double) (cellX << level) - frame.width / 2.0;
        double y = frame.originY + (double) (cellY << level) - frame.height / 2.0;
        return shape.kernel(radius, inFront, x / half, y / half, size);
    }
}
