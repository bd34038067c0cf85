package app.yubble.server.delivery;

import app.yubble.core.raster.Size;
import app.yubble.media.picture.ColourSpace;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import org.jspecify.annotations.Nullable;

/**
 * How a shot is delivered.
 *
 * @param quality of what is not without loss; WebP and AVIF lose nothing at 1
 * @param longestSide in pixels; null for the shot's own size
 * @param halvesColour whether the colour of a JPEG or AVIF has half the resolution; null for no
 * @param space null for that of the photo
 * @param keepsPlace whether the metadata may say where the photo was taken; null for yes
 * @param sharpening of a picture that is made smaller, in [0,1]; null for none
 */
record DeliverySettings(
        @NotNull DeliveryFormat format,
        @DecimalMin("0.3") @DecimalMax("1") double quality,
        @Nullable @Min(16) @Max(60000) Integer longestSide,
        @Nullable Boolean halvesColour,
        @Nullable ColourSpace space,
        @Nullable Boolean keepsPlace,
        @Nullable @DecimalMin("0") @DecimalMax("1") Double sharpening) {
    /** Pixels of a photo whose layers are written: they take several times the memory of a flat picture. */
    private static final long MOST_LAYERED = 50_000_000;

    /** Of what is made of a photo of this size. */
    Size size(Size photo) {
        return longestSide == null ? photo : photo.fitting(longestSide);
    }

    /** Why a photo of this size cannot be delivered so, in a sentence; null when it can. */
    @Nullable
    String refuses(Size photo) {
        return format.kind() == DeliveryFormat.Kind.LAYERS && photo.pixels() > MOST_LAYERED
                ? "Layers are delivered of photos of up to " + MOST_LAYERED / 1_000_000
                        + " megapixels. Deliver this one flat, or bring it in smaller."
                : null;
    }

    static DeliverySettings of(DeliveryFormat format, double quality, @Nullable Integer longestSide) {
        return new DeliverySettings(format, quality, longestSide, null, null, null, null);
    }
}
