package app.yubble.server.editing;

import app.yubble.core.recipe.Recipe;
import app.yubble.media.recipe.RecipeFile;
import app.yubble.server.account.SignedIn;
import app.yubble.server.mask.MaskFiles;
import app.yubble.server.memory.Uploads;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.shoot.Clips;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** Recipes that go to another machine and come from one. */
@RestController
class RecipeFileController {
    private static final long MOST_BYTES = 80_000_000;
    private static final int LONGEST_NAME = 80;

    private final Versions versions;
    private final Shots shots;
    private final MaskFiles masks;
    private final RecipeFiles files;
    private final Uploads uploads;

    RecipeFileController(Versions versions, Shots shots, MaskFiles masks, RecipeFiles files, Uploads uploads) {
        this.uploads = uploads;
        this.versions = versions;
        this.shots = shots;
        this.masks = masks;
        this.files = files;
    }

    /** @param warning why it may not fit this photo, or null */
    record TakenUp(
            VersionController.VersionView version, @Nullable String warning) {}

    /** A version's recipe as it stands now, with its masks. */
    @GetMapping("/api/versions/{id}/file")
    ResponseEntity<String> give(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) throws IOException {
        Versions.Standing standing = versions.owned(id, who.id());
        Shot shot = shots.owned(standing.version().shotId(), who.id());
        Recipe recipe = standing.recipe();
        masks.require(recipe, who.id());
        String stem = shot.name().replaceAll("\\.[^.]*$", "");
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_JSON)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename(stem + " - " + standing.version().name() + ".json", StandardCharsets.UTF_8)
                                .build()
                                .toString())
                .body(files.write(recipe, shot));
    }

    /** Makes a version of a recipe from another machine. */
    @PostMapping(path = "/api/shots/{shot}/recipe-file", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    @ResponseStatus(HttpStatus.CREATED)
    TakenUp take(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID shot, @RequestPart("file") MultipartFile file) {
        Shot source = shots.owned(shot, who.id());
        if (file.getSize() > MOST_BYTES) {
            throw new RefusedException("The recipe file is larger than " + MOST_BYTES / 1_000_000 + " MB.");
        }
        return uploads.read(file, "recipe", (name, bytes) -> takenUp(source, who, name, bytes));
    }

    private TakenUp takenUp(Shot source, SignedIn who, String fileName, byte[] content) {
        RecipeFile read = RecipeFile.read(new String(content, StandardCharsets.UTF_8));
        Map<String, String> names = new HashMap<>();
        for (Map.Entry<String, byte[]> each : read.masks().entrySet()) {
            names.put(each.getKey(), masks.bringIn(source, who.id(), "The mask of the recipe", each.getValue()));
        }
        Recipe recipe = read.renamed(names);
        masks.require(recipe, who.id());
        Clips.requireMarksWithin(recipe, source);
        String name = Shots.plainName(fileName).replaceAll("\\.[^.]*$", "");
        Versions.Standing made = versions.takeUp(
                source, who.id(), name.length() > LONGEST_NAME ? name.substring(0, LONGEST_NAME) : name, recipe);
        return new TakenUp(VersionController.VersionView.of(made), read.warning(source.contentHash(), source.size()));
    }
}
