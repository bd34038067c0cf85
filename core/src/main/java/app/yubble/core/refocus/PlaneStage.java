package app.yubble.core.refocus;

import app.yubble.core.raster.Plane;

/** A step that makes one value for every pixel. */
interface PlaneStage extends WholeStage<Plane> {
    @Override
    default Class<Plane> type() {
        return Plane.class;
    }

    @Override
    default long bytes(Plane result) {
        return result.bytes();
    }
}
