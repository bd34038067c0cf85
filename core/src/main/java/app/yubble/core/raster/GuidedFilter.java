package app.yubble.core.raster;

/**
 * Makes a plane follow the edges of a guide.
 *
 * <p>He, Sun and Tang, "Guided Image Filtering" (ECCV 2010), and the subsampled form of He and Sun, "Fast Guided
 * Filter" (2015): in each window the output is a linear function of the guide; {@link #fit} finds the coefficients at
 * the size of the input, {@link Fit#apply} spreads them over a guide of any size.
 */
public final class GuidedFilter {
    private GuidedFilter() {}

    /**
     * Local linear model of {@code input} in terms of {@code guide} (same size).
     *
     * @param radius half the window side, in pixels of the input
     * @param epsilon variance of the guide below which a window counts as flat; guide in [0,1]
     */
    public static Fit fit(Plane guide, Plane input, int radius, float epsilon) {
        if (!guide.size().equals(input.size())) {
            throw new IllegalArgumentException(
                    "guide " + guide.size() + " and input " + input.size() + " must have one size");
        }
        Plane guideMean = BoxMean.of(guide, radius);
        Plane inputMean = BoxMean.of(input, radius);
        Plane productMean = BoxMean.of(product(guide, input), radius);
        Plane squareMean = BoxMean.of(product(guide, guide), radius);
        Plane slope = new Plane(input.size());
        Plane offset = new Plane(input.size());
        for (int i = 0; i < slope.samples().length; i++) {
            float mean = guideMean.samples()[i];
            float variance = squareMean.samples()[i] - mean * mean;
            float covariance = productMean.samples()[i] - mean * inputMean.samples()[i];
            float a = covariance / (variance + epsilon);
            slope.samples()[i] = a;
            offset.samples()[i] = inputMean.samples()[i] - a * mean;
        }
        return new Fit(BoxMean.of(slope, radius), BoxMean.of(offset, radius));
    }

    private static Plane product(Plane a, Plane b) {
        Plane out = new Plane(a.size());
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = a.samples()[i] * b.samples()[i];
        }
        return out;
    }

    /** Slope and offset at each pixel. */
    public record Fit(Plane slope, Plane offset) {
        /** {@code slope * guide + offset} at the guide's size, clamped to [0,1]. */
        public Plane apply(Plane guide) {
            Plane a = Resample.toSize(slope, guide.size());
            Plane b = Resample.toSize(offset, guide.size());
            Plane out = new Plane(guide.size());
            int width = guide.width();
            Bands.ofRows(guide.height(), (from, to) -> {
                for (int i = from * width; i < to * width; i++) {
                    float value = a.samples()[i] * guide.samples()[i] + b.samples()[i];
                    out.samples()[i] = Math.max(0, Math.min(1, value));
                }
            });
            return out;
        }
    }
}
