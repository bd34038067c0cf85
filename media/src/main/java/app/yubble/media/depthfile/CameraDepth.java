package app.yubble.media.depthfile;

import app.yubble.core.raster.Plane;
import org.jspecify.annotations.Nullable;

/**
 * Depth that a camera stored in its photo.
 *
 * @param nearness in [0,1], upright like the photo
 * @param format in which it was stored, in words
 * @param nearMetres distance at nearness 1; null when the file does not say
 * @param farMetres distance at nearness 0; null when the file does not say
 */
public record CameraDepth(
        Plane nearness,
        String format,
        @Nullable Double nearMetres,
        @Nullable Double farMetres) {}
