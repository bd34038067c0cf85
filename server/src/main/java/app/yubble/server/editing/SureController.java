package app.yubble.server.editing;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.server.account.SignedIn;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import java.nio.ByteBuffer;
import java.util.UUID;
import org.springframework.http.CacheControl;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** How sure depth is. */
@RestController
class SureController {
    /** Longer side: the network does not tell it any finer. */
    private static final int SIDE = 128;

    private final Shots shots;
    private final ShotRecipes recipes;

    SureController(Shots shots, ShotRecipes recipes) {
        this.shots = shots;
        this.recipes = recipes;
    }

    /**
     * How probably the estimate is right, at up to 128 pixels: two little-endian 32-bit integers, width and height, then for each pixel a
     * byte from 0 to 255. Nothing where that cannot be told, as of clips.
     */
    @GetMapping("/api/shots/{id}/sure")
    @ApiResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = "application/octet-stream",
                            schema = @Schema(type = "string", format = "binary")))
    ResponseEntity<byte[]> sure(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        Shot shot = shots.owned(id, who.id());
        Plane sure = shot.isClip()
                ? null
                : recipes.still(shot, null).depth(DepthChoice.Source.ESTIMATED).sure();
        if (sure == null) {
            return ResponseEntity.noContent().build();
        }
        Size size = shot.size().fitting(SIDE);
        ByteBuffer out = NumberMaps.headed(size, 1);
        for (float each : Resample.toSize(sure, size).samples()) {
            out.put((byte) Math.round(255 * Math.max(0, Math.min(1, each))));
        }
        return NumberMaps.answer(out, CacheControl.noCache().cachePrivate());
    }
}
