package app.yubble.server.shoot;

import app.yubble.server.account.SignedIn;
import app.yubble.server.paging.Page;
import app.yubble.server.problem.NotFoundException;
import app.yubble.server.storage.FileStore;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.time.Duration;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Shoots and the shots in them. */
@RestController
class ShootController {
    private final Shoots shoots;
    private final Shots shots;
    private final ShotViews views;
    private final FileStore files;

    ShootController(Shoots shoots, Shots shots, ShotViews views, FileStore files) {
        this.shoots = shoots;
        this.shots = shots;
        this.views = views;
        this.files = files;
    }

    record ShootName(@NotBlank @Size(max = 120) String name) {}

    record ShotName(@NotBlank @Size(max = 200) String name) {}

    /** The newest first. */
    @GetMapping("/api/shoots")
    Page<Shoots.ShootView> all(
            @AuthenticationPrincipal SignedIn who,
            @RequestParam(required = false) @Nullable UUID after,
            @RequestParam(defaultValue = "50") @Min(1) @Max(200) int count) {
        return shoots.page(who.id(), after, count);
    }

    @PostMapping("/api/shoots")
    @ResponseStatus(HttpStatus.CREATED)
    Shoots.ShootView create(@AuthenticationPrincipal SignedIn who, @RequestBody @Valid ShootName wanted) {
        return shoots.create(who.id(), wanted.name().strip());
    }

    @PatchMapping("/api/shoots/{id}")
    Shoots.ShootView rename(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid ShootName wanted) {
        return shoots.rename(id, who.id(), wanted.name().strip());
    }

    @DeleteMapping("/api/shoots/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        shoots.delete(id, who.id());
    }

    /** The shots of a shoot, in the order in which they came in. */
    @GetMapping("/api/shoots/{id}/shots")
    Page<ShotView> shots(
            @AuthenticationPrincipal SignedIn who,
            @PathVariable UUID id,
            @RequestParam(required = false) @Nullable UUID after,
            @RequestParam(defaultValue = "50") @Min(1) @Max(200) int count) {
        return views.of(shots.page(id, who.id(), after, count));
    }

    @GetMapping("/api/shots/{id}")
    ShotView shot(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        return views.of(shots.owned(id, who.id()));
    }

    @PatchMapping("/api/shots/{id}")
    ShotView renameShot(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid ShotName wanted) {
        return views.of(shots.rename(id, who.id(), wanted.name()));
    }

    @DeleteMapping("/api/shots/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void deleteShot(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        shots.delete(id, who.id());
    }

    @GetMapping("/api/shots/{id}/thumbnail")
    ResponseEntity<Resource> thumbnail(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        String hash = shots.owned(id, who.id()).thumbnailHash();
        if (hash == null) {
            throw new NotFoundException("thumbnail");
        }
        return ResponseEntity.ok()
                .contentType(MediaType.IMAGE_JPEG)
                .cacheControl(CacheControl.maxAge(Duration.ofDays(30)).cachePrivate())
                .eTag(hash)
                .body(files.resource(hash));
    }
}
