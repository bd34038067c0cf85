package app.yubble.core.lens;

import java.util.Arrays;

/**
 * A disc prepared for rendering: its outline and its rings.
 *
 * <p>A disc that is not even is the sum of even ones of the same outline: rings of equal area, each with its own weight. The
 * rim's brightness is {@code 1 + rim * 0.9 (2 rho^2 - 1)}, which keeps the light.
 */
final class DiscShape {
    /** Directions of the outline: one for every degree. */
    private static final int OUTLINE = 360;
    /** Columns of the fine raster in one pixel, for coverage at the rim. */
    private static final int SUB_COLUMNS = 16;
    /** Of equal area, by which rim brightness is stepped. */
    private static final int RINGS = 4;
    /** Full rim leaves a tenth of the light in the middle: fully dark middles are what hollow is for. */
    private static final double RIM_DEPTH = 0.9;

    private final Disc disc;
    private final double[] edge;
    private final double[] cos = new double[OUTLINE];
    private final double[] sin = new double[OUTLINE];
    private final double most;

    DiscShape(Disc disc) {
        this.disc = disc;
        edge = disc.outline(OUTLINE);
        for (int i = 0; i < OUTLINE; i++) {
            double angle = 2 * Math.PI * i / OUTLINE;
            cos[i] = Math.cos(angle);
            sin[i] = Math.sin(angle);
        }
        most = Arrays.stream(edge).max().orElse(1);
    }

    /** Farthest point of the outline from the centre, for a radius of 1. */
    double most() {
        return most;
    }

    int rings() {
        return ringRadii().length;
    }

    boolean varies() {
        return disc.squeeze() > 0;
    }

    /**
     * One even disc as one vertical span per column.
     *
     * @param weight of a pixel within the span
     */
    record Ring(float[] from, float[] to, float weight) {}

    /**
     * A convolution kernel that gathers; its weights sum to 1. Column {@code reach + dx} of a ring covers y from
     * {@code from} to {@code to} around the centre; mean over the column's width.
     */
    record Kernel(int reach, Ring[] rings, boolean symmetric) {}

    /**
     * The kernel for a place in the picture.
     *
     * @param radius of the circle of equal area, in pixels
     * @param inFront true for points in front of the focus, which the lens draws turned by half a circle
     * @param px place relative to the picture's centre, 1 = half its diagonal
     * @param size the radius in the same measure
     */
    Kernel kernel(double radius, boolean inFront, double px, double py, double size) {
        double[] radii = ringRadii();
        double[] weights = ringWeights(radii, inFront);
        int reach = (int) Math.ceil(radius * most + 0.5);
        // A gathering kernel is the point's image mirrored through its centre.
        double sign = inFront ? 1 : -1;
        double[] outline = new double[OUTLINE];
        for (int i = 0; i < OUTLINE; i++) {
            double far = edge[i];
            // The squeeze is that of the place where the light comes from, which lies at the outline itself.
            for (int step = 0; varies() && step < 3; step++) {
                far = squeezed(i, far, px + sign * size * far * cos[i], py + sign * size * far * sin[i]);
            }
            outline[i] = far * sign;
        }
        Ring[] rings = new Ring[radii.length];
        double total = 0;
        for (int i = 0; i < radii.length; i++) {
            Ring even = ring(outline, radius * radii[i], reach);
            total += weights[i] * area(even);
            rings[i] = even;
        }
        boolean symmetric = true;
        for (int i = 0; i < rings.length; i++) {
            rings[i] = new Ring(rings[i].from, rings[i].to, (float) (weights[i] / total));
            symmetric &= mirrored(rings[i]);
        }
        return new Kernel(reach, rings, symmetric);
    }

    /**
     * How far the squeezed disc reaches in direction {@code i} at a place in the picture: it is what two of the disc have in
     * common, one moved outwards and one inwards by as much, so that the light stays where it was.
     *
     * @param before the last guess of the answer
     */
    private double squeezed(int i, double before, double x, double y) {
        double off = Math.sqrt(x * x + y * y);
        double half = disc.squeezeAt(off) / 2;
        if (half == 0) {
            return edge[i];
        }
        return Math.min(
                moved(i, before, half * x / off, half * y / off), moved(i, before, -half * x / off, -half * y / off));
    }

