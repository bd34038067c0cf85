package app.yubble.media.recipe;

import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Disc;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.ValueDeserializer;
import tools.jackson.databind.ValueSerializer;
import tools.jackson.databind.module.SimpleModule;

/** Recipes and parts of them in JSON, wherever they stand. */
public final class RecipeModule extends SimpleModule {
    public RecipeModule() {
        super("recipe");
        addSerializer(Recipe.class, written((recipe, to) -> RecipeFormat.write(recipe, to)));
        addSerializer(Touchup.class, written((touchup, to) -> new FormWriter(to).write(touchup)));
        addSerializer(Stroke.class, written((stroke, to) -> new FormWriter(to).write(stroke)));
        addSerializer(SharpBand.class, written((band, to) -> new FormWriter(to).write(band)));
        addSerializer(Disc.class, written((disc, to) -> new FormWriter(to).write(disc)));
        addDeserializer(Recipe.class, new ValueDeserializer<>() {
            @Override
            public Recipe deserialize(JsonParser from, DeserializationContext context) {
                return RecipeFormat.read(context.readTree(from));
            }
        });
    }

    @FunctionalInterface
    private interface Writing<T> {
        void write(T value, JsonGenerator to);
    }

    private static <T> ValueSerializer<T> written(Writing<T> writing) {
        return new ValueSerializer<>() {
            @Override
            public void serialize(T value, JsonGenerator to, SerializationContext context) {
                writing.write(value, to);
            }
        };
    }
}
