package app.yubble.core.refocus;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import app.yubble.core.touchup.Painting;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The untouched photo where it is to come back. */
record RevealedStage(Stage<Picture> effect, PictureStage picture, List<Painted> reveals) implements SeenStage {
    @Override
    public String name() {
        return "revealed";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(effect, picture);
    }

    @Override
    public List<?> reads() {
        return reveals.stream().map(Painted::touchup).toList();
    }

    @Override
    public @Nullable Stage<Picture> passes() {
        return reveals.isEmpty() ? effect : null;
    }

    @Override
    public Size size() {
        return picture.size();
    }

    @Override
    public @Nullable Region differs(LocalStage<Picture> before) {
        return Painted.difference(((RevealedStage) before).reveals, reveals, (a, b) -> a.strength() == b.strength());
    }

    @Override
    public Picture make(Region part, Results taken, Progress progress) {
        Picture out = taken.of(effect, part).copy();
        Picture photo = taken.of(picture);
        for (Painted each : reveals) {
            Painting.reveal(out, photo, part, each.touchup(), each.mask());
        }
        return out;
    }

    @Override
    public long bytes(Picture result) {
        return result.bytes() + Painted.bytes(reveals);
    }
}
