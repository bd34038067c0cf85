package app.yubble.media.recipe;

import app.yubble.core.recipe.Recipe;
import java.util.List;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.exc.UnrecognizedPropertyException;
import tools.jackson.databind.json.JsonMapper;

/** Recipes as JSON text. */
public final class RecipeJson {
    private static final JsonMapper MAPPER = JsonMapper.builder()
            .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .enable(SerializationFeature.INDENT_OUTPUT)
            .build();

    private RecipeJson() {}

    public static String write(Recipe recipe) {
        return MAPPER.writeValueAsString(RecipeDocument.of(recipe));
    }

    /**
     * @throws BadRecipeException with all faults
     */
    public static Recipe read(String json) {
        try {
            return MAPPER.readValue(json, RecipeDocument.class).toRecipe();
        } catch (UnrecognizedPropertyException unknown) {
            throw new BadRecipeException(List.of("unknown field \"" + unknown.getPropertyName() + "\" in the recipe"));
        } catch (JacksonException broken) {
            throw new BadRecipeException(List.of("the recipe is not valid JSON: " + broken.getOriginalMessage()));
        }
    }
}
