package app.yubble.media.picture;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;

/** Turns what is stored beside a photo the way the photo is turned. */
public final class Upright {
    private Upright() {}

    /** @param photo the file whose EXIF orientation counts */
    public static Plane of(Plane stored, byte[] photo) {
        int turn = PictureReader.orientation(photo);
        if (turn == 1) {
            return stored;
        }
        int width = stored.width();
        int height = stored.height();
        Plane out = new Plane(turn >= 5 ? new Size(height, width) : stored.size());
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                out.samples()[PictureReader.turned(x, y, width, height, turn)] = stored.at(x, y);
            }
        }
        return out;
    }
}
