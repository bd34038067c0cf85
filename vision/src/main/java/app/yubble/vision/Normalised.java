package app.yubble.vision;

import app.yubble.core.raster.Plane;

/** Relative values brought to nearness in [0,1]. */
final class Normalised {
    private static final float LEAST_SPAN = 1e-6f;

    private Normalised() {}

    /** Nearly the whole range to [0,1]; the few values beyond are clamped, so that one speck does not squeeze the rest. */
    static Plane of(Plane raw, double farShare, double nearShare) {
        float[] sorted = raw.samples().clone();
        java.util.Arrays.sort(sorted);
        float low = sorted[(int) (farShare * (sorted.length - 1))];
        float high = sorted[(int) (nearShare * (sorted.length - 1))];
        float scale = 1 / Math.max(LEAST_SPAN, high - low);
        Plane out = new Plane(raw.size());
        for (int i = 0; i < sorted.length; i++) {
            out.samples()[i] = Math.max(0, Math.min(1, (raw.samples()[i] - low) * scale));
        }
        return out;
    }
}
