package app.yubble.core.raster;

/** Luminance of linear light, with the weights of ITU-R BT.709. */
public final class Luminance {
    /** Weight of red light. */
    public static final float RED = 0.2126f;
    /** Weight of green light. */
    public static final float GREEN = 0.7152f;
    /** Weight of blue light. */
    public static final float BLUE = 0.0722f;

    private Luminance() {}

    public static double of(double red, double green, double blue) {
        return RED * red + GREEN * green + BLUE * blue;
    }
}
