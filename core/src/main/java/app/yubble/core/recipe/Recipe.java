package app.yubble.core.recipe;

import app.yubble.core.focus.Gain;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Aperture;
import app.yubble.core.lens.Disc;
import app.yubble.core.lens.Glints;

/**
 * The settings of every stage.
 *
 * @param opacity of the whole effect over the untouched photo, in [0,1]
 */
public record Recipe(
        DepthChoice depth, SharpBand band, Aperture aperture, Gain gain, Disc disc, Glints glints, double opacity) {
    /** The version of the file format that this class stands for. */
    public static final int FORMAT_VERSION = 1;

    /** A moderate blur with everything still sharp: the band is put on the subject once depth is known. */
    public static final Recipe INITIAL = new Recipe(
            DepthChoice.ESTIMATE, SharpBand.EVERYTHING, Aperture.DEFAULT, Gain.EVEN, Disc.ROUND, Glints.of(0.25), 1);

    public Recipe {
        if (!(opacity >= 0 && opacity <= 1)) {
            throw new IllegalArgumentException("opacity must be in 0..1, found " + opacity);
        }
    }

    public Recipe withDepth(DepthChoice value) {
        return new Recipe(value, band, aperture, gain, disc, glints, opacity);
    }

    public Recipe withBand(SharpBand value) {
        return new Recipe(depth, value, aperture, gain, disc, glints, opacity);
    }

    public Recipe withAperture(Aperture value) {
        return new Recipe(depth, band, value, gain, disc, glints, opacity);
    }

    public Recipe withDisc(Disc value) {
        return new Recipe(depth, band, aperture, gain, value, glints, opacity);
    }

    public Recipe withGlints(Glints value) {
        return new Recipe(depth, band, aperture, gain, disc, value, opacity);
    }

    public Recipe withOpacity(double value) {
        return new Recipe(depth, band, aperture, gain, disc, glints, value);
    }
}
