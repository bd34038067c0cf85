package app.yubble.core.depth;

import app.yubble.core.raster.GuidedFilter;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;

/** Brings a depth map to the size of its picture. */
public final class DepthScaling {
    private static final float EPSILON = 0.001f;

    private DepthScaling() {}

    /** An estimate: refitted to the picture's own edges at the new size. */
    public static Plane alongEdges(Plane nearness, Picture picture) {
        if (!nearness.size().hasShapeOf(picture.size())) {
            throw new DepthShapeException(nearness.size(), picture.size());
        }
        Plane guide = picture.lightness();
        Plane smallGuide = Resample.toSize(
                guide, nearness.size().longSide() < guide.size().longSide() ? nearness.size() : guide.size());
        Plane fitted = Resample.toSize(nearness, smallGuide.size());
        int radius = Math.max(1, smallGuide.size().longSide() / 200);
        return GuidedFilter.fit(smallGuide, fitted, radius, EPSILON).apply(guide);
    }

    /** A map that was measured or made: the sample under each pixel, no new depths. */
    public static Plane asGiven(Plane nearness, Picture picture) {
        if (!nearness.size().hasShapeOf(picture.size())) {
            throw new DepthShapeException(nearness.size(), picture.size());
        }
        return Resample.pick(nearness, picture.size());
    }

    /** White far instead of white near. */
    public static Plane flipped(Plane nearness) {
        Plane out = new Plane(nearness.size());
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = 1 - nearness.samples()[i];
        }
        return out;
    }
}
