package app.yubble.core.refocus;

import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.lens.CutLight;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.touchup.KeptAt;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** What a line starts from: the picture of one moment and its depth maps. */
public interface Still {
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

    /** Whether results may be kept beyond memory; not where nobody comes back to one still among thousands. */
    default boolean isStored() {
        return false;
    }

    /** How much work its depth edges are. */
    default DepthEdges.Detail detail() {
        return DepthEdges.Detail.FINE;
    }

    /** Which pattern of grain it gets: frames of a clip get one each. */
    default int pattern() {
        return 0;
    }

    /** The picture at {@code size}, which has the full picture's shape; linear light. */
    Picture picture(Size size);

    /** Whether whoever asks for a picture may keep and modify it, because it is made anew each time. */
    default boolean handsOverPictures() {
        return false;
    }

    /** Whether it is known how much light of lamps was cut off: {@link #cutLight} has it then. */
    default boolean knowsCutLight() {
        return false;
    }

    /** As {@link CutLight} finds it in the full picture, at a smaller size. */
    default Plane cutLight(Size size) {
        throw new IllegalStateException("it is not known how much light was cut off");
    }

    /**
     * A mask that was brought in for this picture, by its hash; of any size with the picture's shape.
     *
     * @throws IllegalArgumentException when there is none
     */
    default Plane mask(String file) {
        throw new IllegalArgumentException("there is no mask file " + file.substring(0, 8) + "... for this photo");
    }

    /** Names the mask that a kept subject has here, for good; null while it is not known. */
    default @Nullable String keptId(List<KeptAt> kept) {
        return null;
    }

    /** The mask that has the name; coarse, of any size with the picture's shape. */
    default Plane kept(List<KeptAt> kept) {
        throw new IllegalStateException("the mask of a kept subject is not known");
    }

    /** The still of the same shot that is shown at a time from its first frame. A photo is the same at all times. */
    default Still at(double seconds) {
        return this;
    }

    /** The depth map of this source, of any size with the picture's shape. */
    DepthEstimate depth(DepthChoice.Source source);
}
