package app.yubble.media.recipe;

import app.yubble.core.recipe.Recipe;
import java.util.List;
import java.util.function.Consumer;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/**
 * The file format of recipes; see docs/formats.md. Every version that ever was is read: a recipe of an older one goes through the
 * changes since, one after the other.
 */
public final class RecipeFormat {
    public static final String NAME = "yubble-recipe";

    /** What has changed with each version; the first is from 1 to 2. */
    private static final List<Consumer<ObjectNode>> CHANGES = List.of(
            RecipeFormat::gatherGlints,
            RecipeFormat::withoutTime,
            RecipeFormat::withoutGrain,
            RecipeFormat::withoutFollows,
            RecipeFormat::withoutShapes);

    /** The version that is written. */
    public static final int VERSION = CHANGES.size() + 1;

    private RecipeFormat() {}

    /**
     * A recipe of any version so far.
     *
     * @throws BadRecipeException with all faults
     */
    static Recipe read(JsonNode tree) {
        if (!(tree instanceof ObjectNode given)
                || !NAME.equals(given.path("format").asString(""))) {
            throw new BadRecipeException(List.of("not a recipe: \"format\" must be \"" + NAME + "\""));
        }
        JsonNode version = given.path("version");
        if (!version.isInt() || version.intValue() < 1) {
            throw new BadRecipeException(List.of("\"version\" of a recipe must be a number from 1 to " + VERSION));
        }
        if (version.intValue() > VERSION) {
            throw new BadRecipeException(List.of("this recipe needs a newer Yubble that reads version " + version
                    + "; this one reads versions up to " + VERSION));
        }
        ObjectNode recipe = JsonNodeFactory.instance.objectNode();
        recipe.setAll(given);
        recipe.remove(List.of("format", "version"));
        CHANGES.subList(version.intValue() - 1, CHANGES.size()).forEach(change -> change.accept(recipe));
        // Version 1 was read by a reader that took texts for numbers.
        FormReader reader = new FormReader(version.intValue() == 1);
        Recipe made = reader.read(Recipe.class, recipe, "");
        if (made == null) {
            throw new BadRecipeException(reader.faults());
        }
        return made;
    }

    static void write(Recipe recipe, JsonGenerator to) {
        to.writeStartObject();
        to.writeStringProperty("format", NAME);
        to.writeNumberProperty("version", VERSION);
        new FormWriter(to).writeParts(recipe);
        to.writeEndObject();
    }

    /** Time came with marks and spans: an older recipe has none, and a program that knows none must not drop them. */
    private static void withoutTime(ObjectNode recipe) {
        // What is missing has its default.
    }

    /** Follows came after marks, and a program that knows none must not drop them either. */
    private static void withoutFollows(ObjectNode recipe) {
        // What is missing has its default.
    }

    /** As with follows. */
    private static void withoutShapes(ObjectNode recipe) {
        // What is missing has its default.
    }

    /** Grain came late, and what was made before it stays as it was. */
    private static void withoutGrain(ObjectNode recipe) {
        recipe.set("finish", JsonNodeFactory.instance.objectNode().put("grain", 0));
    }

    /** Strength and threshold of glints stood apart; the threshold came late, so that many recipes have none. */
    private static void gatherGlints(ObjectNode recipe) {
        ObjectNode glints = JsonNodeFactory.instance.objectNode();
        JsonNode strength = recipe.remove("glints");
        if (strength != null) {
            glints.set("strength", strength);
        }
        JsonNode threshold = recipe.remove("glintThreshold");
        if (threshold != null) {
            glints.set("threshold", threshold);
        }
        recipe.set("glints", glints);
    }
}
