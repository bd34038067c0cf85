package app.yubble.core.lens;

import app.yubble.core.raster.Size;
import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;

/** How strong the blur is: by the numbers of a lens, or set free; the values of the one that is not in force are kept. */
public record Aperture(
        @Setting(means = "what decides: the lens (`f-number`) or `strength` (`free`)")
        Mode mode,

        @Setting(
                called = "Aperture",
                means = "the f-number: smaller numbers blur more",
                least = 0.5,
                most = 64,
                usual = 2)
        double fNumber,

        @Setting(
                called = "Focal length",
                means = "of the lens whose blur is drawn",
                least = 1,
                most = 2000,
                usual = 50,
                unit = Unit.MILLIMETRES)
        double focalLength,

        @Setting(
                called = "Sensor width",
                means = "of the camera, along the longer side",
                least = 1,
                most = 200,
                usual = 36,
                unit = Unit.MILLIMETRES)
        double sensorWidth,

        @Setting(
                called = "Distance",
                means = "from the lens to the middle of the band, beyond the focal length",
                least = 0.01,
                most = 10_000,
                usual = 2.5,
                unit = Unit.METRES)
        double distance,

        @Setting(
                called = "Strength",
                means =
                        "blur without a lens in mind; 100 moves a point one unit of nearness outside the band by 6 % of the"
                                + " diagonal",
                most = 100,
                usual = 35,
                unit = Unit.PERCENT)
        double strength) {
    /** Which values decide. */
    public enum Mode {
        F_NUMBER,
        FREE
    }

    private static final Declared<Aperture> SETTINGS = Declared.of(Aperture.class);

    public static final Aperture DEFAULT = Declared.usual(Aperture.class);

    // Full free strength moves a point one unit of nearness outside the band by this share of the picture's diagonal.
    private static final double FULL_STRENGTH = 0.06;
    // A band at the horizon would need an endless lens; below this nearness the formula is held.
    private static final double LEAST_FOCUS_NEARNESS = 0.05;

    public Aperture {
        SETTINGS.check(mode, fNumber, focalLength, sensorWidth, distance, strength);
        if (mode == Mode.F_NUMBER && distance * 1000 <= focalLength) {
            throw new IllegalArgumentException(
                    "distance must be beyond the focal length, found " + distance + " m at " + focalLength + " mm");
        }
    }

    /** Lenses are built from here on; what needs more is drawn with free strength. */
    private static final double FASTEST = 0.95;

    /** What lenses close to. */
    private static final double SLOWEST = 22;

    /**
     * The aperture with which the widest disc has a diameter of {@code share} of the picture's longer side: an f-number where a lens
     * has one, else a free strength.
     *
     * @param outside how far the most blurred point lies outside the sharp band, in nearness, more than 0
     * @param size the picture's, of any scale
     * @param focusNearness nearness of the sharp band's centre
     */
    public Aperture withWidestDisc(double share, double outside, Size size, double focusNearness) {
        double wanted = share * size.longSide() / 2 / outside;
        double wideOpen = withFNumber(FASTEST).radiusPerNearness(size, focusNearness);
        double number = Math.round(FASTEST * wideOpen / wanted * 10) / 10.0;
        if (number >= FASTEST && number <= SLOWEST) {
            return withFNumber(number);
        }
        double full = withFree(100).radiusPerNearness(size, focusNearness);
        return withFree(Math.max(1, Math.min(100, Math.rint(100 * wanted / full))));
    }

    public Aperture withFree(double newStrength) {
        return new Aperture(Mode.FREE, fNumber, focalLength, sensorWidth, distance, newStrength);
    }

    /** The same with another lens: focal length and sensor in millimetres, distance in metres. */
    public Aperture withLens(double newFocalLength, double newSensorWidth, double newDistance) {
        return new Aperture(mode, fNumber, newFocalLength, newSensorWidth, newDistance, strength);
    }

    public Aperture withFNumber(double newFNumber) {
        return new Aperture(Mode.F_NUMBER, newFNumber, focalLength, sensorWidth, distance, strength);
    }

    /**
     * Blur radius in pixels per unit of nearness outside the sharp band.
     *
     * <p>With the f-number: the blur diameter at infinity is {@code f^2 / (N (z - f))} on the sensor; nearness 0 is
     * taken as infinity and the band's centre as the focus distance z, so a unit of nearness is worth that diameter
     * divided by the centre's nearness.
     *
     * @param size the picture's size in pixels
     * @param focusNearness nearness of the sharp band's centre
     */
    public double radiusPerNearness(Size size, double focusNearness) {
        if (mode == Mode.FREE) {
            return strength / 100 * FULL_STRENGTH * Math.hypot(size.width(), size.height());
        }
        double diameterShare = focalLength * focalLength / (fNumber * (distance * 1000 - focalLength) * sensorWidth);
        return diameterShare / 2 * size.longSide() / Math.max(LEAST_FOCUS_NEARNESS, focusNearness);
    }
}
