package app.yubble.core.finish;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.BoxMean;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;

/**
 * Raises the finest details of what is sharp. Measured on the untouched photo and laid on as a factor, so that what stands beside does not
 * matter.
 *
 * <p>Details are what lightness has beyond the mean of its neighbours. Where the photo is a little soft its finest details are missing, and
 * somewhat larger ones are raised more. Lightness stays within that of the neighbours but for a small share of their range, so that no
 * halo is drawn. Details no stronger than the noise are left alone, as a Wiener filter would.
 */
public final class Crispness {
    /** Pixels around, for the finest details. */
    private static final int FINE = 1;
    /** Pixels around, for details of a soft photo. */
    private static final int COARSE = 2;
    /** Pixels over which is looked how soft the photo is. */
    private static final int AROUND = 4;
    /** Pixels around a part that its result depends on. */
    private static final int MARGIN = COARSE + AROUND + 1;
    /** Fine details over coarse ones at an edge from one pixel to the next. */
    private static final float CRISP_EDGE = 0.7f;
    /** The same at an edge over four pixels. */
    private static final float SOFT_EDGE = 0.35f;
    /** By how much fine details are raised at full crispness. By eye on a portrait. */
    private static final float FINE_GAIN = 1.1f;
    /** By how much coarse ones are, where the photo is soft. */
    private static final float COARSE_GAIN = 1.5f;
    /** Share of the neighbours' range by which lightness may leave it. */
    private static final float BEYOND = 0.06f;
    /** Variance of details, over that of noise, at which half of them are raised. */
    private static final float NOISE_CARE = 3f;
    /** Radius in pixels up to which a pixel is sharp. */
    private static final float SHARP = 0.4f;
    /** Radius in pixels from which nothing is raised. */
    private static final float UNSHARP = 1.2f;
    /** Light so dark that a factor on it means nothing. */
    private static final float DARK = 0.004f;

    private Crispness() {}

    /**
     * Raises details of a part of a picture, in place.
     *
     * @param picture the part, as it is so far
     * @param photo untouched and whole, as are {@code radii}
     * @param amount in [0,1]
     */
    public static void raise(Picture picture, Region part, Picture photo, Plane radii, Noise noise, double amount) {
        Region grown = part.grown(MARGIN, photo.size());
        Plane light = Resample.crop(photo, grown).lightness();
        Plane fine = minus(light, BoxMean.of(light, FINE));
        Plane coarse = minus(light, BoxMean.of(light, COARSE));
        Plane fineEnergy = BoxMean.of(squared(fine), AROUND);
        Plane coarseEnergy = BoxMean.of(squared(coarse), AROUND);
        Region inside = part.from(grown);
        Bands.ofRows(part.height(), (from, to) -> {
            for (int row = from; row < to; row++) {
                for (int x = 0; x < part.width(); x++) {
                    float sharp = sharpness(Math.abs(radii.at(x + part.x(), row + part.y())));
                    int px = x + inside.x();
                    int py = row + inside.y();
                    float own = light.at(px, py);
                    float level = noise.level(1, own);
                    float energy = coarseEnergy.at(px, py);
                    if (sharp == 0 || own < DARK || energy == 0) {
                        continue;
                    }
                    float ratio = (float) Math.sqrt(fineEnergy.at(px, py) / energy);
                    float soft = Math.max(0, Math.min(1, (CRISP_EDGE - ratio) / (CRISP_EDGE - SOFT_EDGE)));
                    float detail = (1 - soft) * FINE_GAIN * fine.at(px, py) + soft * COARSE_GAIN * coarse.at(px, py);
                    float care = energy / (energy + NOISE_CARE * level * level);
                    float raised = own + (float) amount * sharp * care * detail;
                    float factor = bounded(raised, light, px, py) / own;
                    int i = row * part.width() + x;
                    picture.red().samples()[i] *= factor * factor;
                    picture.green().samples()[i] *= factor * factor;
                    picture.blue().samples()[i] *= factor * factor;
                }
            }
        });
    }

    /** Within the lightness of the neighbours, but for a small share of its range. */
    private static float bounded(float raised, Plane light, int px, int py) {
        float low = Float.MAX_VALUE;
        float high = 0;
        for (int y = Math.max(0, py - FINE); y <= Math.min(light.height() - 1, py + FINE); y++) {
            for (int x = Math.max(0, px - FINE); x <= Math.min(light.width() - 1, px + FINE); x++) {
                low = Math.min(low, light.at(x, y));
                high = Math.max(high, light.at(x, y));
            }
        }
        float beyond = BEYOND * (high - low);
        return Math.max(0, Math.max(low - beyond, Math.min(high + beyond, raised)));
    }

    private static float sharpness(float radius) {
        return Math.max(0, Math.min(1, (UNSHARP - radius) / (UNSHARP - SHARP)));
    }

    private static Plane minus(Plane a, Plane b) {
        Plane out = new Plane(a.size());
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = a.samples()[i] - b.samples()[i];
        }
        return out;
    }

    private static Plane squared(Plane a) {
        Plane out = new Plane(a.size());
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = a.samples()[i] * a.samples()[i];
        }
        return out;
    }
}
