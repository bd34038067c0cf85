package app.yubble.server.shoot;

import app.yubble.core.clip.Moment;
import app.yubble.media.clip.ClipSheet;
import app.yubble.media.clip.DepthPack;
import app.yubble.server.account.SignedIn;
import app.yubble.server.problem.NotFoundException;
import app.yubble.server.storage.FileStore;
import java.time.Duration;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** What the timeline of a clip shows. */
@RestController
class ClipController {
    private final Shots shots;
    private final ClipFiles clips;
    private final DepthMaps maps;
    private final FileStore files;

    ClipController(Shots shots, ClipFiles clips, DepthMaps maps, FileStore files) {
        this.shots = shots;
        this.clips = clips;
        this.maps = maps;
        this.files = files;
    }

    /**
     * A clip's time.
     *
     * @param micros the time of each frame, in millionths of a second from the first
     * @param lasts how long all of it is
     * @param cuts frames that are the first after a cut
     * @param thumbnails how many lie side by side in the strip, evenly spread over the frames
     * @param sound whether there is any
     */
    record ClipView(List<Long> micros, long lasts, List<Integer> cuts, int thumbnails, boolean sound) {}

    @GetMapping("/api/shots/{id}/clip")
    ClipView clip(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        Shot shot = owned(id, who);
        ClipSheet sheet = clips.sheet(shot);
        List<Long> micros = sheet.moments().stream().map(Moment::micros).toList();
        Integer count = shot.stripCount();
        return new ClipView(
                micros,
                sheet.totalMicros(),
                sheet.cuts(),
                count == null ? 1 : count,
                !sheet.info().sounds().isEmpty());
    }

    /** @param packs stretches of {@code frames} frames, by number, whose depth is there */
    record DepthProgress(int frames, List<Integer> packs) {}

    /** Which stretches of a clip have depth: all frames of theirs, at the scale of the whole. */
    @GetMapping("/api/shots/{id}/clip-depth")
    DepthProgress depth(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        Shot shot = owned(id, who);
        List<Integer> packs = maps.of(shot.id()).stream()
                .flatMap(map -> clips.index(map.contentHash()).settled().keySet().stream())
                .distinct()
                .sorted()
                .toList();
        return new DepthProgress(DepthPack.FRAMES, packs);
    }

    private Shot owned(UUID id, SignedIn who) {
        Shot shot = shots.owned(id, who.id());
        if (!shot.isClip()) {
            throw new NotFoundException("clip");
        }
        return shot;
    }

    /** Thumbnails side by side, a JPEG. */
    @GetMapping("/api/shots/{id}/strip")
    ResponseEntity<Resource> strip(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        return file(owned(id, who).stripHash(), MediaType.IMAGE_JPEG);
    }

    /** A small film of the untouched clip with which one gets to any frame quickly. Parts of it may be asked for. */
    @GetMapping("/api/shots/{id}/small-film")
    ResponseEntity<Resource> film(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        return file(owned(id, who).proxyHash(), MediaType.parseMediaType("video/mp4"));
    }

    private ResponseEntity<Resource> file(@Nullable String hash, MediaType type) {
        if (hash == null) {
            throw new NotFoundException("file of this clip yet");
        }
        return ResponseEntity.ok()
                .contentType(type)
                .cacheControl(CacheControl.maxAge(Duration.ofDays(30)).cachePrivate())
                .eTag(hash)
                .body(files.resource(hash));
    }
}
