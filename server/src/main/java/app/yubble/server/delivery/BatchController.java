package app.yubble.server.delivery;

import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.media.recipe.RecipeJson;
import app.yubble.server.account.SignedIn;
import app.yubble.server.editing.Versions;
import app.yubble.server.mask.MaskFiles;
import app.yubble.server.problem.ConflictException;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.shoot.DepthMap;
import app.yubble.server.shoot.DepthMaps;
import app.yubble.server.shoot.Shoots;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import app.yubble.server.storage.FileStore;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Many shots delivered with the same settings, and fetched together. */
@RestController
class BatchController {
    private static final int MOST = 500;

    private final Deliveries deliveries;
    private final DeliveryJob job;
    private final Shots shots;
    private final Shoots shoots;
    private final Versions versions;
    private final DepthMaps maps;
    private final MaskFiles masks;
    private final FileStore files;

    BatchController(
            Deliveries deliveries,
            DeliveryJob job,
            Shots shots,
            Shoots shoots,
            Versions versions,
            DepthMaps maps,
            MaskFiles masks,
            FileStore files) {
        this.deliveries = deliveries;
        this.job = job;
        this.shots = shots;
        this.shoots = shoots;
        this.versions = versions;
        this.maps = maps;
        this.masks = masks;
        this.files = files;
    }

    /**
     * @param shots in the order in which they are numbered
     * @param everyVersion whether all versions of each are delivered; null for the first only
     * @param pattern of the names
     */
    record NewBatch(
            @NotEmpty @Size(max = MOST) List<@NotNull UUID> shots,
            @Nullable Boolean everyVersion,
            @Nullable @Size(max = 120) String pattern,
            @Valid @NotNull DeliverySettings settings) {
        NamePattern names() {
            return pattern == null || pattern.isBlank() ? NamePattern.USUAL : new NamePattern(pattern.strip());
        }
    }

    /** A shot that is left out, and why. */
    record LeftOut(UUID shot, String name, String why) {}

    /**
     * @param names of the files
     * @param left what cannot be delivered so
     * @param problem why it cannot be asked for as it is, or null
     */
    record BatchNames(
            List<String> names,
            List<LeftOut> left,
            @Nullable String problem) {}

    /** @param left what cannot be delivered so */
    record BatchView(UUID id, List<DeliveryController.DeliveryView> deliveries, List<LeftOut> left) {}

    private record Planned(Shot shot, String version, Recipe recipe, String fileName) {}

    private record Plan(List<Planned> planned, List<LeftOut> left) {}

    private Plan plan(NewBatch wanted, UUID account) {
        List<Planned> all = new ArrayList<>();
        List<LeftOut> left = new ArrayList<>();
        for (UUID id : wanted.shots().stream().distinct().toList()) {
            Shot shot = shots.owned(id, account);
            List<Versions.Named> named = versions.named(id, account);
            String why = reason(shot, named, wanted.settings());
            if (why != null) {
                left.add(new LeftOut(id, shot.name(), why));
                continue;
            }
            Set<DepthChoice.Source> depths =
                    maps.of(id).stream().map(DepthMap::source).collect(Collectors.toSet());
            for (Versions.Named each : Boolean.TRUE.equals(wanted.everyVersion()) ? named : named.subList(0, 1)) {
                if (depths.contains(each.recipe().depth().source())) {
                    all.add(new Planned(shot, each.name(), each.recipe(), ""));
                } else {
                    left.add(new LeftOut(id, shot.name(), each.name() + " takes depth that this shot does not have."));
                }
            }
        }
        if (all.size() > MOST) {
            throw new RefusedException(
                    "At most " + MOST + " files are delivered at once; these are " + all.size() + ".");
        }
        Map<UUID, String> shootNames = new HashMap<>();
        List<Planned> out = new ArrayList<>();
        for (Planned each : all) {
            String shoot = shootNames.computeIfAbsent(each.shot().shootId(), id -> shoots.nameOf(id, account));
            String name = wanted.names()
                    .name(new NamePattern.Words(each.shot().name(), each.version(), shoot, out.size() + 1, all.size()));
            out.add(new Planned(
                    each.shot(),
                    each.version(),
                    each.recipe(),
                    name + "." + wanted.settings().format().ending()));
        }
        return new Plan(out, left);
    }

