package app.yubble.core.focus;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Plane;

/** Computes the defocus field. */
public final class DefocusField {
    // Nearness is looked up in this many steps; at 400 px per unit of nearness one step is a hundredth of a pixel.
    private static final int STEPS = 1 << 15;

    private DefocusField() {}

    /**
     * Signed blur radius of every pixel, in pixels.
     *
     * @param nearness in [0,1], not NaN
     * @param radiusPerNearness pixels of radius per unit of nearness outside the band, not negative
     */
    public static Plane of(Plane nearness, SharpBand band, Gain gain, double radiusPerNearness) {
        if (!(radiusPerNearness >= 0)) {
            throw new IllegalArgumentException("radius per nearness must not be negative, found " + radiusPerNearness);
        }
        float[] radiusAt = new float[STEPS + 1];
        for (int i = 0; i <= STEPS; i++) {
            double outside = band.outside((double) i / STEPS);
            radiusAt[i] = (float) (radiusPerNearness * outside * (outside > 0 ? gain.behind() : gain.front()));
        }
        Plane out = new Plane(nearness.size());
        float[] in = nearness.samples();
        float[] to = out.samples();
        int width = nearness.width();
        Bands.ofRows(nearness.height(), (from, until) -> {
            for (int i = from * width; i < until * width; i++) {
                if (Float.isNaN(in[i])) {
                    throw new IllegalArgumentException(
                            "nearness has no number at pixel " + i % width + "," + i / width);
                }
                to[i] = radiusAt[Math.max(0, Math.min(STEPS, Math.round(in[i] * STEPS)))];
            }
        });
        return out;
    }
}
