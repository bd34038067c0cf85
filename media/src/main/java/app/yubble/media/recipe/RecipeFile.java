package app.yubble.media.recipe;

import app.yubble.core.raster.Size;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.touchup.Touchup;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * A recipe with all that it needs, for another machine: see docs/formats.md.
 *
 * @param photo for which it was made
 * @param masks the pictures that touch-ups begin with, by the names under which the recipe has them
 */
public record RecipeFile(Recipe recipe, PhotoMark photo, Map<String, byte[]> masks) {
    public static final String FORMAT = "yubble-recipe-file";
    private static final int VERSION = 1;
    private static final int MOST_MASKS = 100;

    private static final JsonMapper MAPPER =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    /**
     * How a photo is known again.
     *
     * @param sha256 of its file
     */
    public record PhotoMark(String name, String sha256, Size size) {}

    public RecipeFile {
        masks = Map.copyOf(masks);
    }

    /** The masks that a recipe names. */
    public static List<String> masksOf(Recipe recipe) {
        return recipe.touchups().stream()
                .map(each -> each.start().file())
                .flatMap(file -> Optional.ofNullable(file).stream())
                .distinct()
                .toList();
    }

    public String write() {
        ObjectNode out = MAPPER.createObjectNode();
        out.put("format", FORMAT).put("version", VERSION);
        out.putObject("photo")
                .put("name", photo.name())
                .put("sha256", photo.sha256())
                .put("width", photo.size().width())
                .put("height", photo.size().height());
        out.set("recipe", MAPPER.readTree(RecipeJson.write(recipe)));
        ObjectNode pictures = out.putObject("masks");
        new TreeMap<>(masks)
                .forEach((name, picture) ->
                        pictures.put(name, Base64.getEncoder().encodeToString(picture)));
        return MAPPER.writeValueAsString(out);
    }

    /**
     * Reads one, or a recipe without anything.
     *
     * @throws BadRecipeException with all faults
     */
    public static RecipeFile read(String json) {
        JsonNode tree;
        try {
            tree = MAPPER.readTree(json);
        } catch (JacksonException broken) {
            throw new BadRecipeException(List.of("the recipe is not valid JSON: " + broken.getOriginalMessage()));
        }
        if (!FORMAT.equals(tree.path("format").asString(""))) {
            return new RecipeFile(RecipeJson.read(json), new PhotoMark("", "", new Size(1, 1)), Map.of());
        }
        if (tree.path("version").asInt(0) != VERSION) {
            throw new BadRecipeException(List.of("the recipe file is of version "
                    + tree.path("version").asString("?") + "; this program reads version " + VERSION));
        }
        Recipe recipe = RecipeJson.read(tree.path("recipe").toString());
        JsonNode photo = tree.path("photo");
        return new RecipeFile(
                recipe,
                new PhotoMark(
                        photo.path("name").asString(""),
                        photo.path("sha256").asString(""),
                        new Size(side(photo, "width"), side(photo, "height"))),
                pictures(recipe, tree.path("masks")));
    }

    private static int side(JsonNode photo, String name) {
        return Math.max(1, photo.path(name).asInt(1));
    }

    private static Map<String, byte[]> pictures(Recipe recipe, JsonNode found) {
        List<String> wanted = masksOf(recipe);
        if (wanted.size() > MOST_MASKS) {
            throw new BadRecipeException(List.of("the recipe names more than " + MOST_MASKS + " masks"));
        }
        Map<String, byte[]> out = new HashMap<>();
        for (String each : wanted) {
            try {
                out.put(each, Base64.getDecoder().decode(found.path(each).asString("")));
            } catch (IllegalArgumentException damaged) {
                throw new BadRecipeException(List.of("the mask " + each + " is damaged"));
            }
        }
        out.values().removeIf(picture -> picture.length == 0);
        return out;
    }

    /** The recipe with masks under new names; those without one keep theirs. */
    public Recipe renamed(Map<String, String> names) {
        return recipe.withTouchups(recipe.touchups().stream()
                .map(each -> renamed(each, each.start().file(), names))
                .toList());
    }

    private static Touchup renamed(Touchup touchup, @Nullable String file, Map<String, String> names) {
        String now = file == null ? null : names.get(file);
        return now == null ? touchup : touchup.withStart(new Touchup.Start(null, now));
    }

    /** Why it may not fit a photo; null when it was made for this file. */
    public @Nullable String warning(String sha256, Size size) {
        if (photo.sha256().equals(sha256)) {
            return null;
        }
        if (photo.sha256().isEmpty()) {
            return "The file does not say for which photo the recipe was made.";
        }
        double was = (double) photo.size().width() / photo.size().height();
        double is = (double) size.width() / size.height();
        boolean sameShape = Math.abs(was - is) <= 2.0 / Math.min(size.width(), size.height());
        return sameShape
                ? "The recipe was made for another file of the same shape (" + photo.name() + ")."
                : "The recipe was made for a photo of another shape (" + photo.name() + ", "
                        + photo.size().width() + " x " + photo.size().height()
                        + "): touch-ups do not lie where they belong.";
    }
}
