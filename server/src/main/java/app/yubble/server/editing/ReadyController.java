package app.yubble.server.editing;

import app.yubble.server.account.SignedIn;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What will probably be looked at next is made ready for it. */
@RestController
class ReadyController {
    private final Shots shots;
    private final Versions versions;
    private final Readying readying;

    ReadyController(Shots shots, Versions versions, Readying readying) {
        this.shots = shots;
        this.versions = versions;
        this.readying = readying;
    }

    /**
     * A shot will probably be looked at; nothing is promised.
     *
     * @param longSide of its previews, in pixels
     * @param photo longer side of the untouched photo; null where that is not needed
     */
    @PostMapping("/api/shots/{id}/ready")
    @ResponseStatus(HttpStatus.ACCEPTED)
    void ready(
            @AuthenticationPrincipal SignedIn who,
            @PathVariable UUID id,
            @RequestParam @NotEmpty @Size(max = 2) List<@Min(16) @Max(Shots.PROXY_SIDE) Integer> longSide,
            @RequestParam(required = false) @Min(16) @Max(Shots.PROXY_SIDE) @Nullable Integer photo) {
        Shot shot = shots.owned(id, who.id());
        if (photo != null && !shot.isClip()) {
            readying.photoSoon(who.id(), shot, shot.size().fitting(photo));
        }
        versions.named(id, who.id()).stream()
                .findFirst()
                .ifPresent(first -> longSide.forEach(side -> readying.soon(
                        who.id(), shot, first.recipe(), shot.size().fitting(side))));
    }

    /**
     * A shot will probably be looked at closely: all of it is made ready at full size, if nobody is in the way.
     *
     * @param version that is looked at
     */
    @PostMapping("/api/shots/{id}/ready/full")
    @ResponseStatus(HttpStatus.ACCEPTED)
    void readyAtFullSize(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestParam UUID version) {
        Shot shot = shots.owned(id, who.id());
        Versions.Standing seen = versions.owned(version, who.id());
        if (!shot.isClip() && seen.version().shotId().equals(id)) {
            readying.closelySoon(who.id(), shot, seen.recipe());
        }
    }
}
