package app.yubble.core.focus;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.BlockRanges;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;

/** Computes the defocus field: signed blur radii, positive behind the band. */
public final class DefocusField {
    // Nearness is looked up in this many steps; at 400 px per unit of nearness one step is a hundredth of a pixel.
    private static final int STEPS = 1 << 15;
    // Painted nearness leaves 0 to 1 by as much as this, and a tilted band by as much again.
    private static final int MOST_PAINTED = 1;
    /** Nearness that tilts may add: one across and one down. */
    private static final int MOST_TILT = 2;

    private final SharpBand level;
    private final int off;
    private final float[] radiusAt;

    /** @param radiusPerNearness pixels of radius per unit of nearness outside the band, not negative */
    public DefocusField(SharpBand band, Gain gain, double radiusPerNearness) {
        if (!(radiusPerNearness >= 0)) {
            throw new IllegalArgumentException("radius per nearness must not be negative, found " + radiusPerNearness);
        }
        // A band over everything is over everything however it is tilted.
        level = band.coversEverything() ? SharpBand.EVERYTHING : band;
        off = (level.isLevel() ? MOST_PAINTED : MOST_PAINTED + MOST_TILT) * STEPS;
        radiusAt = new float[STEPS + 2 * off + 1];
        fill(0, stepOf(level.far()), radiusPerNearness, gain.behind());
        fill(stepOf(level.near()), radiusAt.length, radiusPerNearness, gain.front());
    }

    /** The step at which a nearness stands in the table, or the end of the table that is next to it. */
    private int stepOf(double nearness) {
        return (int) Math.max(0, Math.min(radiusAt.length, Math.ceil(nearness * STEPS) + off));
    }

    /** On one side of the band: what lies in it stays 0. */
    private void fill(int from, int end, double radiusPerNearness, double gain) {
        for (int i = from; i < end; i++) {
            radiusAt[i] = (float) (radiusPerNearness * level.outside((double) (i - off) / STEPS) * gain);
        }
    }

    /**
     * Signed blur radius of every pixel, in pixels.
     *
     * @param nearness in [-1,2], not NaN; values beyond count as those
     * @param radiusPerNearness pixels of radius per unit of nearness outside the band, not negative
     */
    public static Plane of(Plane nearness, SharpBand band, Gain gain, double radiusPerNearness) {
        return new DefocusField(band, gain, radiusPerNearness).of(nearness);
    }

    private Plane of(Plane nearness) {
        Plane out = new Plane(nearness.size());
        fill(out, Region.all(out.size()), nearness);
        return out;
    }

    /** Whether the radius depends on nearness alone: the nearer, the less. */
    public boolean isLevel() {
        return level.isLevel();
    }

    /** Ranges of the radii, of those of nearness. Exact for a level field. */
    public BlockRanges ranges(BlockRanges nearness) {
        return new BlockRanges(of(nearness.high()), of(nearness.low()));
    }

    /** Computes a part of a field in place. */
    public void fill(Plane field, Region part, Plane nearness) {
        float[] in = nearness.samples();
        float[] to = field.samples();
        int width = nearness.width();
        Bands.ofRows(part.height(), (from, until) -> {
            for (int y = part.y() + from; y < part.y() + until; y++) {
                // What is taken off the nearness, in steps of the table, at the row's middle and from pixel to pixel.
                float base = (float) (level.tiltAt(0.5, (y + 0.5) / nearness.height()) * STEPS) - off;
                float slope = (float) (level.tiltAcross() * 2 * STEPS / width);
                float row = 0.5f - base - slope * (0.5f - width / 2f);
                for (int x = part.x(), i = y * width + x; x < part.x() + part.width(); x++, i++) {
                    if (Float.isNaN(in[i])) {
                        throw new IllegalArgumentException("nearness has no number at pixel " + x + "," + y);
                    }
                    int at = (int) (in[i] * STEPS + row - slope * x);
                    to[i] = radiusAt[Math.max(0, Math.min(radiusAt.length - 1, at))];
                }
            }
        });
    }
}
