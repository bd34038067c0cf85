package app.yubble.media.depthfile;

import app.yubble.core.raster.Picture;

/** Reads pictures in linear light that is not cut at white, from OpenEXR files. */
public final class ScenePictures {
    private static final long MOST_PIXELS = 200_000_000;

    private ScenePictures() {}

    /**
     * Red, green and blue as they stand in the file.
     *
     * @throws app.yubble.media.picture.UnreadablePictureException when it is no such file
     */
    public static Picture read(byte[] exr) {
        return new ExrReader(MOST_PIXELS).readColours(exr);
    }
}
