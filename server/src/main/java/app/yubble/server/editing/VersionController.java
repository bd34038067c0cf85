package app.yubble.server.editing;

import app.yubble.core.recipe.Recipe;
import app.yubble.server.account.SignedIn;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/**
 * Versions of a shot. Every change names the lock number it was made from; when the version has moved on since, the
 * answer is 409 and nothing is overwritten.
 */
@RestController
class VersionController {
    private final Versions versions;
    private final ShotRecipes recipes;

    VersionController(Versions versions, ShotRecipes recipes) {
        this.versions = versions;
        this.recipes = recipes;
    }

    /** {@code position} is this step's number in the history. */
    record StepView(int position, String name) {}

    /** {@code position} is the step that the recipe is from; {@code lock} goes into the next change. */
    record VersionView(
            UUID id, UUID shotId, String name, Recipe recipe, long lock, int position, List<StepView> history) {
        static VersionView of(Versions.Standing standing) {
            Version version = standing.version();
            return new VersionView(
                    version.id(),
                    version.shotId(),
                    version.name(),
                    standing.recipe(),
                    version.lockVersion(),
                    version.position(),
                    standing.history().stream()
                            .map(step -> new StepView(step.getPosition(), step.getName()))
                            .toList());
        }
    }

    record Change(
            @NotNull Long lock,
            @NotBlank @Size(max = 120) String step,
            @NotNull Recipe recipe) {}

    record Move(@NotNull Long lock, @NotNull Integer position) {}

    record VersionName(@NotBlank @Size(max = 80) String name) {}

    @GetMapping("/api/shots/{shot}/versions")
    List<VersionView> all(@AuthenticationPrincipal SignedIn who, @PathVariable UUID shot) {
        return versions.of(shot, who.id()).stream().map(VersionView::of).toList();
    }

    @GetMapping("/api/versions/{id}")
    VersionView one(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        return VersionView.of(versions.owned(id, who.id()));
    }

    @PutMapping("/api/versions/{id}/recipe")
    VersionView change(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid Change change) {
        return VersionView.of(versions.edit(
                id, who.id(), change.lock(), change.step().strip(), recipes.allowed(change.recipe(), who)));
    }

    /** Undo, redo, or a jump to any step. */
    @PutMapping("/api/versions/{id}/position")
    VersionView move(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid Move move) {
        return VersionView.of(versions.goTo(id, who.id(), move.lock(), move.position()));
    }

    @PostMapping("/api/versions/{id}/duplicate")
    @ResponseStatus(HttpStatus.CREATED)
    VersionView duplicate(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid VersionName wanted) {
        return VersionView.of(versions.duplicate(id, wanted.name().strip(), who.id()));
    }

    @PatchMapping("/api/versions/{id}")
    VersionView rename(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid VersionName wanted) {
        return VersionView.of(versions.rename(id, who.id(), wanted.name().strip()));
    }

    @DeleteMapping("/api/versions/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        versions.remove(id, who.id());
    }

    /** A removed version, for a day. */
    @PostMapping("/api/versions/{id}/return")
    VersionView bringBack(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        return VersionView.of(versions.bringBack(id, who.id()));
    }

    /** @param parts touch-ups only for shots of the same size */
    record Copying(
            @NotEmpty Set<@NotNull RecipePart> parts,
            @NotEmpty @Size(max = 500) List<@NotNull UUID> shots) {}

    /** How many shots have been changed. */
    record Copied(int changed) {}

    @PostMapping("/api/versions/{id}/copy")
    Copied copy(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid Copying wanted) {
        return new Copied(versions.copyTo(id, who.id(), wanted.parts(), wanted.shots()));
    }
}
