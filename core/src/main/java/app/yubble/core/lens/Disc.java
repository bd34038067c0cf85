package app.yubble.core.lens;

import java.util.Arrays;

/**
 * The shape of an out-of-focus point.
 *
 * @param blades 0 for a round aperture, or 5 to 11 straight or curved blades
 * @param curvature 0 for straight blades to 1 for blades that close to a circle
 * @param turn rotation of the first corner in degrees, in [0,360)
 * @param rim -1 for a disc that fades towards its rim, 0 for an even one, 1 for an outlined one, behind the sharp band; in
 *     front of it spherical aberration does the opposite
 * @param hollow radius of the dark middle as a share of the disc's, in [0,0.8], as a mirror lens draws
 * @param squeeze how far the lens's barrel cuts into the disc at the picture's corners, in [0,1]
 * @param stretch height over width, in [1,2], as a wide-screen lens draws
 */
public record Disc(
        int blades, double curvature, double turn, double rim, double hollow, double squeeze, double stretch) {
    public static final Disc ROUND = bladed(0, 0, 0);

    public Disc {
        if (blades != 0 && (blades < 5 || blades > 11)) {
            throw new IllegalArgumentException("disc blades must be 0 (round) or 5..11, found " + blades);
        }
        require("curvature", curvature, 0, 1);
        if (!(turn >= 0 && turn < 360)) {
            throw new IllegalArgumentException("disc turn must be in 0..360 degrees, 360 excluded, found " + turn);
        }
        require("rim", rim, -1, 1);
        require("hollow", hollow, 0, 0.8);
        require("squeeze", squeeze, 0, 1);
        require("stretch", stretch, 1, 2);
    }

    private static void require(String name, double value, double low, double high) {
        if (!(value >= low && value <= high)) {
            throw new IllegalArgumentException(
                    "disc " + name + " must be in " + low + ".." + high + ", found " + value);
        }
    }

    /** An even, full disc of this outline all over the picture. */
    public static Disc bladed(int blades, double curvature, double turn) {
        return new Disc(blades, curvature, turn, 0, 0, 0, 1);
    }

    /**
     * Distance from the centre to the outline in the direction {@code angle} (radians, y down), for a disc with the area
     * of the unit circle, before the corner squeeze: blades and stretch change the shape, not the amount of light.
     */
    public double edge(double angle) {
        return edge(angle, areaScale());
    }

    /** {@link #edge} in {@code count} directions, from 0 on. */
    double[] outline(int count) {
        double scale = areaScale();
        double[] edges = new double[count];
        Arrays.setAll(edges, i -> edge(2 * Math.PI * i / count, scale));
        return edges;
    }

    private double edge(double angle, double scale) {
        double wide = Math.cos(angle) * Math.sqrt(stretch);
        double high = Math.sin(angle) / Math.sqrt(stretch);
        double before = blades == 0 ? 1 : bladeEdge(Math.atan2(high, wide)) * scale;
        return before / Math.hypot(wide, high);
    }

    private double bladeEdge(double angle) {
        double sector = 2 * Math.PI / blades;
        double along = angle - Math.toRadians(turn) + Math.PI / 2;
        double within = along - sector * Math.floor(along / sector) - sector / 2;
        double straight = Math.cos(sector / 2) / Math.cos(within);
        return straight + curvature * (1 - straight);
    }

    private double areaScale() {
        if (blades == 0) {
            return 1;
        }
        int steps = 720;
        double sum = 0;
        for (int i = 0; i < steps; i++) {
            double edge = bladeEdge(2 * Math.PI * (i + 0.5) / steps);
            sum += edge * edge;
        }
        return 1 / Math.sqrt(sum / steps);
    }

    /** How far the barrel's opening is off the aperture's, in radii, at {@code reach} half diagonals from the middle. */
    double squeezeAt(double reach) {
        return 0.9 * squeeze * Math.min(1, reach);
    }
}
