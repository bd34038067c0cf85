package app.yubble.core.lens;

import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;
import java.util.Arrays;

/** The shape of an out-of-focus point. */
public record Disc(
        @Setting(called = "Blades", means = "blades of the aperture, 5 to 11, or 0 for a round one", most = 11)
        int blades,

        @Setting(called = "Curvature", means = "how round the blades are: 0 straight, 1 a circle", unit = Unit.SHARE)
        double curvature,

        @Setting(
                called = "Turn",
                means = "how far the blades are turned",
                most = 360,
                below = true,
                unit = Unit.DEGREES)
        double turn,

        @Setting(
                called = "Rim",
                means =
                        "from discs that fade towards their rim (-1) to outlined ones (1), behind the band; in front of it the"
                                + " other way round, as in a lens",
                least = -1,
                unit = Unit.SHARE)
        double rim,

        @Setting(
                called = "Hollow",
                means = "radius of the dark middle that a mirror lens draws, over the disc's",
                most = 0.8,
                unit = Unit.SHARE)
        double hollow,

        @Setting(
                called = "Squeeze",
                means = "how far the barrel cuts into the discs towards the corners",
                unit = Unit.SHARE)
        double squeeze,

        @Setting(
                called = "Stretch",
                means = "height over width, as the upright ovals of a wide-screen lens",
                least = 1,
                most = 2,
                usual = 1,
                unit = Unit.FACTOR)
        double stretch) {
    private static final Declared<Disc> SETTINGS = Declared.of(Disc.class);
    /** No lens has fewer but none. */
    private static final int LEAST_BLADES = 5;

    public static final Disc ROUND = Declared.usual(Disc.class);

    public Disc {
        SETTINGS.check(blades, curvature, turn, rim, hollow, squeeze, stretch);
        if (blades > 0 && blades < LEAST_BLADES) {
            throw new IllegalArgumentException("blades must be 0 (round) or 5..11, found " + blades);
        }
    }

    /** An even, full disc of this outline all over the picture. */
    public static Disc bladed(int blades, double curvature, double turn) {
        return new Disc(blades, curvature, turn, ROUND.rim(), ROUND.hollow(), ROUND.squeeze(), ROUND.stretch());
    }

    public Disc withRim(double value) {
        return new Disc(blades, curvature, turn, value, hollow, squeeze, stretch);
    }

    public Disc withHollow(double value) {
        return new Disc(blades, curvature, turn, rim, value, squeeze, stretch);
    }

    public Disc withSqueeze(double value) {
        return new Disc(blades, curvature, turn, rim, hollow, value, stretch);
    }

    public Disc withStretch(double value) {
        return new Disc(blades, curvature, turn, rim, hollow, squeeze, value);
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
