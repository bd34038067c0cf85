package app.yubble.core.lens;

/**
 * Gives clipped highlights back some of the energy the sensor lost, before the blur spreads them.
 *
 * <p>Sharp highlights stay as they are: the lift sets in with the blur radius, so that a lamp just outside the band
 * does not jump.
 *
 * @param strength in [0,1]; 0 lifts nothing
 */
public record Glints(double strength) {
    public static final Glints NONE = new Glints(0);

    // A lamp that clips is typically tens of times brighter than white; full strength multiplies by this much more.
    private static final float FULL_LIFT = 24;
    private static final float THRESHOLD = 0.82f;
    private static final float FULL_RADIUS = 4;

    public Glints {
        if (!(strength >= 0 && strength <= 1)) {
            throw new IllegalArgumentException("glints must be in 0..1, found " + strength);
        }
    }

    /**
     * Factor on a pixel whose brightest channel is {@code peak} and whose blur radius is {@code radius} pixels of a
     * picture at full size.
     */
    float factor(float peak, float radius) {
        if (peak <= THRESHOLD || strength == 0) {
            return 1;
        }
        float over = Math.min(1, (peak - THRESHOLD) / (1 - THRESHOLD));
        float out = Math.min(1, radius / FULL_RADIUS);
        return 1 + (float) strength * FULL_LIFT * over * over * over * out;
    }
}
