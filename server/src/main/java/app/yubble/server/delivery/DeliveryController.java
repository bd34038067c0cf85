package app.yubble.server.delivery;

import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.media.picture.ColourSpace;
import app.yubble.media.recipe.RecipeJson;
import app.yubble.server.account.SignedIn;
import app.yubble.server.mask.MaskFiles;
import app.yubble.server.paging.Page;
import app.yubble.server.problem.ConflictException;
import app.yubble.server.problem.NotFoundException;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.shoot.ClipFiles;
import app.yubble.server.shoot.Clips;
import app.yubble.server.shoot.DepthMap;
import app.yubble.server.shoot.DepthMaps;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import app.yubble.server.storage.FileStore;
import jakarta.validation.Valid;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Asking for deliveries, watching, cancelling and fetching them. */
@RestController
class DeliveryController {
    private final Deliveries deliveries;
    private final DeliveryJob job;
    private final Shots shots;
    private final DepthMaps maps;
    private final MaskFiles masks;
    private final FileStore files;
    private final ClipFiles clips;

    DeliveryController(
            Deliveries deliveries,
            DeliveryJob job,
            Shots shots,
            DepthMaps maps,
            MaskFiles masks,
            FileStore files,
            ClipFiles clips) {
        this.clips = clips;
        this.deliveries = deliveries;
        this.job = job;
        this.shots = shots;
        this.maps = maps;
        this.masks = masks;
        this.files = files;
    }

    /**
     * @param quality of what is not without loss
     * @param halvesColour see {@link DeliverySettings}, as are the three after it
     * @param frames of a clip; null for all
     */
    record NewDelivery(
            @NotBlank @Size(max = 80) String versionName,
            @NotNull Recipe recipe,
            @NotNull DeliveryFormat format,
            @DecimalMin("0.3") @DecimalMax("1") double quality,
            @Nullable @Min(16) @Max(60000) Integer longestSide,
            @Nullable Boolean halvesColour,
            @Nullable ColourSpace space,
            @Nullable Boolean keepsPlace,
            @Nullable @DecimalMin("0") @DecimalMax("1") Double sharpening,
            @Nullable @Size(max = 120) String pattern,
            @Nullable @Valid Frames frames) {
        DeliverySettings settings() {
            return new DeliverySettings(format, quality, longestSide, halvesColour, space, keepsPlace, sharpening);
        }
    }

    /** A stretch of a clip: its first frame, from 0, and the first that no longer belongs to it. */
    record Frames(@Min(0) int from, @Min(1) int end) {}

    record DeliveryView(
            UUID id,
            UUID shotId,
            String versionName,
            String fileName,
            DeliveryFormat format,
            Delivery.State state,
            double progress,
            @Nullable String problem,
            @Nullable Long bytes,
            @Nullable UUID batch,
            boolean thumbnail,
            Instant created) {
        static DeliveryView of(Delivery delivery) {
            return new DeliveryView(
                    delivery.id(),
                    delivery.shotId(),
                    delivery.versionName(),
                    delivery.fileName(),
                    delivery.format(),
                    delivery.state(),
                    delivery.progress(),
                    delivery.problem(),
                    delivery.bytes(),
                    delivery.batch(),
                    delivery.thumbnailHash() != null,
                    delivery.created() == null ? Instant.now() : delivery.created());
        }
    }

    /** The newest first. */
    @GetMapping("/api/deliveries")
    Page<DeliveryView> all(
            @AuthenticationPrincipal SignedIn who,
            @RequestParam(required = false) @Nullable UUID after,
            @RequestParam(defaultValue = "50") @Min(1) @Max(200) int count) {
        return deliveries.page(who.id(), after, count).map(DeliveryView::of);
    }

    @PostMapping("/api/shots/{shot}/deliveries")
    @ResponseStatus(HttpStatus.ACCEPTED)
    DeliveryView ask(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID shot, @RequestBody @Valid NewDelivery wanted) {
        Shot source = shots.owned(shot, who.id());
        Recipe recipe = wanted.recipe();
        masks.require(recipe, who.id());
        String depth = requireDepth(shot, recipe.depth().source());
        DeliverySettings settings = wanted.settings();
        requireKind(source, settings.format());
        String why = settings.refuses(source.size());
        if (why != null) {
            throw new RefusedException(why);
        }
        String pattern = wanted.pattern();
        String name = (pattern == null || pattern.isBlank() ? NamePattern.USUAL : new NamePattern(pattern))
                .name(new NamePattern.Words(source.name(), wanted.versionName(), "", 1, 1));
        Delivery delivery = new Delivery(
                who.id(),
                shot,
                wanted.versionName(),
                name + "." + settings.format().ending(),
                settings,
                RecipeJson.write(recipe));
        if (source.isClip()) {
            stretch(delivery, source, wanted.frames(), recipe, depth);
        }
        deliveries.add(delivery);
        job.enqueue(delivery);
        return DeliveryView.of(delivery);
    }

