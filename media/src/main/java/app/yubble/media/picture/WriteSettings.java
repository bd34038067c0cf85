package app.yubble.media.picture;

/**
 * How a picture is written.
 *
 * @param quality of what is not without loss, in [0,1]; WebP and AVIF are without loss at 1
 * @param halvesColour whether the colour of a JPEG or AVIF has half the resolution, which makes it smaller
 */
public record WriteSettings(PictureWriter.Format format, double quality, boolean halvesColour, Carried carried) {
    public static WriteSettings of(PictureWriter.Format format, double quality) {
        return new WriteSettings(format, quality, false, Carried.ALL);
    }
}
