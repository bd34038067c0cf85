package app.yubble.server.editing;

import app.yubble.core.recipe.Recipe;
import app.yubble.media.recipe.RecipePieces;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import org.springframework.jdbc.core.namedparam.MapSqlParameterSource;
import org.springframework.jdbc.core.namedparam.NamedParameterJdbcTemplate;
import org.springframework.jdbc.core.namedparam.SqlParameterSource;
import org.springframework.stereotype.Component;

/** Recipes of histories in the database: what the steps of a shot have in common lies there once. */
@Component
class RecipeStore {
    /** Names in one question. */
    private static final int AT_ONCE = 500;

    private final NamedParameterJdbcTemplate database;

    RecipeStore(NamedParameterJdbcTemplate database) {
        this.database = database;
    }

    /** Stores what is new of a recipe; the answer is what the step itself is to keep. Within a transaction. */
    String write(UUID shot, Recipe recipe) {
        RecipePieces cut = RecipePieces.cut(recipe);
        List<String> names = new ArrayList<>(cut.pieces().keySet());
        Map<String, String> known = new HashMap<>();
        for (List<String> some : portions(names)) {
            database.query(
                    "select name from recipe_piece where shot_id = :shot and name in (:names)",
                    parameters(shot, some),
                    row -> {
                        known.put(row.getString(1), "");
                    });
        }
        names.removeAll(known.keySet());
        for (List<String> some : portions(names)) {
            database.batchUpdate(
                    // Another request may have been first.
                    "insert ignore into recipe_piece (shot_id, name, content) values (:shot, :name, :content)",
                    some.stream()
                            .map(name -> new MapSqlParameterSource("shot", shot.toString())
                                    .addValue("name", name)
                                    .addValue(
                                            "content",
                                            Objects.requireNonNull(cut.pieces().get(name))
                                                    .get()))
                            .toArray(SqlParameterSource[]::new));
        }
        return cut.whole();
    }

    /** Recipes of one shot, with two questions for all of them. */
    List<Recipe> read(UUID shot, List<String> stored) {
        return RecipePieces.join(stored, names -> {
            Map<String, String> found = new HashMap<>();
            for (List<String> some : portions(names)) {
                database.query(
                        "select name, content from recipe_piece where shot_id = :shot and name in (:names)",
                        parameters(shot, some),
                        row -> {
                            found.put(row.getString(1), row.getString(2));
                        });
            }
            return found;
        });
    }

    private static MapSqlParameterSource parameters(UUID shot, List<String> names) {
        return new MapSqlParameterSource("shot", shot.toString()).addValue("names", names);
    }

    private static List<List<String>> portions(Collection<String> names) {
        List<String> all = List.copyOf(names);
        List<List<String>> out = new ArrayList<>();
        for (int from = 0; from < all.size(); from += AT_ONCE) {
            out.add(all.subList(from, Math.min(all.size(), from + AT_ONCE)));
        }
        return out;
    }
}
