package app.yubble.media.picture;

/**
 * A tone curve as a table from the upper bits of a linear sample to its code of eight bits: no root, no interpolation and no
 * limiting for each sample. It was an eighth of a preview's time before.
 */
final class EightBit {
    /** Upper bits of a float that count: a sign, eight of exponent and eleven of the mantissa. A code is then off by 0.013 at most. */
    private static final int SHIFT = 12;
    /** Darker light than this has the code of black in every curve of 8 or 16 bits. */
    private static final float DARKEST = 1f / (1 << 24);

    private static final int FIRST = Float.floatToRawIntBits(DARKEST) >>> SHIFT;
    private static final int LAST = Float.floatToRawIntBits(1f) >>> SHIFT;

    /** Codes, and a half for rounding. */
    private final float[] codes = new float[LAST - FIRST + 1];

    /** @param encoding see {@link ToneCurve#encoding} */
    EightBit(float[] encoding) {
        for (int i = 1; i < codes.length - 1; i++) {
            float middle = Float.intBitsToFloat(FIRST + i << SHIFT | 1 << SHIFT - 1);
            codes[i] = ToneCurve.encoded(encoding, middle) * 255 + 0.5f;
        }
        codes[0] = ToneCurve.encoded(encoding, 0) * 255 + 0.5f;
        codes[codes.length - 1] = ToneCurve.encoded(encoding, 1) * 255 + 0.5f;
    }

    /**
     * The code of a sample.
     *
     * @param linear what is not a number counts as 0
     * @param noise added to the code before it is rounded, less than half a step to either side
     */
    byte of(float linear, float noise) {
        int i = linear >= 1 ? LAST : linear > DARKEST ? Float.floatToRawIntBits(linear) >>> SHIFT : FIRST;
        return (byte) (codes[i - FIRST] + noise);
    }
}
