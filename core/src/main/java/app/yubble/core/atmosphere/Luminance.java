package app.yubble.core.atmosphere;

/** Luminance of linear light, with the weights of ITU-R BT.709. */
final class Luminance {
    /** Weight of red light. */
    static final float RED = 0.2126f;
    /** Weight of green light. */
    static final float GREEN = 0.7152f;
    /** Weight of blue light. */
    static final float BLUE = 0.0722f;

    private Luminance() {}

    static double of(double red, double green, double blue) {
        return RED * red + GREEN * green + BLUE * blue;
    }
}
