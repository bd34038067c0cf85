package app.yubble.media.recipe;

import app.yubble.core.recipe.Recipe;
import java.util.List;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** Recipes as JSON text. */
public final class RecipeJson {
    private static final JsonMapper MAPPER = JsonMapper.builder()
            .addModule(new RecipeModule())
            .enable(SerializationFeature.INDENT_OUTPUT)
            .build();

    private RecipeJson() {}

    public static String write(Recipe recipe) {
        return MAPPER.writeValueAsString(recipe);
    }

    /**
     * @throws BadRecipeException with all faults
     */
    public static Recipe read(String json) {
        try {
            return RecipeFormat.read(MAPPER.readTree(json));
        } catch (JacksonException broken) {
            throw new BadRecipeException(List.of("the recipe is not valid JSON: " + broken.getOriginalMessage()));
        }
    }
}
