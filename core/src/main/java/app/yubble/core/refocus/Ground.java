package app.yubble.core.refocus;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.touchup.Canvas;

/** What touch-ups are painted on: the picture and its nearness before any of them, at every size. */
record Ground(Still still, DepthChoice depth, Results results) implements Canvas {
    @Override
    public Picture picture(Size size) {
        return results.of(new PictureStage(still, size));
    }

    @Override
    public Plane nearness(Size size) {
        return results.of(LadderedStage.of(still, depth, size));
    }

    /** Of all that can be seen of it at a size. */
    StageKey key(Size size) {
        return LadderedStage.of(still, depth, size).key().then("ground", size);
    }
}
