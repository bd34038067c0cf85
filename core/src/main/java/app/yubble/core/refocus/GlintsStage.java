package app.yubble.core.refocus;

import app.yubble.core.lens.Glints;
import app.yubble.core.raster.Plane;
import java.util.List;

/** How much each pixel's light is lifted before it is blurred. */
record GlintsStage(PictureStage picture, Glints glints) implements PlaneStage {
    @Override
    public String name() {
        return "glints";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(picture);
    }

    @Override
    public List<?> reads() {
        return List.of(glints);
    }

    @Override
    public Plane make(Results taken) {
        return glints.lift(taken.of(picture));
    }
}
