package app.yubble.server.shoot;

import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageCache;
import app.yubble.media.picture.PictureReader;
import app.yubble.server.YubbleProperties;
import app.yubble.vision.DepthEngines;
import app.yubble.vision.ModelFolder;
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
    RefocusLine previewLine(YubbleProperties properties) {
        return new RefocusLine(new StageCache(properties.cacheBytes()));
    }
}
