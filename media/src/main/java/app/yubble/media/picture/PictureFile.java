package app.yubble.media.picture;

import org.jspecify.annotations.Nullable;

/** A file as it was brought in. HEIF and raw files are converted when that is first needed, and once only. Safe for many threads. */
public final class PictureFile {
    private final byte[] bytes;
    private HeifTools.@Nullable Converted converted;
    private byte @Nullable [] developed;

    private PictureFile(byte[] bytes) {
        this.bytes = bytes;
    }

    /** @param bytes not to be modified afterwards */
    public static PictureFile of(byte[] bytes) {
        return new PictureFile(bytes);
    }

    public byte[] bytes() {
        return bytes;
    }

    public boolean isHeif() {
        return HeifTools.isHeif(bytes);
    }

    public boolean isRaw() {
        return RawTools.isRaw(bytes);
    }

    /**
     * What a camera's raw file shows, see {@link RawTools#developed}.
     *
     * @throws UnreadablePictureException when the tools are missing, or refuse the file
     */
    synchronized byte[] developed() {
        byte[] known = developed;
        if (known == null) {
            known = RawTools.developed(bytes);
            developed = known;
        }
        return known;
    }

    /**
     * What a HEIF or AVIF file holds, in a format that Java reads.
     *
     * @throws UnreadablePictureException when the tools are missing, or refuse the file
     */
    public synchronized HeifTools.Converted converted() {
        HeifTools.Converted known = converted;
        if (known == null) {
            known = HeifTools.convert(bytes);
            converted = known;
        }
        return known;
    }
}
