package app.yubble.server.arrival;

import app.yubble.server.account.SignedIn;
import app.yubble.server.memory.Uploads;
import app.yubble.server.shoot.ShotView;
import app.yubble.server.shoot.ShotViews;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** Photos and clips on their way in. */
@RestController
class ArrivalController {
    private final Arrivals arrivals;
    private final ShotViews views;
    private final Uploads uploads;

    ArrivalController(Arrivals arrivals, ShotViews views, Uploads uploads) {
        this.uploads = uploads;
        this.arrivals = arrivals;
        this.views = views;
    }

    /** Takes one photo. It is decoded before this answers. */
    @PostMapping(path = "/api/shoots/{id}/shots", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    @ResponseStatus(HttpStatus.CREATED)
    ShotView bringIn(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestPart("file") MultipartFile file) {
        return views.of(uploads.read(file, "photo", (name, bytes) -> arrivals.bringIn(who.id(), id, name, bytes)));
    }

    /** Takes a retouched file of the same shape for a photo that is there; what was worked on it stays. */
    @PostMapping(path = "/api/shots/{id}/source", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    ShotView replace(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestPart("file") MultipartFile file) {
        return views.of(uploads.read(file, "photo", (name, bytes) -> arrivals.replace(who.id(), id, name, bytes)));
    }

    /** Takes one clip, whose file is the body. It is stored as it comes in; that it is a clip is known before this answers. */
    @PostMapping(path = "/api/shoots/{id}/clips", consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    @ResponseStatus(HttpStatus.CREATED)
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
        return views.of(
                arrivals.bringInClip(who.id(), id, name, request.getInputStream(), request.getContentLengthLong()));
    }
}
