package app.yubble.core.lens;

/**
 * The shape of an out-of-focus point.
 *
 * @param blades 0 for a round aperture, or 5 to 11 straight or curved blades
 * @param curvature 0 for straight blades to 1 for blades that close to a circle
 * @param turn rotation of the first corner in degrees, in [0,360)
 */
public record Disc(int blades, double curvature, double turn) {
    public static final Disc ROUND = new Disc(0, 0, 0);

    /** No corner is farther from the centre than this, for a radius of 1: five straight blades. */
    static final double MOST_EDGE = 1.15;

    private static final int SUB_COLUMNS = 16;
    private static final int OUTLINE = 360;

    public Disc {
        if (blades != 0 && (blades < 5 || blades > 11)) {
            throw new IllegalArgumentException("disc blades must be 0 (round) or 5..11, found " + blades);
        }
        if (!(curvature >= 0 && curvature <= 1)) {
            throw new IllegalArgumentException("disc curvature must be in 0..1, found " + curvature);
        }
        if (!(turn >= 0 && turn < 360)) {
            throw new IllegalArgumentException("disc turn must be in 0..360 degrees, 360 excluded, found " + turn);
        }
    }

    /**
     * Distance from the centre to the edge in the direction {@code angle} (radians), for a disc with the area of the
     * unit circle: opening and closing blades changes the shape, not the amount of light.
     */
    public double edge(double angle) {
        return blades == 0 ? 1 : rawEdge(angle) * areaScale();
    }

    private double rawEdge(double angle) {
        double sector = 2 * Math.PI / blades;
        double along = angle - Math.toRadians(turn) + Math.PI / 2;
        double within = along - sector * Math.floor(along / sector) - sector / 2;
        double straight = Math.cos(sector / 2) / Math.cos(within);
        return straight + curvature * (1 - straight);
    }

    private double areaScale() {
        int steps = 720;
        double sum = 0;
        for (int i = 0; i < steps; i++) {
            double edge = rawEdge(2 * Math.PI * (i + 0.5) / steps);
            sum += edge * edge;
        }
        return 1 / Math.sqrt(sum / steps);
    }

    /**
     * The disc as one vertical span per column, for a convolution that gathers.
     *
     * @param radius of the circle of equal area, in pixels
     * @param upsideDown true for points in front of the focus, which the lens draws turned by half a circle
     */
    Spans spans(double radius, boolean upsideDown) {
        double scale = blades == 0 ? 1 : areaScale();
        int reach = (int) Math.ceil(radius * Math.max(1, scale) + 0.5);
        // A gathering kernel is the point's image mirrored through its centre.
        double sign = upsideDown ? 1 : -1;
        double[] xs = new double[OUTLINE + 1];
        double[] ys = new double[OUTLINE + 1];
        for (int i = 0; i <= OUTLINE; i++) {
            double angle = 2 * Math.PI * i / OUTLINE;
            double edge = (blades == 0 ? 1 : rawEdge(angle) * scale) * radius * sign;
            xs[i] = edge * Math.cos(angle);
            ys[i] = edge * Math.sin(angle);
        }
        // Lower and upper end of the outline on fine columns, filled edge by edge.
        int fine = (2 * reach + 1) * SUB_COLUMNS;
        double[] low = new double[fine];
        double[] high = new double[fine];
        java.util.Arrays.fill(low, Double.POSITIVE_INFINITY);
        java.util.Arrays.fill(high, Double.NEGATIVE_INFINITY);
        for (int i = 0; i < OUTLINE; i++) {
            double left = Math.min(xs[i], xs[i + 1]);
            double right = Math.max(xs[i], xs[i + 1]);
            int first = (int) Math.ceil((left + reach + 0.5) * SUB_COLUMNS - 0.5);
            for (int j = Math.max(0, first); j < fine; j++) {
                double x = (j + 0.5) / SUB_COLUMNS - reach - 0.5;
                if (x >= right) {
                    break;
                }
                double y = ys[i] + (ys[i + 1] - ys[i]) * (x - xs[i]) / (xs[i + 1] - xs[i]);
                low[j] = Math.min(low[j], y);
                high[j] = Math.max(high[j], y);
            }
        }
        float[] from = new float[2 * reach + 1];
        float[] to = new float[2 * reach + 1];
        double area = 0;
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
            area += (sumHigh - sumLow) / SUB_COLUMNS;
        }
        return new Spans(reach, from, to, (float) area);
    }

    /**
     * Column {@code reach + dx} covers y from {@code from} to {@code to} around the centre; mean over its width.
     */
    record Spans(int reach, float[] from, float[] to, float area) {}
}
