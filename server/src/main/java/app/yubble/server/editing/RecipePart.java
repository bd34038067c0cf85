package app.yubble.server.editing;

import app.yubble.core.recipe.Recipe;
import java.util.function.BinaryOperator;

/** What of a recipe can be given to another shot. */
enum RecipePart {
    /** The corrections of the map, not its source: the other shot may have another. */
    TRIMS((from, to) -> to.withDepth(to.depth().withTrim(from.depth().trim()))),
    /** Places in the picture, so only for a shot of the same size. */
    TOUCHUPS((from, to) -> to.withTouchups(from.touchups())),
    /** With its marks, as the next. */
    BAND((from, to) ->
            to.withBand(from.band()).withMarks(to.marks().withBand(from.marks().band()))),
    /** Aperture, both gains, disc and glints. */
    LENS((from, to) -> to.withAperture(from.aperture())
            .withGain(from.gain())
            .withDisc(from.disc())
            .withGlints(from.glints())
            .withMarks(to.marks().withLens(from.marks().aperture(), from.marks().gain()))),
    /** Where they lie is said in shares, so for pictures of any size. */
    SHAPES((from, to) -> to.withShapes(from.shapes())),
    /** With crispness and grain. */
    ATMOSPHERE((from, to) -> to.withAtmosphere(from.atmosphere()).withFinish(from.finish())),
    OPACITY((from, to) -> to.withOpacity(from.opacity())
            .withMarks(to.marks().withOpacity(from.marks().opacity())));

    private final BinaryOperator<Recipe> copying;

    RecipePart(BinaryOperator<Recipe> copying) {
        this.copying = copying;
    }

    /** {@code to} with this part of {@code from}. */
    Recipe copy(Recipe from, Recipe to) {
        return copying.apply(from, to);
    }
}
