package app.yubble.server.editing;

import app.yubble.core.recipe.Recipe;
import app.yubble.media.recipe.RecipeFile;
import app.yubble.server.problem.DamagedFileException;
import app.yubble.server.shoot.Shot;
import app.yubble.server.storage.FileStore;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** Versions as files that another machine takes up. */
@Component
public class RecipeFiles {
    private final Versions versions;
    private final FileStore files;

    RecipeFiles(Versions versions, FileStore files) {
        this.versions = versions;
        this.files = files;
    }

    /** A version's file. */
    public record Written(String version, String json) {}

    /** With its masks. */
    String write(Recipe recipe, Shot shot) throws IOException {
        Map<String, byte[]> pictures = new HashMap<>();
        for (String each : RecipeFile.masksOf(recipe)) {
            pictures.put(each, files.bytes(each));
        }
        RecipeFile.PhotoMark mark = new RecipeFile.PhotoMark(shot.name(), shot.contentHash(), shot.size());
        return new RecipeFile(recipe, mark, pictures).write();
    }

    /** @param damaged is told of those whose masks cannot be read */
    public List<Written> of(Shot shot, UUID account, List<String> damaged) throws IOException {
        List<Written> out = new ArrayList<>();
        for (Versions.Named each : versions.named(shot.id(), account)) {
            try {
                out.add(new Written(each.name(), write(each.recipe(), shot)));
            } catch (DamagedFileException mask) {
                damaged.add("a mask of " + shot.name() + ", " + each.name());
            }
        }
        return out;
    }
}
