package app.yubble.server.storage;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureWriter;
import java.io.IOException;
import java.io.UncheckedIOException;
import org.springframework.stereotype.Component;

/** Pictures and maps that the application makes itself, as files. */
@Component
public class StoredPictures {
    /** Of small pictures that are only looked at. */
    private static final double QUALITY = 0.85;

    private final FileStore files;

    StoredPictures(FileStore files) {
        this.files = files;
    }

    /** Stores a picture with the profile of the one that it was made from; gives its hash. */
    public String put(Picture picture, Origin origin, PictureWriter.Format format) {
        return put(out -> PictureWriter.write(picture, origin.withSize(picture.size()), format, QUALITY, out));
    }

    /** Stores a map as 16-bit grey PNG. */
    public String put(Plane plane) {
        return put(out -> PictureWriter.writeGrey(plane, out));
    }

    private String put(FileStore.Writing writing) {
        try {
            return files.put(writing).hash();
        } catch (IOException e) {
            throw new UncheckedIOException("a picture could not be stored", e);
        }
    }
}