    private static @Nullable String reason(Shot shot, List<Versions.Named> named, DeliverySettings settings) {
        if (shot.isClip()) {
            return "It is a clip; clips are delivered from the Bench.";
        }
        if (settings.format().isForClips()) {
            return "It is a photo.";
        }
        return named.isEmpty() ? "It has no depth yet." : settings.refuses(shot.size());
    }

    private static @Nullable String twice(List<Planned> all) {
        Map<String, Planned> seen = new HashMap<>();
        for (Planned each : all) {
            Planned before = seen.put(each.fileName().toLowerCase(Locale.ROOT), each);
            if (before != null) {
                return "\u201c" + each.fileName()
                        + "\u201d would be the name of two files. Put {photo}, {version} or {number} into the"
                        + " pattern.";
            }
        }
        return all.isEmpty() ? "Nothing of this can be delivered so." : null;
    }

    /** How the files of a batch would be named. Asks for nothing. */
    @PostMapping("/api/batches/names")
    BatchNames names(@AuthenticationPrincipal SignedIn who, @RequestBody @Valid NewBatch wanted) {
        Plan plan = plan(wanted, who.id());
        return new BatchNames(
                plan.planned().stream().map(Planned::fileName).toList(), plan.left(), twice(plan.planned()));
    }

    /** Delivers many shots; those that cannot be delivered so are left out and named. */
    @PostMapping("/api/batches")
    @ResponseStatus(HttpStatus.ACCEPTED)
    BatchView ask(@AuthenticationPrincipal SignedIn who, @RequestBody @Valid NewBatch wanted) {
        Plan plan = plan(wanted, who.id());
        String problem = twice(plan.planned());
        if (problem != null) {
            throw new RefusedException(problem);
        }
        UUID batch = UUID.randomUUID();
        List<Delivery> all = new ArrayList<>();
        for (Planned each : plan.planned()) {
            masks.require(each.recipe(), who.id());
            Delivery delivery = new Delivery(
                    who.id(),
                    each.shot().id(),
                    each.version(),
                    each.fileName(),
                    wanted.settings(),
                    RecipeJson.write(each.recipe()));
            delivery.belongTo(batch);
            all.add(delivery);
        }
        deliveries.addAll(all);
        all.forEach(each -> job.enqueue(each));
        return new BatchView(
                batch, all.stream().map(DeliveryController.DeliveryView::of).toList(), plan.left());
    }

    /** What a batch consists of. */
    @GetMapping("/api/batches/{batch}")
    List<DeliveryController.DeliveryView> one(@AuthenticationPrincipal SignedIn who, @PathVariable UUID batch) {
        return deliveries.of(batch, who.id()).stream()
                .map(DeliveryController.DeliveryView::of)
                .toList();
    }

    /** What is done of a batch as one zip, sent while it is put together. */
    @GetMapping("/api/batches/{batch}/zip")
    void zip(@AuthenticationPrincipal SignedIn who, @PathVariable UUID batch, HttpServletResponse response)
            throws IOException {
        List<Delivery> done = deliveries.of(batch, who.id()).stream()
                .filter(each -> each.contentHash() != null)
                .toList();
        if (done.isEmpty()) {
            throw new ConflictException("Nothing of this is done yet, so there is nothing to put into a zip.");
        }
        response.setContentType("application/zip");
        response.setHeader(
                HttpHeaders.CONTENT_DISPOSITION,
                ContentDisposition.attachment()
                        .filename("deliveries.zip", StandardCharsets.UTF_8)
                        .build()
                        .toString());
        try (ZipOutputStream zip = new ZipOutputStream(response.getOutputStream())) {
            // Pictures are packed already.
            zip.setLevel(Deflater.NO_COMPRESSION);
            for (Delivery each : done) {
                zip.putNextEntry(new ZipEntry(each.fileName()));
                try (InputStream in = files.open(String.valueOf(each.contentHash()))) {
                    in.transferTo(zip);
                }
                zip.closeEntry();
            }
        }
    }
}
