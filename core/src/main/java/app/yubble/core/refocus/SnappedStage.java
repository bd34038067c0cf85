package app.yubble.core.refocus;

import app.yubble.core.depth.DepthEdges;
import app.yubble.core.raster.Plane;
import java.util.List;

/** Nearness of every pixel, its edges on the picture's edges. */
record SnappedStage(PictureStage picture, DepthStage depth, double snap) implements PlaneStage, StoredStage<Plane> {
    @Override
    public Still still() {
        return picture.still();
    }

    @Override
    public Form<Plane> form() {
        return Form.PLANE;
    }

    @Override
    public String name() {
        return "snapped";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(picture, depth);
    }

    @Override
    public List<?> reads() {
        return List.of(snap, depth.still().detail());
    }

    @Override
    public Plane make(Results taken) {
        return DepthEdges.follow(
                taken.of(depth), taken.of(picture), snap, depth.still().detail());
    }
}
