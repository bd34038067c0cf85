package app.yubble.core.focus;

/**
 * How strongly each side of the sharp band is blurred.
 *
 * @param front factor on the blur in front of the band, in [0,4], default 1
 * @param behind factor on the blur behind it, in [0,4], default 1
 */
public record Gain(double front, double behind) {
    public static final Gain EVEN = new Gain(1, 1);

    public Gain {
        require("front", front);
        require("behind", behind);
    }

    private static void require(String name, double value) {
        if (!(value >= 0 && value <= 4)) {
            throw new IllegalArgumentException("gain " + name + " must be in 0..4, found " + value);
        }
    }
}
