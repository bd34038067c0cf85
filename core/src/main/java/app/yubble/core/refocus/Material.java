package app.yubble.core.refocus;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;

/** What a line starts from: a shot's picture and its depth maps. */
public interface Material {
    /** Identifies the picture for good: different content has a different id. */
    String id();

    /** Identifies the depth map of this source for good. */
    String depthId(DepthChoice.Source source);

    /** Size of the full picture, upright. */
    Size size();

    /** The size of the picture that is kept ready and from which one of the size {@code wanted} is made. */
    default Size kept(Size wanted) {
        return size();
    }

    /** The picture at {@code size}, which has the full picture's shape; linear light. */
    Picture picture(Size size);

    /** The depth map of this source, of any size with the picture's shape. */
    DepthEstimate depth(DepthChoice.Source source);
}
