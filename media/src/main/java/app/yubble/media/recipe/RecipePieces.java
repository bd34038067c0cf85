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
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

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

    private static final JsonMapper MAPPER = JsonMapper.builder().build();

    private record Whole(RecipeDocument recipe, List<String> touchups) {}

    /** @param touchup without strokes, whose runs are named */
    private record StoredTouchup(TouchupPart touchup, List<String> strokes) {}

    public static RecipePieces cut(Recipe recipe) {
        Map<String, Supplier<String>> pieces = new LinkedHashMap<>();
        List<String> names = new ArrayList<>();
        for (Touchup touchup : recipe.touchups()) {
            List<String> runs = new ArrayList<>();
            for (int from = 0; from < touchup.strokes().size(); from += RUN) {
                List<Stroke> run = touchup.strokes()
                        .subList(from, Math.min(touchup.strokes().size(), from + RUN));
                String name = name(run.stream().map(Stroke::key).collect(Collectors.joining()));
                pieces.put(
                        name,
                        () -> MAPPER.writeValueAsString(
                                run.stream().map(TouchupPart.StrokePart::of).toList()));
                runs.add(name);
            }
            String text =
                    MAPPER.writeValueAsString(new StoredTouchup(TouchupPart.of(touchup.withStrokes(List.of())), runs));
            String name = name(text);
            pieces.put(name, () -> text);
            names.add(name);
        }
        RecipeDocument rest = RecipeDocument.of(recipe.withTouchups(List.of()));
        return new RecipePieces(MAPPER.writeValueAsString(new Whole(rest, names)), pieces);
    }

    /**
     * The recipe again.
     *
     * @param whole as {@link #cut} made it, or a recipe that was stored in one piece
     * @param find pieces by their names
     * @throws BadRecipeException when a piece is missing or broken
     */
    public static Recipe join(String whole, Function<Set<String>, Map<String, String>> find) {
        try {
            JsonNode tree = MAPPER.readTree(whole);
            if (tree.has("format")) {
                return RecipeJson.read(whole);
            }
            Whole read = MAPPER.treeToValue(tree, Whole.class);
            Map<String, String> texts = find.apply(new LinkedHashSet<>(read.touchups()));
            List<StoredTouchup> stored = new ArrayList<>();
            for (String name : read.touchups()) {
                stored.add(MAPPER.readValue(found(texts, name), StoredTouchup.class));
            }
            Map<String, String> runs = find.apply(stored.stream()
                    .flatMap(each -> each.strokes().stream())
                    .collect(Collectors.toCollection(LinkedHashSet::new)));
            List<Touchup> touchups = new ArrayList<>();
            for (StoredTouchup each : stored) {
                List<Stroke> strokes = new ArrayList<>();
                for (String name : each.strokes()) {
                    Arrays.stream(MAPPER.readValue(found(runs, name), TouchupPart.StrokePart[].class))
                            .map(TouchupPart.StrokePart::toStroke)
                            .forEach(strokes::add);
                }
                touchups.add(each.touchup().toTouchup().withStrokes(strokes));
            }
            return read.recipe().toRecipe().withTouchups(touchups);
        } catch (JacksonException broken) {
            throw new BadRecipeException(List.of("a stored recipe is broken: " + broken.getOriginalMessage()));
        }
    }

    private static String found(Map<String, String> pieces, String name) {
        String text = pieces.get(name);
        if (text == null) {
            throw new BadRecipeException(List.of("a piece of a stored recipe is missing"));
        }
        return text;
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
