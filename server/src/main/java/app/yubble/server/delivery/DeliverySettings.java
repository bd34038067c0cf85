package app.yubble.server.delivery;

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
    static DeliverySettings of(DeliveryFormat format, double quality, @Nullable Integer longestSide) {
        return new DeliverySettings(format, quality, longestSide, null, null, null, null);
    }
}
