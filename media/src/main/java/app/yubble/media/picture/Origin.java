package app.yubble.media.picture;

import app.yubble.core.raster.Size;
import org.jspecify.annotations.Nullable;

/**
 * What a decoded picture remembers of its file.
 *
 * @param format of the file: JPEG, PNG, TIFF or WebP
 * @param size upright, in pixels
 * @param profile the ICC profile in whose primaries the picture is, or null for sRGB
 * @param curve its tone curve
 * @param exif metadata, upright, without thumbnail, or null
 * @param camera what the metadata says about how it was taken
 */
public record Origin(
        String format,
        Size size,
        byte @Nullable [] profile,
        ToneCurve curve,
        @Nullable ExifBlock exif,
        Camera camera) {
    /** For pictures that come from no file. */
    public static Origin srgb(Size size) {
        return new Origin("PNG", size, null, ToneCurve.SRGB, null, Camera.UNKNOWN);
    }

    public Origin withSize(Size newSize) {
        return new Origin(format, newSize, profile, curve, exif, camera);
    }
}
