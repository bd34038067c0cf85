package app.yubble.server.depth;

import app.yubble.core.subject.Quality;
import app.yubble.server.YubbleProperties;
import app.yubble.server.account.Allowance;
import app.yubble.server.account.SignedIn;
import app.yubble.server.memory.Uploads;
import app.yubble.server.problem.ConflictException;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.shoot.DepthMaps;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotView;
import app.yubble.server.shoot.ShotViews;
import app.yubble.server.shoot.Shots;
import app.yubble.server.storage.FileStore;
import app.yubble.server.storage.Incoming;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
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
    private final DepthClipJob clipJob;
    private final FileStore files;
    private final YubbleProperties properties;
    private final Uploads uploads;
    private final Allowance allowance;

    DepthController(
            Shots shots,
            DepthMaps maps,
            DepthJob job,
            Engines engines,
            ShotViews views,
            DepthClipJob clipJob,
            FileStore files,
            YubbleProperties properties,
            Uploads uploads,
            Allowance allowance) {
        this.allowance = allowance;
        this.uploads = uploads;
        this.clipJob = clipJob;
        this.files = files;
        this.properties = properties;
        this.shots = shots;
        this.maps = maps;
        this.job = job;
        this.engines = engines;
        this.views = views;
    }

    /** Brings a depth map in; the one before stays when this one does not fit. */
    @PostMapping(path = "/api/shots/{id}/depth-file", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    ShotView bringIn(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestPart("file") MultipartFile file) {
        Shot shot = shots.owned(id, who.id());
        if (shot.isClip()) {
            throw new RefusedException("A clip needs depth of every frame: a film, or a zip of pictures.");
        }
        return uploads.read(file, "depth", (name, bytes) -> {
            maps.bringIn(shot, name, bytes);
            return views.of(shot);
        });
    }

    /** Brings depth of every frame of a clip in: a film, or a zip with a picture for each frame. It is read in the background. */
    @PostMapping(path = "/api/shots/{id}/depth-clip", consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    @ResponseStatus(HttpStatus.ACCEPTED)
    @io.swagger.v3.oas.annotations.parameters.RequestBody(
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_OCTET_STREAM_VALUE,
                            schema = @Schema(type = "string", format = "binary")))
    ShotView bringInClip(
            @AuthenticationPrincipal SignedIn who,
            @PathVariable UUID id,
            @RequestParam @Size(max = 255) String name,
            HttpServletRequest request)
            throws IOException {
        Shot shot = shots.owned(id, who.id());
        if (shot.sheetHash() == null) {
            throw new ConflictException("Depth of every frame is for clips that have been read.");
        }
        String plain = Shots.plainName(name);
        Path incoming = files.incoming();
        try {
            Incoming.take(
                    request.getInputStream(),
                    plain,
                    request.getContentLengthLong(),
                    properties.mostClipBytes(),
                    incoming);
            clipJob.enqueue(id, plain, files.keep(incoming).hash());
        } finally {
            Files.deleteIfExists(incoming);
        }
        return views.of(shots.byId(id));
    }

    /** @param engine one of the installed estimators, or auto */
    record EstimateWanted(@NotNull String engine, @NotNull Quality quality) {}

    /** Estimates depth again. Until the new map is there the one before stays. */
    @PostMapping("/api/shots/{id}/depth-estimate")
    @ResponseStatus(HttpStatus.ACCEPTED)
    ShotView estimateAgain(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid EstimateWanted wanted) {
        shots.owned(id, who.id());
        allowance.requireWork(who.id(), 1);
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
