package app.yubble.server.depth;

import app.yubble.core.subject.Quality;
import app.yubble.server.account.SignedIn;
import app.yubble.server.shoot.DepthMaps;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotView;
import app.yubble.server.shoot.ShotViews;
import app.yubble.server.shoot.Shots;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.io.IOException;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** Where the depth of a shot comes from. */
@RestController
class DepthController {
    private final Shots shots;
    private final DepthMaps maps;
    private final DepthJob job;
    private final Engines engines;
    private final ShotViews views;

    DepthController(Shots shots, DepthMaps maps, DepthJob job, Engines engines, ShotViews views) {
        this.shots = shots;
        this.maps = maps;
        this.job = job;
        this.engines = engines;
        this.views = views;
    }

    /** Brings a depth map in; the one before stays when this one does not fit. */
    @PostMapping(path = "/api/shots/{id}/depth-file", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    ShotView bringIn(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestPart("file") MultipartFile file)
            throws IOException {
        Shot shot = shots.owned(id, who.id());
        String name = file.getOriginalFilename();
        maps.bringIn(shot, name == null ? "depth" : name, file.getBytes());
        return views.of(shot);
    }

    /** @param engine one of the installed estimators, or auto */
    record EstimateWanted(@NotNull String engine, @NotNull Quality quality) {}

    /** Estimates depth again. Until the new map is there the one before stays. */
    @PostMapping("/api/shots/{id}/depth-estimate")
    @ResponseStatus(HttpStatus.ACCEPTED)
    ShotView estimateAgain(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid EstimateWanted wanted) {
        shots.owned(id, who.id());
        engines.require(wanted.engine());
        job.enqueue(id, wanted.engine(), wanted.quality());
        return views.of(shots.byId(id));
    }

    /** Stops the estimate that is under way. */
    @DeleteMapping("/api/shots/{id}/depth-estimate")
    ShotView cancelEstimate(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        return views.of(shots.cancelDepth(id, who.id()));
    }
}
