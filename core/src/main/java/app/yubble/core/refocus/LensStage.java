package app.yubble.core.refocus;

import app.yubble.core.lens.Disc;
import app.yubble.core.lens.LensRender;
import app.yubble.core.lens.RadiusField;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** What the lens makes of the picture. */
record LensStage(Stage<Picture> picture, GlintsStage glints, DefocusStage defocus, Disc disc) implements SeenStage {
    /** Parts whose sides are multiples of this many pixels often have one size, and then the lens uses its memory again. */
    private static final int GRID = 64;

    @Override
    public String name() {
        return "lens";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(picture, glints, defocus);
    }

    @Override
    public List<?> reads() {
        return List.of(disc);
    }

    @Override
    public @Nullable Stage<Picture> passes() {
        return defocus.isSharp() ? picture : null;
    }

    @Override
    public Size size() {
        return defocus.size();
    }

    @Override
    public Region reach(Region changed, Results taken) {
        return taken.of(defocus).seenFrom(changed, disc);
    }

    /** All steps of radius depend on the largest. */
    @Override
    public Object everywhere(Results taken) {
        return taken.of(defocus).largest();
    }

    @Override
    public Picture make(Region part, Results taken, Progress progress) {
        RadiusField field = taken.of(defocus);
        return LensRender.render(taken.of(picture), field, disc, taken.of(glints), part, progress);
    }

    @Override
    public Region drawn(Region stale, Region part) {
        int width = Math.min(part.width(), (stale.width() + GRID - 1) / GRID * GRID);
        int height = Math.min(part.height(), (stale.height() + GRID - 1) / GRID * GRID);
        int x = Math.min(stale.x(), part.x() + part.width() - width);
        int y = Math.min(stale.y(), part.y() + part.height() - height);
        return new Region(x, y, width, height);
    }
}
