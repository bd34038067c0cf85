package app.yubble.core.refocus;

import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;

/**
 * What of a picture is looked at.
 *
 * @param size of the whole picture, which has the full picture's shape
 * @param part in pixels of {@code size}
 */
public record View(Size size, Region part) {
    public View {
        if (!part.within(size)) {
            throw new IllegalArgumentException(part + " is not within the picture of " + size);
        }
    }

    boolean isWhole() {
        return part.equals(Region.all(size));
    }

    /** All of it. */
    public static View of(Size size) {
        return new View(size, Region.all(size));
    }
}
