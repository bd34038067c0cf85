package app.yubble.media.picture;

import org.jspecify.annotations.Nullable;

/**
 * What a file says about its picture besides the pixels.
 *
 * @param exif upright, without thumbnail
 * @param xmp packet that fits the delivered picture
 * @param iptc datasets of the IPTC information interchange model
 */
public record Notes(@Nullable ExifBlock exif, byte @Nullable [] xmp, byte @Nullable [] iptc) {
    public static final Notes NONE = new Notes(null, null, null);

    /** Without where it was taken: position, and names of places. */
    public Notes withoutPlace() {
        return new Notes(
                exif == null ? null : exif.withoutPlace(),
                xmp == null ? null : XmpPacket.withoutPlace(xmp),
                iptc == null ? null : Iptc.withoutPlace(iptc));
    }

    /**
     * With a line in the history that XMP keeps of a file.
     *
     * @param what was done
     */
    public Notes withDone(String what) {
        return new Notes(exif, XmpPacket.withDone(xmp, what), iptc);
    }
}
