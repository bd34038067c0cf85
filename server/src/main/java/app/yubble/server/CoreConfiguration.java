package app.yubble.server;

import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageCache;
import app.yubble.core.refocus.StageKey;
import app.yubble.core.subject.FaceFinder;
import app.yubble.media.picture.PictureReader;
import app.yubble.server.memory.LastUsed;
import app.yubble.server.storage.StageFolder;
import app.yubble.vision.DepthEngines;
import app.yubble.vision.FaceNetworks;
import app.yubble.vision.ModelFolder;
import app.yubble.vision.ModelHashes;
import com.google.common.cache.Cache;
import java.util.concurrent.CompletableFuture;
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
        ModelFolder folder = new ModelFolder(properties.models());
        ModelHashes.require(folder);
        return new DepthEngines(folder);
    }

    @Bean
    FaceFinder faceFinder(YubbleProperties properties) {
        ModelFolder folder = new ModelFolder(properties.models());
        return folder.hasFaceNetworks() ? new FaceNetworks(folder) : FaceFinder.NONE;
    }

    @Bean
    RefocusLine previewLine(YubbleProperties properties, LastUsed kept, StageFolder stages) {
        Cache<StageKey, CompletableFuture<StageCache.Kept>> results =
                kept.upTo(properties.cacheBytes(), CoreConfiguration::bytes, "stages");
        return new RefocusLine(new StageCache(results.asMap()), stages);
    }

    /** What is still being made weighs nothing, and stays. */
    private static long bytes(CompletableFuture<StageCache.Kept> result) {
        return result.isDone() && !result.isCompletedExceptionally()
                ? result.join().bytes()
                : 0;
    }
}
