package app.yubble.server.shoot;

import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.subject.Quality;
import app.yubble.server.YubbleProperties;
import app.yubble.server.account.Accounts;
import app.yubble.server.account.SignedIn;
import app.yubble.server.problem.NotFoundException;
import app.yubble.server.storage.FileStore;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** Shoots and the shots in them. */
@RestController
class ShootController {
    private final ShootRepository shoots;
    private final ShotRepository repository;
    private final Shots shots;
    private final DepthJob depthJob;
    private final FileStore files;
    private final Accounts accounts;
    private final Engines engines;
    private final YubbleProperties properties;

    ShootController(
            ShootRepository shoots,
            ShotRepository repository,
            Shots shots,
            DepthJob depthJob,
            FileStore files,
            Accounts accounts,
            Engines engines,
            YubbleProperties properties) {
        this.properties = properties;
        this.shoots = shoots;
        this.repository = repository;
        this.shots = shots;
        this.depthJob = depthJob;
        this.files = files;
        this.accounts = accounts;
        this.engines = engines;
    }

    record ShootView(UUID id, String name, List<ShotView> shots) {}

    record CameraView(
            @Nullable Double focalLength,
            @Nullable Double sensorWidth,
            @Nullable Double fNumber,
            @Nullable Double distance) {}

    /**
     * @param origin the estimator's name, the file's, or the format in which the photo held it
     * @param hash changes whenever the map does
     * @param quality draft or best, for an estimate
     * @param confidence in the subject's matte, in [0,1]
     */
    record DepthView(
            DepthChoice.Source source,
            String origin,
            String hash,
            @Nullable Quality quality,
            @Nullable Double confidence,
            @Nullable Double nearMetres,
            @Nullable Double farMetres) {}

    /**
     * {@code state} is waiting, estimating, refining (depth can be used), ready or failed; {@code problem} says why it
     * failed, {@code notice} something about the file that stops nothing.
     */
    record ShotView(
            UUID id,
            UUID shootId,
            String name,
            String format,
            int width,
            int height,
            long bytes,
            long revision,
            Shot.State state,
            double progress,
            @Nullable String problem,
            @Nullable String notice,
            CameraView camera,
            List<DepthView> depths) {}

    record ShootName(@NotBlank @Size(max = 120) String name) {}

    record ShotName(@NotBlank @Size(max = 200) String name) {}

    private ShootView view(Shoot shoot, UUID account) {
        return new ShootView(
                shoot.id(),
                shoot.name(),
                repository.findByShootIdAndAccountIdOrderByCreated(shoot.id(), account).stream()
                        .map(shot -> view(shot))
                        .toList());
    }

    private ShotView view(Shot shot) {
        return ShotViews.of(shot, shots.depthMaps(shot.id()));
    }

    @GetMapping("/api/shoots")
    List<ShootView> all(@AuthenticationPrincipal SignedIn who) {
        return shoots.findByAccountIdOrderByCreatedDesc(who.id()).stream()
                .map(shoot -> view(shoot, who.id()))
                .toList();
    }

    @PostMapping("/api/shoots")
    @ResponseStatus(HttpStatus.CREATED)
    ShootView create(@AuthenticationPrincipal SignedIn who, @RequestBody @Valid ShootName wanted) {
        return view(shoots.save(new Shoot(who.id(), wanted.name().strip())), who.id());
    }

    @PatchMapping("/api/shoots/{id}")
    @Transactional
    ShootView rename(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid ShootName wanted) {
        Shoot shoot = ownedShoot(id, who);
        shoot.rename(wanted.name().strip());
        return view(shoot, who.id());
    }

    @DeleteMapping("/api/shoots/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        shoots.delete(ownedShoot(id, who));
    }

    private Shoot ownedShoot(UUID id, SignedIn who) {
        return shoots.findByIdAndAccountId(id, who.id()).orElseThrow(() -> new NotFoundException("shoot"));
    }

    /** Takes one photo. It is decoded before this answers, so a file that cannot be read is refused at once. */
    @PostMapping(path = "/api/shoots/{id}/shots", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    @ResponseStatus(HttpStatus.CREATED)
    ShotView bringIn(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestPart("file") MultipartFile file)
            throws IOException {
        String name = file.getOriginalFilename();
        Shot shot = shots.bringIn(who.id(), id, name == null ? "photo" : name, file.getBytes());
        depthJob.enqueue(shot.id(), accounts.depthEngine(who.id()), properties.firstDepth());
        return view(shots.byId(shot.id()));
    }

    @GetMapping("/api/shots/{id}")
    ShotView shot(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        return view(shots.owned(id, who.id()));
    }

    @PatchMapping("/api/shots/{id}")
    ShotView renameShot(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid ShotName wanted) {
        return view(shots.rename(id, who.id(), wanted.name()));
    }

    @DeleteMapping("/api/shots/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void deleteShot(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        repository.delete(shots.owned(id, who.id()));
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

    /** Brings a depth map in; the one before stays when this one does not fit. */
    @PostMapping(path = "/api/shots/{id}/depth-file", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    ShotView bringInDepth(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestPart("file") MultipartFile file)
            throws IOException {
        Shot shot = shots.owned(id, who.id());
        String name = file.getOriginalFilename();
        shots.bringInDepth(shot, name == null ? "depth" : name, file.getBytes());
        return view(shot);
    }

    /** {@code engine} is one of the installed estimators or auto; {@code quality} is draft or best. */
    record EstimateWanted(@NotNull String engine, @NotNull Quality quality) {}

    /** Estimates depth again. Until the new map is there the one before stays. */
    @PostMapping("/api/shots/{id}/depth-estimate")
    @ResponseStatus(HttpStatus.ACCEPTED)
    ShotView estimateAgain(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid EstimateWanted wanted) {
        shots.owned(id, who.id());
        engines.require(wanted.engine());
        depthJob.enqueue(id, wanted.engine(), wanted.quality());
        return view(shots.byId(id));
    }

    /** Stops the estimate that is under way. */
    @DeleteMapping("/api/shots/{id}/depth-estimate")
    ShotView cancelEstimate(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        return view(shots.cancelDepth(id, who.id()));
    }
}
