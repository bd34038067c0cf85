package app.yubble.core.recipe;

import app.yubble.core.clip.Moment;
import app.yubble.core.focus.Gain;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Aperture;
import app.yubble.core.lens.Disc;
import app.yubble.core.lens.Glints;
import app.yubble.core.touchup.Touchup;
import java.util.List;

/**
 * The settings of every stage.
 *
 * @param touchups in the order in which they act
 * @param opacity of the whole effect over the untouched photo, in [0,1]
 */
public record Recipe(
        DepthChoice depth,
        List<Touchup> touchups,
        SharpBand band,
        Aperture aperture,
        Gain gain,
        Disc disc,
        Glints glints,
        double opacity)
        implements Course {
    /** The version of the file format that this class stands for. */
    public static final int FORMAT_VERSION = 1;

    public static final int MOST_TOUCHUPS = 500;

    /** A moderate blur with everything still sharp: the band is put on the subject once depth is known. */
    public static final Recipe INITIAL = new Recipe(
            DepthChoice.ESTIMATE,
            List.of(),
            SharpBand.EVERYTHING,
            Aperture.DEFAULT,
            Gain.EVEN,
            Disc.ROUND,
            Glints.of(0.25),
            1);

    public Recipe {
        touchups = List.copyOf(touchups);
        if (touchups.size() > MOST_TOUCHUPS) {
            throw new IllegalArgumentException(
                    "a recipe has at most " + MOST_TOUCHUPS + " touch-ups, found " + touchups.size());
        }
        if (touchups.stream().map(Touchup::id).distinct().count() < touchups.size()) {
            throw new IllegalArgumentException("two touch-ups of a recipe have one id");
        }
        if (!(opacity >= 0 && opacity <= 1)) {
            throw new IllegalArgumentException("opacity must be in 0..1, found " + opacity);
        }
    }

    @Override
    public Recipe at(Moment moment) {
        return this;
    }

    public Recipe withDepth(DepthChoice value) {
        return new Recipe(value, touchups, band, aperture, gain, disc, glints, opacity);
    }

    public Recipe withTouchups(List<Touchup> value) {
        return new Recipe(depth, value, band, aperture, gain, disc, glints, opacity);
    }

    public Recipe withBand(SharpBand value) {
        return new Recipe(depth, touchups, value, aperture, gain, disc, glints, opacity);
    }

    public Recipe withAperture(Aperture value) {
        return new Recipe(depth, touchups, band, value, gain, disc, glints, opacity);
    }

    public Recipe withDisc(Disc value) {
        return new Recipe(depth, touchups, band, aperture, gain, value, glints, opacity);
    }

    public Recipe withGlints(Glints value) {
        return new Recipe(depth, touchups, band, aperture, gain, disc, value, opacity);
    }

    public Recipe withOpacity(double value) {
        return new Recipe(depth, touchups, band, aperture, gain, disc, glints, value);
    }
}
