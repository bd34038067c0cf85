package app.yubble.core.refocus;

import app.yubble.core.depth.DepthTrim;
import app.yubble.core.depth.Trimming;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Nearness after the corrections of the whole map. */
record TrimmedStage(SnappedStage snapped, DepthTrim trim) implements PlaneStage {
    static TrimmedStage of(Still still, DepthChoice depth, Size size) {
        return new TrimmedStage(
                new SnappedStage(new PictureStage(still, size), new DepthStage(still, depth.source()), depth.snap()),
                depth.trim());
    }

    /** The same of another moment of the shot. */
    TrimmedStage of(Still still, Size size) {
        DepthStage depth = new DepthStage(still, snapped.depth().source());
        return new TrimmedStage(new SnappedStage(new PictureStage(still, size), depth, snapped.snap()), trim);
    }

    DepthStage depth() {
        return snapped.depth();
    }

    PictureStage picture() {
        return snapped.picture();
    }

    @Override
    public String name() {
        return "trimmed";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(snapped);
    }

    @Override
    public List<?> reads() {
        return List.of(trim);
    }

    @Override
    public @Nullable Stage<Plane> passes() {
        return trim.equals(DepthTrim.NONE) ? snapped : null;
    }

    @Override
    public Plane make(Results taken) {
        return Trimming.apply(taken.of(snapped), trim);
    }
}