    /** How far a disc whose middle has been moved reaches in direction {@code i} from where its middle was. */
    private double moved(int i, double before, double dx, double dy) {
        double angle = Math.atan2(before * sin[i] - dy, before * cos[i] - dx);
        double own = edge[Math.floorMod((int) Math.round(angle * OUTLINE / (2 * Math.PI)), OUTLINE)];
        double along = dx * cos[i] + dy * sin[i];
        return along + Math.sqrt(Math.max(0, own * own - (dx * dx + dy * dy - along * along)));
    }

    private double[] ringRadii() {
        if (disc.rim() == 0) {
            return disc.hollow() == 0 ? new double[] {1} : new double[] {1, disc.hollow()};
        }
        int inner = disc.hollow() == 0 ? 0 : 1;
        double[] radii = new double[RINGS + inner];
        double hole = disc.hollow() * disc.hollow();
        for (int i = 0; i < radii.length; i++) {
            radii[i] = Math.sqrt(1 - (1 - hole) * i / RINGS);
        }
        return radii;
    }

    /** Weight of each even disc, so that their sum has the rim's brightness in each ring. */
    private double[] ringWeights(double[] radii, boolean inFront) {
        double[] weights = new double[radii.length];
        double outside = 0;
        for (int i = 0; i < radii.length; i++) {
            boolean innermost = i == radii.length - 1;
            double within = innermost ? 0 : radii[i + 1] * radii[i + 1];
            double mean = radii[i] * radii[i] + within - 1;
            double rim = (inFront ? -1 : 1) * disc.rim() * RIM_DEPTH;
            double brightness = innermost && disc.hollow() > 0 ? 0 : 1 + rim * mean;
            weights[i] = brightness - outside;
            outside = brightness;
        }
        return weights;
    }

    private static double area(Ring ring) {
        double sum = 0;
        for (int i = 0; i < ring.from.length; i++) {
            sum += ring.to[i] - ring.from[i];
        }
        return sum;
    }

    private static boolean mirrored(Ring ring) {
        int last = ring.from.length - 1;
        for (int i = 0; i <= last / 2; i++) {
            if (Math.abs(ring.from[i] - ring.from[last - i]) > 1e-3f
                    || Math.abs(ring.to[i] - ring.to[last - i]) > 1e-3f) {
                return false;
            }
        }
        return true;
    }

    private Ring ring(double[] outline, double radius, int reach) {
        // Lower and upper end of the outline on fine columns, filled edge by edge.
        int fine = (2 * reach + 1) * SUB_COLUMNS;
        double[] low = new double[fine];
        double[] high = new double[fine];
        Arrays.fill(low, Double.POSITIVE_INFINITY);
        Arrays.fill(high, Double.NEGATIVE_INFINITY);
        for (int i = 0; i < OUTLINE; i++) {
            int j = i + 1 == OUTLINE ? 0 : i + 1;
            double x0 = outline[i] * radius * cos[i];
            double x1 = outline[j] * radius * cos[j];
            double y0 = outline[i] * radius * sin[i];
            double y1 = outline[j] * radius * sin[j];
            double right = Math.max(x0, x1);
            int first = (int) Math.ceil((Math.min(x0, x1) + reach + 0.5) * SUB_COLUMNS - 0.5);
            for (int column = Math.max(0, first); column < fine; column++) {
                double x = (column + 0.5) / SUB_COLUMNS - reach - 0.5;
                if (x >= right) {
                    break;
                }
                double y = y0 + (y1 - y0) * (x - x0) / (x1 - x0);
                low[column] = Math.min(low[column], y);
                high[column] = Math.max(high[column], y);
            }
        }
        float[] from = new float[2 * reach + 1];
        float[] to = new float[2 * reach + 1];
        for (int column = 0; column <= 2 * reach; column++) {
            double sumLow = 0;
            double sumHigh = 0;
            for (int j = column * SUB_COLUMNS; j < (column + 1) * SUB_COLUMNS; j++) {
                if (low[j] < high[j]) {
                    sumLow += low[j];
                    sumHigh += high[j];
                }
            }
            from[column] = (float) (sumLow / SUB_COLUMNS);
            to[column] = (float) (sumHigh / SUB_COLUMNS);
        }
        return new Ring(from, to, 1);
    }
}
