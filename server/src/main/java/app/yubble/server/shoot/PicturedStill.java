package app.yubble.server.shoot;

import app.yubble.core.clip.Moment;
import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.touchup.KeptAt;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** A moment whose picture has been decoded already, because frames were read one after the other. */
public record PicturedStill(ShotStill still, Picture decoded, DepthEdges.Detail detail) implements ShotStill {
    @Override
    public Moment moment() {
        return still.moment();
    }

    @Override
    public @Nullable Plane clearMatte() {
        return still.clearMatte();
    }

    @Override
    public String id() {
        return still.id();
    }

    @Override
    public String depthId(DepthChoice.Source source) {
        return still.depthId(source);
    }

    @Override
    public Size size() {
        return still.size();
    }

    @Override
    public Picture picture(Size size) {
        return Resample.toSize(decoded, size);
    }

    /** Undecoded, also at its own moment: what stands there is the same for all frames. */
    @Override
    public ShotStill at(double seconds) {
        return still.at(seconds);
    }

    @Override
    public DepthEstimate depth(DepthChoice.Source source) {
        return still.depth(source);
    }

    @Override
    public Plane mask(String file) {
        return still.mask(file);
    }

    @Override
    public @Nullable String keptId(List<KeptAt> kept) {
        return still.keptId(kept);
    }

    @Override
    public Plane kept(List<KeptAt> kept) {
        return still.kept(kept);
    }
}
