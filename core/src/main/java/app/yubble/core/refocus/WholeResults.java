package app.yubble.core.refocus;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import java.nio.ByteBuffer;

/**
 * Results of whole stages: from the cache or the store, or made and kept there.
 *
 * @param mayStop called before each that is made; throws to stop
 */
record WholeResults(StageCache cache, StageStore store, Progress mayStop) implements Results {
    WholeResults(StageCache cache) {
        this(cache, StageStore.NONE, Progress.NONE);
    }

    @Override
    public <T> T of(Stage<T> stage) {
        if (stage.maker() instanceof WholeStage<T> maker) {
            return cache.get(maker.key(), maker.type(), maker::bytes, () -> {
                mayStop.at(0);
                return maker instanceof StoredStage<T> stored && stored.isStored() ? known(stored) : maker.make(this);
            });
        }
        throw new IllegalArgumentException(stage.name() + " is made for somebody who looks at it");
    }

    private <T> T known(StoredStage<T> stage) {
        String still = stage.still().id();
        ByteBuffer kept = store.find(still, stage.key());
        if (kept != null) {
            return stage.form().read().apply(kept);
        }
        T made = stage.make(this);
        store.keep(still, stage.key(), () -> stage.form().write().apply(made));
        return made;
    }

    @Override
    public Picture of(Stage<Picture> stage, Region part) {
        Picture whole = of(stage);
        return part.equals(Region.all(whole.size())) ? whole : Resample.crop(whole, part);
    }
}