    /** The name of the depth's content. */
    private String requireDepth(UUID shot, DepthChoice.Source source) {
        return maps.of(shot).stream()
                .filter(map -> map.source() == source)
                .map(DepthMap::contentHash)
                .findFirst()
                .orElseThrow(() -> new ConflictException(
                        source == DepthChoice.Source.ESTIMATED
                                ? "This shot has no depth yet. Wait until it is estimated, or bring a map in."
                                : "The recipe takes depth that this shot does not have."));
    }

    static void requireKind(Shot shot, DeliveryFormat format) {
        if (shot.isClip() != format.isForClips()) {
            throw new RefusedException(
                    shot.isClip()
                            ? "A clip is delivered as a film or as pictures in a zip."
                            : "A photo is delivered as a picture.");
        }
    }

    private void stretch(Delivery delivery, Shot shot, @Nullable Frames wanted, Recipe recipe, String depthHash) {
        Integer frames = shot.frames();
        if (frames == null) {
            throw new ConflictException("This clip is still being read.");
        }
        int from = wanted == null ? 0 : wanted.from();
        int end = wanted == null ? frames : wanted.end();
        if (end > frames || from >= end) {
            throw new RefusedException(
                    "The clip has frames 0 to " + (frames - 1) + "; " + from + " to " + (end - 1) + " were asked for.");
        }
        Clips.requireMarksWithin(recipe, shot);
        if (!clips.hasDepth(depthHash, from, end)) {
            throw new ConflictException("The depth of this stretch is not there yet. Wait until it is estimated.");
        }
        delivery.stretch(from, end, depthHash);
    }

    /**
     * @param longSide of the pictures; small ones are quick
     * @param quality of the film
     */
    record NewPlaying(
            @NotNull Recipe recipe,
            @Valid @NotNull Frames frames,
            @Min(64) @Max(4096) int longSide,
            @DecimalMin("0.3") @DecimalMax("1") double quality) {}

    /** Renders a stretch of a clip so that it can be played at its own pace; the one before of the same shot is called off. */
    @PostMapping("/api/shots/{shot}/playing")
    @ResponseStatus(HttpStatus.ACCEPTED)
    DeliveryView play(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID shot, @RequestBody @Valid NewPlaying wanted) {
        Shot source = shots.owned(shot, who.id());
        Recipe recipe = wanted.recipe();
        masks.require(recipe, who.id());
        String depth = requireDepth(shot, recipe.depth().source());
        requireKind(source, DeliveryFormat.MP4);
        Delivery delivery = new Delivery(
                who.id(),
                shot,
                "",
                source.name(),
                DeliverySettings.of(DeliveryFormat.MP4, wanted.quality(), wanted.longSide()),
                RecipeJson.write(recipe));
        stretch(delivery, source, wanted.frames(), recipe, depth);
        delivery.play();
        deliveries.addPlaying(delivery);
        job.enqueue(delivery);
        return DeliveryView.of(delivery);
    }

    @GetMapping("/api/deliveries/{id}")
    DeliveryView one(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        return DeliveryView.of(deliveries.owned(id, who.id()));
    }

    /** A small picture of the result. */
    @GetMapping("/api/deliveries/{id}/thumbnail")
    ResponseEntity<Resource> thumbnail(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        Delivery delivery = deliveries.owned(id, who.id());
        String hash = delivery.thumbnailHash();
        if (hash == null) {
            throw new NotFoundException("picture");
        }
        return ResponseEntity.ok()
                .contentType(
                        delivery.format().kind() == DeliveryFormat.Kind.DEPTH
                                ? MediaType.IMAGE_PNG
                                : MediaType.IMAGE_JPEG)
                .cacheControl(CacheControl.maxAge(Duration.ofDays(1)).cachePrivate())
                .body(files.resource(hash));
    }

    @GetMapping("/api/deliveries/{id}/file")
    ResponseEntity<Resource> file(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        Delivery delivery = deliveries.owned(id, who.id());
        String hash = delivery.contentHash();
        if (hash == null) {
            throw new ConflictException("This delivery is not done yet.");
        }
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(delivery.format().mediaType()))
                .cacheControl(CacheControl.noCache().cachePrivate())
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename(delivery.fileName(), StandardCharsets.UTF_8)
                                .build()
                                .toString())
                .body(files.resource(hash));
    }

    @PostMapping("/api/deliveries/{id}/cancel")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void cancel(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        deliveries.cancel(id, who.id());
    }

    /** Tries one that failed or was cancelled again, as it was asked for. */
    @PostMapping("/api/deliveries/{id}/again")
    @ResponseStatus(HttpStatus.ACCEPTED)
    DeliveryView again(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        deliveries.again(id, who.id());
        job.enqueue(deliveries.byId(id));
        return one(who, id);
    }

    @DeleteMapping("/api/deliveries/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        deliveries.delete(id, who.id());
    }
}
