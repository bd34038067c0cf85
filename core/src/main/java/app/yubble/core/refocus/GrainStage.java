package app.yubble.core.refocus;

import app.yubble.core.finish.Grain;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The photo's noise where the blur took it.
 *
 * @param pattern of the still
 */
record GrainStage(Stage<Picture> effect, DefocusStage defocus, NoiseStage noise, double share, int pattern)
        implements SeenStage {
    @Override
    public String name() {
        return "grain";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(effect, defocus, noise);
    }

    @Override
    public List<?> reads() {
        return List.of(share, pattern);
    }

    @Override
    public @Nullable Stage<Picture> passes() {
        return share == 0 || defocus.isSharp() ? effect : null;
    }

    @Override
    public Size size() {
        return defocus.size();
    }

    @Override
    public Picture make(Region part, Results taken, Progress progress) {
        Grain grain = taken.of(noise);
        return grain.over(taken.of(effect, part), part, taken.of(defocus).radii(part), share, pattern);
    }
}
