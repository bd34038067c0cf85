package app.yubble.server.editing;

import app.yubble.core.focus.FocusFinder;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.PictureWriter;
import app.yubble.media.recipe.RecipeDocument;
import app.yubble.server.account.SignedIn;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotMaterial;
import app.yubble.server.shoot.Shots;
import app.yubble.server.storage.FileStore;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.time.Duration;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What the Bench draws: previews, the untouched photo, and nearness. */
@RestController
class PreviewController {
    private static final int DEPTH_SIDE = 1024;
    private static final double QUALITY = 0.9;

    private final Shots shots;
    private final RefocusLine line;
    private final FileStore files;
    private final PictureReader reader;
    private final PreviewDesk desk;
    private final Origins origins;

    PreviewController(
            Shots shots, RefocusLine line, FileStore files, PictureReader reader, PreviewDesk desk, Origins origins) {
        this.shots = shots;
        this.line = line;
        this.files = files;
        this.reader = reader;
        this.desk = desk;
        this.origins = origins;
    }

    /**
     * @param longSide of the whole picture in pixels, at most 2560
     * @param page names the open page; of its requests only the one with the highest number is answered
     */
    record PreviewRequest(
            @NotNull RecipeDocument recipe,
            @Min(16) @Max(Shots.PROXY_SIDE) int longSide,

            @NotNull @jakarta.validation.constraints.Size(min = 1, max = 64)
            String page,

            long number) {}

    /** Where to focus: {@code subject}, or a {@code spot} or {@code patch} in shares of width and height. */
    record FocusRequest(
            @NotNull String kind, @NotNull RecipeDocument recipe, double x, double y, double width, double height) {}

    private ShotMaterial material(Shot shot) {
        return new ShotMaterial(shot, shots.depthMaps(shot.id()), files, reader);
    }

    /** A JPEG of the result, or 204 when the same page has asked for a newer one. */
    @PostMapping("/api/shots/{id}/preview")
    @ApiResponse(
            responseCode = "200",
            content = @Content(mediaType = "image/jpeg", schema = @Schema(type = "string", format = "binary")))
    ResponseEntity<byte[]> preview(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid PreviewRequest wanted)
            throws IOException {
        long start = System.nanoTime();
        Shot shot = shots.owned(id, who.id());
        Recipe recipe = wanted.recipe().toRecipe();
        Progress ticket = desk.ticket(who.id(), wanted.page(), wanted.number());
        try {
            ticket.at(0);
            Size size = shot.size().fitting(wanted.longSide());
            Picture result = line.render(material(shot), recipe, size, ticket);
            byte[] jpeg = jpeg(result, shot);
            return ResponseEntity.ok()
                    .contentType(MediaType.IMAGE_JPEG)
                    .cacheControl(CacheControl.noStore())
                    .header("Server-Timing", "preview;dur=" + (System.nanoTime() - start) / 1_000_000)
                    .body(jpeg);
        } catch (CancellationException superseded) {
            return ResponseEntity.noContent().build();
        }
    }

    /** The untouched photo at a size; for {@code hash} see the shot. It never changes, so it may be kept. */
    @GetMapping("/api/shots/{id}/photo")
    @ApiResponse(
            responseCode = "200",
            content = @Content(mediaType = "image/jpeg", schema = @Schema(type = "string", format = "binary")))
    ResponseEntity<byte[]> photo(
            @AuthenticationPrincipal SignedIn who,
            @PathVariable UUID id,
            @RequestParam @Min(16) @Max(2560) int longSide)
            throws IOException {
        Shot shot = shots.owned(id, who.id());
        Picture picture = line.picture(material(shot), shot.size().fitting(longSide));
        return ResponseEntity.ok()
                .contentType(MediaType.IMAGE_JPEG)
                .cacheControl(CacheControl.maxAge(Duration.ofDays(30)).cachePrivate())
                .body(jpeg(picture, shot));
    }

    // The profile stays with the preview, so that the browser shows the photo's own colours.
    private byte[] jpeg(Picture picture, Shot shot) throws IOException {
        Origin origin = origins.of(shot);
        ByteArrayOutputStream out = new ByteArrayOutputStream(1 << 18);
        Origin plain = new Origin("JPEG", picture.size(), origin.profile(), origin.curve(), null, origin.camera());
        PictureWriter.write(picture, plain, PictureWriter.Format.JPEG, QUALITY, out);
        return out.toByteArray();
    }

    /**
     * Nearness of every pixel at up to 1024 pixels: two 32-bit integers, width and height, then one 16-bit integer for
     * each pixel, 65535 nearest; all little-endian.
     */
    @PostMapping("/api/shots/{id}/nearness")
    @ApiResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = "application/octet-stream",
                            schema = @Schema(type = "string", format = "binary")))
    ResponseEntity<byte[]> nearness(
            @AuthenticationPrincipal SignedIn who,
            @PathVariable UUID id,
            @RequestBody RecipeDocument.@Valid DepthPart wanted) {
        Shot shot = shots.owned(id, who.id());
        Plane plane = line.nearness(material(shot), choice(wanted), shot.size().fitting(DEPTH_SIDE));
        ByteBuffer out = ByteBuffer.allocate(8 + 2 * plane.samples().length).order(ByteOrder.LITTLE_ENDIAN);
        out.putInt(plane.width()).putInt(plane.height());
        for (float sample : plane.samples()) {
            out.putShort((short) Math.round(sample * 65535));
        }
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_OCTET_STREAM)
                .cacheControl(CacheControl.noStore())
                .body(out.array());
    }

    private static DepthChoice choice(RecipeDocument.DepthPart wanted) {
        try {
            return wanted.toChoice();
        } catch (IllegalArgumentException fault) {
            throw new RefusedException(fault.getMessage());
        }
    }

    /** The sharp band for a place. */
    @PostMapping("/api/shots/{id}/focus")
    RecipeDocument.BandPart focus(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid FocusRequest wanted) {
        Shot shot = shots.owned(id, who.id());
        ShotMaterial material = material(shot);
        DepthChoice depth = wanted.recipe().toRecipe().depth();
        Size size = shot.size().fitting(DEPTH_SIDE);
        Plane plane = line.nearness(material, depth, size);
        double x = wanted.x() * size.width();
        double y = wanted.y() * size.height();
        SharpBand band = switch (wanted.kind()) {
            case "subject" -> FocusFinder.subject(line.picture(material, size), plane, material.clearMatte());
            case "spot" -> FocusFinder.spot(plane, x, y);
            case "patch" ->
                FocusFinder.patch(plane, x, y, wanted.width() * size.width(), wanted.height() * size.height());
            default ->
                throw new RefusedException("Focus on a subject, a spot or a patch; found \"" + wanted.kind() + "\".");
        };
        return new RecipeDocument.BandPart(band.near(), band.far(), band.nearFalloff(), band.farFalloff());
    }
}
