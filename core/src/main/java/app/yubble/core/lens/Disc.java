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

    private static final int SUB_ROWS = 16;

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
     * The disc as one horizontal span per row, for a convolution that gathers.
     *
     * @param radius of the circle of equal area, in pixels
     * @param upsideDown true for points in front of the focus, which the lens draws turned by half a circle
     */
    Spans spans(double radius, boolean upsideDown) {
        double scale = blades == 0 ? 1 : areaScale();
        int reach = (int) Math.ceil(radius * Math.max(1, scale) + 0.5);
        float[] left = new float[2 * reach + 1];
        float[] right = new float[2 * reach + 1];
        double[] xs = new double[721];
        double[] ys = new double[721];
        // A gathering kernel is the point's image mirrored through its centre.
        double sign = upsideDown ? 1 : -1;
        for (int i = 0; i <= 720; i++) {
            double angle = 2 * Math.PI * i / 720;
            double edge = (blades == 0 ? 1 : rawEdge(angle) * scale) * radius * sign;
            xs[i] = edge * Math.cos(angle);
            ys[i] = edge * Math.sin(angle);
        }
        double area = 0;
        for (int row = -reach; row <= reach; row++) {
            double sumLeft = 0;
            double sumRight = 0;
            for (int sub = 0; sub < SUB_ROWS; sub++) {
                double y = row - 0.5 + (sub + 0.5) / SUB_ROWS;
                double low = Double.POSITIVE_INFINITY;
                double high = Double.NEGATIVE_INFINITY;
                for (int i = 0; i < 720; i++) {
                    if ((ys[i] <= y) != (ys[i + 1] <= y)) {
                        double x = xs[i] + (xs[i + 1] - xs[i]) * (y - ys[i]) / (ys[i + 1] - ys[i]);
                        low = Math.min(low, x);
                        high = Math.max(high, x);
                    }
                }
                if (low < high) {
                    sumLeft += low;
                    sumRight += high;
                }
            }
            left[row + reach] = (float) (sumLeft / SUB_ROWS);
            right[row + reach] = (float) (sumRight / SUB_ROWS);
            area += (sumRight - sumLeft) / SUB_ROWS;
        }
        return new Spans(reach, left, right, (float) area);
    }

    /**
     * Row {@code reach + dy} covers x from {@code left} to {@code right} around the centre; mean over the row's height.
     */
    record Spans(int reach, float[] left, float[] right, float area) {}
}
