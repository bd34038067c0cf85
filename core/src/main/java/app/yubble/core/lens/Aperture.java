package app.yubble.core.lens;

import app.yubble.core.raster.Size;

/**
 * How strong the blur is: by the numbers of a lens, or set free.
 *
 * @param mode which of the two is in force; the other's values are kept
 * @param fNumber in [0.5,64], default 2
 * @param focalLength in millimetres, in [1,2000], default 50
 * @param sensorWidth in millimetres along the longer side, in [1,200], default 36
 * @param distance from the lens to the middle of the sharp band in metres, in [0.01,10000], default 2.5
 * @param strength free strength in [0,100], default 35
 */
public record Aperture(
        Mode mode, double fNumber, double focalLength, double sensorWidth, double distance, double strength) {
    /** Which values decide. */
    public enum Mode {
        F_NUMBER,
        FREE
    }

    public static final Aperture DEFAULT = new Aperture(Mode.F_NUMBER, 2, 50, 36, 2.5, 35);

    // Full free strength moves a point one unit of nearness outside the band by this share of the picture's diagonal.
    private static final double FULL_STRENGTH = 0.06;
    // A band at the horizon would need an endless lens; below this nearness the formula is held.
    private static final double LEAST_FOCUS_NEARNESS = 0.05;

    public Aperture {
        require("f-number", fNumber, 0.5, 64);
        require("focal length", focalLength, 1, 2000);
        require("sensor width", sensorWidth, 1, 200);
        require("distance", distance, 0.01, 10000);
        require("strength", strength, 0, 100);
        if (mode == Mode.F_NUMBER && distance * 1000 <= focalLength) {
            throw new IllegalArgumentException(
                    "distance must be beyond the focal length, found " + distance + " m at " + focalLength + " mm");
        }
    }

    /** Lenses are built from here on; what needs more is drawn with free strength. */
    private static final double FASTEST = 0.95;

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
        return withFree(Math.max(1, Math.min(100, Math.round(100 * wanted / full))));
    }

    private static void require(String name, double value, double low, double high) {
        if (!(value >= low && value <= high)) {
            throw new IllegalArgumentException(name + " must be in " + low + ".." + high + ", found " + value);
        }
    }

    public Aperture withFree(double newStrength) {
        return new Aperture(Mode.FREE, fNumber, focalLength, sensorWidth, distance, newStrength);
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
