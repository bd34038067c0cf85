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
        if (!(stage.maker() instanceof WholeStage<T> maker)) {
            throw new IllegalArgumentException(stage.name() + " is made for somebody who looks at it");
        }
        StageKey key = maker.key();
        if (!(maker instanceof StoredStage<T> stored) || !stored.isStored()) {
            return cache.get(key, maker.type(), maker::bytes, () -> made(maker));
        }
        String still = stored.still().id();
        T out = cache.get(key, maker.type(), maker::bytes, () -> {
            ByteBuffer kept = store.find(still, key);
            return kept == null ? made(maker) : stored.form().read(kept);
        });
        store.keep(still, key, stored.form().written(out));
        return out;
    }

    /** Whether a result need not be made, nor what it takes. */
    boolean isKept(Stage<?> stage) {
        return stage instanceof StoredStage<?> stored
                && stored.isStored()
                && store.has(stored.still().id(), stored.key());
    }

    private <T> T made(WholeStage<T> maker) {
        mayStop.at(0);
        return maker.make(this);
    }

    @Override
    public Picture of(Stage<Picture> stage, Region part) {
        Picture whole = of(stage);
        return part.equals(Region.all(whole.size())) ? whole : Resample.crop(whole, part);
    }
}
