package app.yubble.core.raster;

/** IEEE 754 half precision, which Java 17 cannot convert itself. */
public final class HalfFloat {
    /** Between the exponents of IEEE 754 binary32 and binary16. */
    private static final int EXPONENT_OFFSET = 127 - 15;
    /** Of binary16: infinite, or no number. */
    private static final int LARGEST_EXPONENT = 31;

    /** IEEE 754 binary16. */
    private static final float LARGEST = 65504;
    /** See {@link #LARGEST}. */
    private static final float SMALLEST_NORMAL = 0x1p-14f;

    private HalfFloat() {}

    /** The nearest one; what is too small is 0, what is too large the largest. */
    public static short of(float value) {
        int bits = Float.floatToIntBits(value);
        int sign = bits >>> 16 & 0x8000;
        float size = Math.abs(value);
        if (size >= LARGEST) {
            return (short) (sign | 0x7bff);
        }
        if (size < SMALLEST_NORMAL) {
            return (short) (sign | Math.round(size * 0x1p24f));
        }
        int rounded = (bits & 0x7fffffff) + 0x1000;
        return (short) (sign | (rounded >> 13) - (EXPONENT_OFFSET << 10));
    }

    public static float toFloat(short half) {
        int sign = (half & 0x8000) << 16;
        int exponent = half >> 10 & LARGEST_EXPONENT;
        int fraction = half & 0x3ff;
        if (exponent == 0) {
            float small = fraction * 0x1p-24f;
            return sign == 0 ? small : -small;
        }
        int wide = exponent == LARGEST_EXPONENT ? 255 : exponent + EXPONENT_OFFSET;
        return Float.intBitsToFloat(sign | wide << 23 | fraction << 13);
    }
}
