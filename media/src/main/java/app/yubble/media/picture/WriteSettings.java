package app.yubble.media.picture;

import org.jspecify.annotations.Nullable;

/**
 * How a picture is written.
 *
 * @param quality of what is not without loss, in [0,1]; WebP and AVIF are without loss at 1
 * @param halvesColour whether the colour of a JPEG or AVIF has half the resolution, which makes it smaller
 * @param keepsPlace whether metadata may say where the photo was taken
 * @param done what was done with it, for the history in its metadata; null for no entry
 */
public record WriteSettings(
        PictureWriter.Format format,
        double quality,
        boolean halvesColour,
        ColourSpace space,
        boolean keepsPlace,
        @Nullable String done) {
    public static WriteSettings of(PictureWriter.Format format, double quality) {
        return new WriteSettings(format, quality, false, ColourSpace.SOURCE, true, null);
    }
}
