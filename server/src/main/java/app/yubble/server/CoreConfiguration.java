package app.yubble.server;

import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageCache;
import app.yubble.core.refocus.StageKey;
import app.yubble.core.subject.FaceFinder;
import app.yubble.media.picture.PictureReader;
import app.yubble.vision.DepthEngines;
import app.yubble.vision.FaceNetworks;
import app.yubble.vision.ModelFolder;
import com.github.benmanes.caffeine.cache.AsyncCache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.core.instrument.binder.cache.CaffeineCacheMetrics;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The parts of core and media that the server runs on. */
@Configuration
class CoreConfiguration {
    @Bean
    PictureReader pictureReader(YubbleProperties properties) {
        return new PictureReader(properties.mostPixels());
    }

    @Bean
    DepthEngines depthEngines(YubbleProperties properties) {
        return new DepthEngines(new ModelFolder(properties.models()));
    }

    @Bean
    FaceFinder faceFinder(YubbleProperties properties) {
        ModelFolder folder = new ModelFolder(properties.models());
        return folder.hasFaceNetworks() ? new FaceNetworks(folder) : FaceFinder.NONE;
    }

    @Bean
    RefocusLine previewLine(YubbleProperties properties, MeterRegistry meters) {
        AsyncCache<StageKey, StageCache.Kept> results = Caffeine.newBuilder()
                .maximumWeight(properties.cacheBytes())
                .weigher((StageKey key, StageCache.Kept kept) -> (int) Math.min(Integer.MAX_VALUE, kept.bytes()))
                .recordStats()
                .buildAsync();
        CaffeineCacheMetrics.monitor(meters, results, "stages");
        return new RefocusLine(new StageCache(results.asMap()));
    }
}
