package app.yubble.server.editing;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.touchup.Touchup;
import app.yubble.media.picture.PictureWriter;
import app.yubble.server.account.SignedIn;
import app.yubble.server.mask.MaskFiles;
import app.yubble.server.memory.Uploads;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** What touch-ups paint: on screen, to a file and from one. */
@RestController
class MaskController {
    private final Shots shots;
    private final RefocusLine line;
    private final ShotRecipes recipes;
    private final MaskFiles masks;
    private final Drawing drawing;
    private final Uploads uploads;

    MaskController(
            Shots shots, RefocusLine line, ShotRecipes recipes, MaskFiles masks, Drawing drawing, Uploads uploads) {
        this.uploads = uploads;
        this.shots = shots;
        this.line = line;
        this.recipes = recipes;
        this.masks = masks;
        this.drawing = drawing;
    }

    /**
     * @param touchup its id
     * @param frame of a clip; null is the first
     */
    record MaskRequest(
            @NotNull Recipe recipe,
            @NotNull String touchup,
            @Nullable Integer frame) {}

    private Plane drawn(Shot shot, MaskRequest wanted, SignedIn who, Size size) {
        Recipe recipe = recipes.allowed(wanted.recipe(), who);
        Touchup touchup = recipe.touchups().stream()
                .filter(each -> each.id().equals(wanted.touchup()))
                .findFirst()
                .orElseThrow(() -> new RefusedException("There is no such touch-up in this recipe."));
        return line.mask(recipes.still(shot, wanted.frame()), recipe.depth(), touchup, size)
                .plane();
    }

    /**
     * What a touch-up paints, at up to 1024 pixels: two little-endian 32-bit integers, width and height, then for each pixel a
     * byte, 255 fully painted.
     */
    @PostMapping("/api/shots/{id}/mask")
    @ApiResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = "application/octet-stream",
                            schema = @Schema(type = "string", format = "binary")))
    ResponseEntity<byte[]> mask(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid MaskRequest wanted) {
        Shot shot = shots.owned(id, who.id());
        Plane plane = drawing.inTurn(
                who.id(), () -> drawn(shot, wanted, who, shot.size().fitting(NumberMaps.SIDE)));
        ByteBuffer out = NumberMaps.headed(plane.size(), 1);
        for (float sample : plane.samples()) {
            out.put((byte) Math.round(sample * 255));
        }
        return NumberMaps.answer(out, CacheControl.noStore());
    }

    /** What a touch-up paints, as a grey PNG of the photo's size: white is painted. */
    @PostMapping("/api/shots/{id}/mask-file")
    @ApiResponse(
            responseCode = "200",
            content = @Content(mediaType = "image/png", schema = @Schema(type = "string", format = "binary")))
    ResponseEntity<byte[]> file(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid MaskRequest wanted)
            throws IOException {
        Shot shot = shots.owned(id, who.id());
        Plane plane = drawing.inTurn(who.id(), shot.size(), Progress.NONE, () -> drawn(shot, wanted, who, shot.size()));
        ByteArrayOutputStream out = new ByteArrayOutputStream(1 << 20);
        PictureWriter.writeGrey(plane, out);
        return ResponseEntity.ok()
                .contentType(MediaType.IMAGE_PNG)
                .cacheControl(CacheControl.noStore())
                .body(out.toByteArray());
    }

    /** The name under which a recipe knows a mask file. */
    record MaskFileView(String hash) {}

    /** Brings a mask in for touch-ups to begin with: any picture of the photo's shape, white is painted. */
    @PostMapping(path = "/api/shots/{id}/masks", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    @ResponseStatus(HttpStatus.CREATED)
    MaskFileView bringIn(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestPart("file") MultipartFile file) {
        Shot shot = shots.owned(id, who.id());
        return uploads.read(
                file, "mask", (name, bytes) -> new MaskFileView(masks.bringIn(shot, who.id(), name, bytes)));
    }
}
