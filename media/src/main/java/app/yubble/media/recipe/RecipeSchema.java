package app.yubble.media.recipe;

import app.yubble.core.focus.Gain;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.follow.Follow;
import app.yubble.core.lens.Aperture;
import app.yubble.core.lens.Disc;
import app.yubble.core.lens.Glints;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Usual;
import app.yubble.core.shape.BlurShape;
import app.yubble.core.touchup.PickOut;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import java.io.StringWriter;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/**
 * The format of recipes as JSON Schema, from the declared settings. {@code title} is what a setting is called, {@code x-unit} what it
 * counts.
 */
public final class RecipeSchema {
    private static final JsonNodeFactory JSON = JsonNodeFactory.instance;
    private static final JsonMapper MAPPER = JsonMapper.builder().build();

    private final Map<String, ObjectNode> all = new TreeMap<>();
    private final String prefix;

    private RecipeSchema(String prefix) {
        this.prefix = prefix;
    }

    /**
     * A schema for the recipe and each of its parts.
     *
     * @param prefix of references from one to another, which end with the name
     */
    public static Map<String, ObjectNode> definitions(String prefix) {
        RecipeSchema schema = new RecipeSchema(prefix);
        schema.reference(Recipe.class);
        ObjectNode properties = (ObjectNode) schema.definition(Recipe.class).path("properties");
        properties.set("format", JSON.objectNode().put("type", "string").put("const", RecipeFormat.NAME));
        properties.set(
                "version",
                JSON.objectNode()
                        .put("type", "integer")
                        .put("minimum", 1)
                        .put("maximum", RecipeFormat.VERSION)
                        .put("default", RecipeFormat.VERSION)
                        .put(
                                "description",
                                "a recipe of an earlier version may have other fields; see docs/formats.md"));
        require(schema.definition(Recipe.class), "format", "version");
        require(schema.definition(Touchup.class), "id");
        require(schema.definition(Follow.class), "id", "puts");
        require(schema.definition(BlurShape.class), "id");
        return schema.all;
    }

    /** The records of which {@link #definitions} has a schema, by their simple names. */
    public static List<Class<?>> parts() {
        return List.of(
                Recipe.class,
                DepthChoice.class,
                Touchup.class,
                Stroke.class,
                PickOut.class,
                SharpBand.class,
                Aperture.class,
                Gain.class,
                Disc.class,
                Glints.class);
    }

    private ObjectNode definition(Class<?> type) {
        return Objects.requireNonNull(all.get(type.getSimpleName()));
    }

    private ObjectNode reference(Class<?> type) {
        if (!all.containsKey(type.getSimpleName())) {
            ObjectNode schema = JSON.objectNode().put("type", "object").put("additionalProperties", false);
            all.put(type.getSimpleName(), schema);
            ObjectNode properties = schema.putObject("properties");
            if (type == Stroke.class) {
                addAll(Declared.of(Stroke.Brush.class), properties);
                addPoints(properties);
                require(schema, "points");
            } else {
                addAll(Declared.of(type.asSubclass(Record.class)), properties);
            }
        }
        return JSON.objectNode().put("$ref", prefix + type.getSimpleName());
    }

    private static void require(ObjectNode schema, String... names) {
        ArrayNode required = schema.putArray("required");
        Arrays.stream(names).forEach(required::add);
    }

    private static void addPoints(ObjectNode properties) {
        ObjectNode points = properties.putObject("points").put("type", "array");
        points.putObject("items").put("type", "number");
        points.put("minItems", Stroke.VALUES).put("maxItems", Stroke.VALUES * Stroke.MOST_RAW_POINTS);
        points.put("description", "x in shares of the width, y of the height, pressure in 0..1, point after point");
    }

    private void addAll(Declared<?> declared, ObjectNode properties) {
        List<Declared.Item> items = declared.items();
        for (int i = 0; i < items.size(); i++) {
            Declared.Item item = items.get(i);
            if (item.isUnfolded()) {
                addAll(Declared.of(item.type().asSubclass(Record.class)), properties);
            } else {
                properties.set(item.name(), property(declared, i));
            }
        }
    }

    private ObjectNode property(Declared<?> declared, int index) {
        Declared.Item item = declared.items().get(index);
        Setting setting = item.setting();
        ObjectNode out = typed(item);
        if (setting != null) {
            out.put("description", setting.means());
            if (!setting.called().isEmpty()) {
                out.put("title", setting.called());
            }
            if (item.isNumber()) {
                out.put("minimum", setting.least());
                out.put(setting.below() ? "exclusiveMaximum" : "maximum", setting.most());
                out.put("x-unit", Declared.written(setting.unit()));
            }
            if (!setting.usualBy().isEmpty()) {
                out.set("x-usual-by", usualBy(declared, setting));
            }
        }
        if (!item.name().equals("id")) {
            out.set("default", MAPPER.readTree(usual(declared, index)));
        }
        return out;
    }

    private ObjectNode typed(Declared.Item item) {
        Class<?> type = item.type();
        if (type.isRecord()) {
            ObjectNode reference = reference(type);
            if (item.isNullable()) {
                ObjectNode either = JSON.objectNode();
                either.putArray("anyOf").add(reference).addObject().put("type", "null");
                return either;
            }
            return reference;
        }
        ObjectNode out = JSON.objectNode();
        if (type == List.class) {
            out.put("type", "array").set("items", reference(FormReader.element(item)));
        } else if (type.isEnum()) {
            ArrayNode names = out.put("type", "string").putArray("enum");
            for (Object each : type.getEnumConstants()) {
                names.add(Declared.written((Enum<?>) each));
            }
        } else {
            String name = type == int.class
                    ? "integer"
                    : type == double.class ? "number" : type == boolean.class ? "boolean" : "string";
            if (item.isNullable()) {
                out.putArray("type").add(name).add("null");
            } else {
                out.put("type", name);
            }
        }
        return out;
    }

    private static ObjectNode usualBy(Declared<?> declared, Setting setting) {
        ObjectNode out = JSON.objectNode();
        declared.items().stream()
                .filter(each -> each.name().equals(setting.usualBy()))
                .flatMap(each -> Arrays.stream(each.type().getEnumConstants()))
                .forEach(each -> out.put(Declared.written((Enum<?>) each), ((Usual) each).usual()));
        return out;
    }

    /** What a component usually is, as JSON. */
    static String usual(Declared<?> declared, int index) {
        @Nullable Object none = declared.usual(index, new Object[0]);
        StringWriter text = new StringWriter();
        try (JsonGenerator to = MAPPER.createGenerator(text)) {
            new FormWriter(to).writeValue(none);
        }
        return text.toString();
    }
}
