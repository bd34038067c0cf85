package app.yubble.core.refocus;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;

/**
 * Results of whole stages: from the cache, or made and kept there.
 *
 * @param mayStop called before each that is made; throws to stop
 */
record WholeResults(StageCache cache, Progress mayStop) implements Results {
    WholeResults(StageCache cache) {
        this(cache, Progress.NONE);
    }

    @Override
    public <T> T of(Stage<T> stage) {
        if (stage.maker() instanceof WholeStage<T> maker) {
            return cache.get(maker.key(), maker.type(), maker::bytes, () -> {
                mayStop.at(0);
                return maker.make(this);
            });
        }
        throw new IllegalArgumentException(stage.name() + " is made for somebody who looks at it");
    }

    @Override
    public Picture of(Stage<Picture> stage, Region part) {
        Picture whole = of(stage);
        return part.equals(Region.all(whole.size())) ? whole : Resample.crop(whole, part);
    }
}
