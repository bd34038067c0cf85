package app.yubble.server.editing;

import app.yubble.core.recipe.Recipe;
import java.util.function.BinaryOperator;

/** What of a recipe can be given to another shot. */
enum RecipePart {
    /** The corrections of the map, not its source: the other shot may have another. */
    TRIMS((from, to) -> to.withDepth(to.depth().withTrim(from.depth().trim()))),
    /** Places in the picture, so only for a shot of the same size. */
    TOUCHUPS((from, to) -> to.withTouchups(from.touchups())),
    BAND((from, to) -> to.withBand(from.band())),
    /** Aperture, both gains, disc and glints. */
    LENS((from, to) -> to.withAperture(from.aperture())
            .withGain(from.gain())
            .withDisc(from.disc())
            .withGlints(from.glints())),
    OPACITY((from, to) -> to.withOpacity(from.opacity()));

    private final BinaryOperator<Recipe> copying;

    RecipePart(BinaryOperator<Recipe> copying) {
        this.copying = copying;
    }

    /** {@code to} with this part of {@code from}. */
    Recipe copy(Recipe from, Recipe to) {
        return copying.apply(from, to);
    }
}
