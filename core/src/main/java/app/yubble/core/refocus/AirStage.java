package app.yubble.core.refocus;

import app.yubble.core.atmosphere.Air;
import app.yubble.core.atmosphere.Atmosphere;
import app.yubble.core.atmosphere.Mist;
import app.yubble.core.atmosphere.MistColour;
import app.yubble.core.lens.RadiusField;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The picture in its atmosphere, as the lens sees it. It is handed out when nothing is blurred, so what is renewed is a copy. */
record AirStage(
        PictureStage picture,
        PaintedStage nearness,
        DefocusStage defocus,
        SceneColourStage colour,
        Atmosphere atmosphere)
        implements LocalStage<Picture> {
    @Override
    public String name() {
        return "air";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(picture, nearness, defocus, colour);
    }

    @Override
    public List<?> reads() {
        return List.of(atmosphere);
    }

    @Override
    public @Nullable Stage<Picture> passes() {
        boolean toned = !atmosphere.keepsTone() && !defocus.isSharp();
        return atmosphere.mist().isNone() && !toned ? picture : null;
    }

    @Override
    public Size size() {
        return picture.size();
    }

    @Override
    public boolean isOfWholePicture() {
        return true;
    }

    private Air air(Results taken) {
        Mist mist = atmosphere.mist();
        MistColour light =
                !mist.isNone() && mist.source() == Mist.Source.SCENE ? taken.of(colour) : MistColour.of(mist);
        return new Air(atmosphere, light, size().longSide());
    }

    @Override
    public Picture make(Region part, Results taken, Progress progress) {
        RadiusField radii = taken.of(defocus);
        Plane near = taken.of(nearness).plane();
        return air(taken).of(taken.of(picture), near, radii.radii());
    }

    @Override
    public Picture makeOf(Set<Stage<?>> spare, Results taken) {
        if (!spare.contains(picture) || !picture.still().handsOverPictures()) {
            return make(Region.all(size()), taken, Progress.NONE);
        }
        Picture own = taken.of(picture);
        air(taken)
                .renew(
                        own,
                        Region.all(size()),
                        own,
                        taken.of(nearness).plane(),
                        taken.of(defocus).radii());
        return own;
    }

    @Override
    public Picture renewed(Picture own, Region part, Region stale, Results taken, Progress progress) {
        Picture out = own.copy();
        Plane near = taken.of(nearness).plane();
        air(taken).renew(out, stale, taken.of(picture), near, taken.of(defocus).radii(stale));
        return out;
    }

    @Override
    public long bytes(Picture result) {
        return result.bytes();
    }
}
