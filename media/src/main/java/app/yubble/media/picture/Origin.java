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
 * @param notes upright, without thumbnail
 * @param camera what the metadata says about how it was taken
 * @param bits of a sample, 8 or 16
 */
public record Origin(
        String format, Size size, byte @Nullable [] profile, ToneCurve curve, Notes notes, Camera camera, int bits) {
    /** Without metadata, of eight bits. */
    public Origin(String format, Size size, byte @Nullable [] profile, ToneCurve curve, Camera camera) {
        this(format, size, profile, curve, Notes.NONE, camera, 8);
    }

    /** For pictures that come from no file. */
    public static Origin srgb(Size size) {
        return new Origin("PNG", size, null, ToneCurve.SRGB, Camera.UNKNOWN);
    }

    public Origin withSize(Size newSize) {
        return new Origin(format, newSize, profile, curve, notes, camera, bits);
    }

    Origin withFormat(String newFormat) {
        return new Origin(newFormat, size, profile, curve, notes, camera, bits);
    }

    Origin withColours(byte @Nullable [] newProfile, ToneCurve newCurve) {
        return new Origin(format, size, newProfile, newCurve, notes, camera, bits);
    }

    public Origin withNotes(Notes newNotes) {
        return new Origin(format, size, profile, curve, newNotes, camera, bits);
    }

    public boolean isDeep() {
        return bits > 8;
    }
}
