package app.yubble.core.depth;

import app.yubble.core.raster.Size;

/** A depth map whose aspect ratio is not its picture's. */
public final class DepthShapeException extends IllegalArgumentException {
    private static final long serialVersionUID = 1L;

    public DepthShapeException(Size depth, Size picture) {
        super(String.format(
                java.util.Locale.ROOT,
                "the depth map is %s (%.3f : 1) but the photo is %s (%.3f : 1); both must have one shape",
                depth,
                (double) depth.width() / depth.height(),
                picture,
                (double) picture.width() / picture.height()));
    }
}
