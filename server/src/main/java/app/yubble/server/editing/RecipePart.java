package app.yubble.server.editing;

import app.yubble.core.depth.DepthTrim;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import java.util.function.BinaryOperator;

/** What of a recipe can be given to another shot. */
enum RecipePart {
    /** The corrections of the map, not its source: the other shot may have another. */
    TRIMS((from, to) -> to.withDepth(trimmed(to.depth(), from.depth().trim()))),
    /** Places in the picture, so only for a shot of the same size. */
    TOUCHUPS((from, to) -> to.withTouchups(from.touchups())),
    BAND((from, to) -> to.withBand(from.band())),
    /** Aperture, both gains, disc and glints. */
    LENS((from, to) -> new Recipe(
            to.depth(),
            to.touchups(),
            to.band(),
            from.aperture(),
            from.gain(),
            from.disc(),
            from.glints(),
            to.opacity())),
    OPACITY((from, to) -> new Recipe(
            to.depth(), to.touchups(), to.band(), to.aperture(), to.gain(), to.disc(), to.glints(), from.opacity()));

    private final BinaryOperator<Recipe> copying;

    RecipePart(BinaryOperator<Recipe> copying) {
        this.copying = copying;
    }

    private static DepthChoice trimmed(DepthChoice choice, DepthTrim trim) {
        return new DepthChoice(choice.source(), choice.snap(), trim);
    }

    /** {@code to} with this part of {@code from}. */
    Recipe copy(Recipe from, Recipe to) {
        return copying.apply(from, to);
    }
}
