package app.yubble.server.storage;

import app.yubble.server.YubbleProperties;
import io.micrometer.core.instrument.MeterRegistry;
import java.io.IOException;
import java.nio.file.Path;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Files lie in a folder, or in the object store that the settings name. */
@Configuration(proxyBeanMethods = false)
class StorageConfiguration {
    @Bean
    @ConditionalOnProperty("yubble.store.bucket")
    Bucket bucket(StoreProperties store, MeterRegistry meters) {
        Bucket bucket = new Bucket(store, meters);
        bucket.require();
        return bucket;
    }

    @Bean
    FileStore fileStore(
            YubbleProperties properties,
            StoreProperties store,
            ObjectProvider<Bucket> bucket,
            GoingFiles going,
            MeterRegistry meters)
            throws IOException {
        Path data = properties.data();
        Bucket shared = bucket.getIfAvailable();
        return shared == null
                ? new FolderStore(data.resolve("files"), properties.leastFreeBytes())
                : new ObjectStore(
                        shared,
                        new FolderStore(data.resolve("at-hand"), properties.leastFreeBytes()),
                        store.cacheBytes(),
                        going,
                        meters);
    }
}
