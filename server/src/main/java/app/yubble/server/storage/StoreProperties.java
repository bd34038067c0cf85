package app.yubble.server.storage;

import java.net.URI;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;

/**
 * Where files are stored. Without a bucket it is a folder below the data folder.
 *
 * @param bucket of an object store that speaks S3
 * @param endpoint of the store; null is that of the region
 * @param pathStyle whether the bucket stands in the path of an address, not in its host
 * @param prefix before the name of every object, so that several installations share a bucket
 * @param accessKey null takes what the environment has
 * @param encryption that the store is asked for: {@code AES256}, {@code aws:kms}; null is as the bucket does it
 * @param cacheBytes of files on this node's disk, so that they are not fetched for every look
 * @param patience with one answer of the store
 */
@ConfigurationProperties("yubble.store")
record StoreProperties(
        @Nullable String bucket,
        @Nullable URI endpoint,
        @DefaultValue("us-east-1") String region,
        @DefaultValue("false") boolean pathStyle,
        @DefaultValue("") String prefix,
        @Nullable String accessKey,
        @Nullable String secretKey,
        @Nullable String encryption,
        @DefaultValue("20000000000") long cacheBytes,
        @DefaultValue("30s") Duration patience) {

    /** A password is not for the log. */
    @Override
    public String toString() {
        return "StoreProperties[bucket=" + bucket + ", endpoint=" + endpoint + ", prefix=" + prefix + "]";
    }
}
