package app.yubble.media.recipe;

import app.yubble.core.recipe.Recipe;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A recipe for a history of steps: cut into pieces that are named by what they hold, so that what two steps have in common is stored
 * once. This is how recipes lie in a database, not a file format.
 *
 * <p>How: a touch-up is a piece, and so are every {@value #RUN} of its strokes. Painting one more stroke then makes a new last run of
 * strokes, its touch-up, and the list of touch-ups; with 200 touch-ups and 5 000 strokes that is less than 20 kB of 2 MB.
 *
 * @param whole what remains, with the names of touch-ups
 * @param pieces by name; made when they are asked for, because most are stored already
 */
public record RecipePieces(String whole, Map<String, Supplier<String>> pieces) {
    private static final int RUN = 16;
    /** Bytes of a hash in a name: as many as no two pieces of a shot share by chance. */
    private static final int NAME_BYTES = 16;

    private static final JsonMapper MAPPER =
            JsonMapper.builder().addModule(new RecipeModule()).build();

    private record Whole(Recipe recipe, List<String> touchups) {}

    /** @param touchup without strokes, whose runs are named */
    private record StoredTouchup(Touchup touchup, List<String> strokes) {}

    public static RecipePieces cut(Recipe recipe) {
        Map<String, Supplier<String>> pieces = new LinkedHashMap<>();
        List<String> names = new ArrayList<>();
        for (Touchup touchup : recipe.touchups()) {
            List<String> runs = new ArrayList<>();
            for (int from = 0; from < touchup.strokes().size(); from += RUN) {
                List<Stroke> run = touchup.strokes()
                        .subList(from, Math.min(touchup.strokes().size(), from + RUN));
                String name = name(run.stream().map(Stroke::key).collect(Collectors.joining()));
                pieces.put(name, () -> MAPPER.writeValueAsString(run));
                runs.add(name);
            }
            String text = MAPPER.writeValueAsString(new StoredTouchup(touchup.withStrokes(List.of()), runs));
            String name = name(text);
            pieces.put(name, () -> text);
            names.add(name);
        }
        return new RecipePieces(MAPPER.writeValueAsString(new Whole(recipe.withTouchups(List.of()), names)), pieces);
    }

    /**
     * The recipe again.
     *
     * @param whole as {@link #cut} made it in this version of the format or an earlier one, or a recipe that was stored in one piece
     * @param find pieces by their names
     * @throws BadRecipeException when a piece is missing or broken
     */
    public static Recipe join(String whole, Function<Set<String>, Map<String, String>> find) {
        return join(List.of(whole), find).get(0);
    }

    /** The same for many at once, each piece looked for once. */
    public static List<Recipe> join(List<String> wholes, Function<Set<String>, Map<String, String>> find) {
        try {
            List<JsonNode> trees = wholes.stream().map(MAPPER::readTree).toList();
            Map<String, String> touchups = find.apply(trees.stream()
                    .flatMap(tree -> names(tree.path("touchups")))
                    .collect(Collectors.toCollection(LinkedHashSet::new)));
            Map<String, JsonNode> stored = new HashMap<>();
            touchups.forEach((name, text) -> stored.put(name, MAPPER.readTree(text)));
            Map<String, String> runs = find.apply(stored.values().stream()
                    .flatMap(touchup -> names(touchup.path("strokes")))
                    .collect(Collectors.toCollection(LinkedHashSet::new)));
            return trees.stream()
                    .map(tree -> RecipeFormat.read(tree.has("format") ? tree : joined(tree, stored, runs)))
                    .toList();
        } catch (JacksonException | ClassCastException broken) {
            throw new BadRecipeException(List.of("a stored recipe is broken: " + broken.getMessage()));
        }
    }

    private static JsonNode joined(JsonNode tree, Map<String, JsonNode> stored, Map<String, String> runs) {
        ObjectNode recipe = (ObjectNode) tree.path("recipe");
        ArrayNode touchups = recipe.putArray("touchups");
        names(tree.path("touchups")).forEach(name -> {
            JsonNode each = found(stored, name);
            // Two recipes may have it.
            ObjectNode touchup = (ObjectNode) each.path("touchup").deepCopy();
            ArrayNode strokes = touchup.putArray("strokes");
            names(each.path("strokes")).forEach(run -> strokes.addAll((ArrayNode) MAPPER.readTree(found(runs, run))));
            touchups.add(touchup);
        });
        return recipe;
    }

    /** The names in a list; a recipe that was stored in one piece has touch-ups there, which are none. */
    private static Stream<String> names(JsonNode list) {
        return list.valueStream().filter(JsonNode::isString).map(JsonNode::stringValue);
    }

    private static <T> T found(Map<String, T> pieces, String name) {
        T piece = pieces.get(name);
        if (piece == null) {
            throw new BadRecipeException(List.of("a piece of a stored recipe is missing"));
        }
        return piece;
    }

    private static String name(String content) {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256").digest(content.getBytes(StandardCharsets.UTF_8));
            return Base64.getUrlEncoder().withoutPadding().encodeToString(Arrays.copyOf(hash, NAME_BYTES));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
