package app.yubble.core.refocus;

import app.yubble.core.finish.Crispness;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What is sharp, made crisper.
 *
 * @param amount on the pixels of this size
 */
record CrispStage(Stage<Picture> effect, PictureStage picture, DefocusStage defocus, NoiseStage noise, double amount)
        implements SeenStage {
    /** @param crispness of the full picture; the finest details of a smaller one were larger ones of it */
    static CrispStage of(
            Stage<Picture> effect, PictureStage picture, DefocusStage defocus, NoiseStage noise, double crispness) {
        Size full = picture.still().size();
        double scale = Math.min(1, (double) picture.size().longSide() / full.longSide());
        return new CrispStage(effect, picture, defocus, noise, crispness * scale);
    }

    @Override
    public String name() {
        return "crisp";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(effect, picture, defocus, noise);
    }

    @Override
    public List<?> reads() {
        return List.of(amount);
    }

    @Override
    public @Nullable Stage<Picture> passes() {
        return amount == 0 ? effect : null;
    }

    @Override
    public Size size() {
        return picture.size();
    }

    @Override
    public Picture make(Region part, Results taken, Progress progress) {
        Picture out = taken.of(effect, part).copy();
        Crispness.raise(
                out,
                part,
                taken.of(picture),
                taken.of(defocus).radii(part),
                taken.of(noise).noise(),
                amount);
        return out;
    }
}
