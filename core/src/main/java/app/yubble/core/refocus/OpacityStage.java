package app.yubble.core.refocus;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The effect laid over the untouched photo. */
record OpacityStage(Stage<Picture> effect, PictureStage picture, double opacity) implements SeenStage {
    @Override
    public String name() {
        return "opacity";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(effect, picture);
    }

    @Override
    public List<?> reads() {
        return List.of(opacity);
    }

    @Override
    public @Nullable Stage<Picture> passes() {
        if (opacity == 0) {
            return picture;
        }
        return opacity == 1 ? effect : null;
    }

    @Override
    public Size size() {
        return picture.size();
    }

    @Override
    public Picture make(Region part, Results taken, Progress progress) {
        Picture photo = taken.of(picture);
        Picture over = taken.of(effect, part);
        Picture out = Picture.blank(part.size());
        float share = (float) opacity;
        for (int c = 0; c < 3; c++) {
            float[] from = photo.planes().get(c).samples();
            float[] effects = over.planes().get(c).samples();
            float[] to = out.planes().get(c).samples();
            Bands.ofRows(part.height(), (first, last) -> {
                for (int y = first; y < last; y++) {
                    int row = (y + part.y()) * photo.width() + part.x();
                    for (int x = 0, i = y * part.width(); x < part.width(); x++, i++) {
                        to[i] = from[row + x] + share * (effects[i] - from[row + x]);
                    }
                }
            });
        }
        return out;
    }
}
