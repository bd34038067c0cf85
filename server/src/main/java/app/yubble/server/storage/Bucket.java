package app.yubble.server.storage;

import app.yubble.server.problem.CannotStartException;
import app.yubble.server.problem.DamagedFileException;
import app.yubble.server.problem.FullDiskException;
import app.yubble.server.problem.StoreAwayException;
import com.google.common.io.ByteStreams;
import io.micrometer.core.instrument.MeterRegistry;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.function.BiConsumer;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import software.amazon.awssdk.auth.credentials.AwsBasicCredentials;
import software.amazon.awssdk.auth.credentials.StaticCredentialsProvider;
import software.amazon.awssdk.awscore.exception.AwsErrorDetails;
import software.amazon.awssdk.core.checksums.RequestChecksumCalculation;
import software.amazon.awssdk.core.checksums.ResponseChecksumValidation;
import software.amazon.awssdk.core.exception.SdkException;
import software.amazon.awssdk.core.sync.RequestBody;
import software.amazon.awssdk.http.urlconnection.UrlConnectionHttpClient;
import software.amazon.awssdk.regions.Region;
import software.amazon.awssdk.services.s3.S3Client;
import software.amazon.awssdk.services.s3.S3ClientBuilder;
import software.amazon.awssdk.services.s3.model.CompletedPart;
import software.amazon.awssdk.services.s3.model.MultipartUpload;
import software.amazon.awssdk.services.s3.model.S3Exception;
import software.amazon.awssdk.services.s3.model.S3Object;

/** Objects of a store that speaks S3, named by hash below a prefix. What it cannot do it says in our words. */
final class Bucket implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Bucket.class);

    /** Bytes from which a file goes up in parts of this size, each of which can be sent again alone. */
    private static final long PART = 16_000_000;
    /** As the protocol has it. */
    private static final int MOST_PARTS = 10_000;

    private static final String LOOK = "Look at the settings that begin with yubble.store.";

    private static final int NOT_FOUND = 404;
    private static final int FORBIDDEN = 403;
    private static final int UNAUTHORIZED = 401;
    private static final int MOVED = 301;
    private static final int FULL = 507;
    /** What stores say when there is no room. */
    private static final Set<String> FULL_CODES = Set.of("QuotaExceeded", "InsufficientStorage", "StorageFull");

    /** The name of a hash has two digits as a folder of its own. */
    private static final int FOLDER = 2;

    private final S3Client client;
    private final String bucket;
    private final String prefix;
    private final @Nullable String encryption;
    private final MeterRegistry meters;

    Bucket(StoreProperties properties, MeterRegistry meters) {
        this.meters = meters;
        bucket = String.valueOf(properties.bucket());
        prefix = properties.prefix();
        encryption = properties.encryption();
        S3ClientBuilder builder = S3Client.builder()
                .region(Region.of(properties.region()))
                .forcePathStyle(properties.pathStyle())
                // Stores other than the first do not all know the newer sums; what is read is checked by its name.
                .requestChecksumCalculation(RequestChecksumCalculation.WHEN_REQUIRED)
                .responseChecksumValidation(ResponseChecksumValidation.WHEN_REQUIRED)
                .httpClientBuilder(UrlConnectionHttpClient.builder()
                        .connectionTimeout(properties.patience())
                        .socketTimeout(properties.patience()));
        if (properties.endpoint() != null) {
            builder.endpointOverride(properties.endpoint());
        }
        if (properties.accessKey() != null) {
            builder.credentialsProvider(StaticCredentialsProvider.create(
                    AwsBasicCredentials.create(properties.accessKey(), String.valueOf(properties.secretKey()))));
        }
        client = builder.build();
    }

    private String key(String hash) {
        return prefix + hash.substring(0, FOLDER) + "/" + hash;
    }

    /** @throws CannotStartException when the settings are wrong; a store that is away may come back */
    void require() {
        try {
            client.listObjectsV2(ask -> ask.bucket(bucket).prefix(prefix).maxKeys(1));
            String probe = prefix + "probe";
            client.putObject(
                    ask -> ask.bucket(bucket).key(probe).serverSideEncryption(encryption),
                    RequestBody.fromString("probe"));
            client.deleteObject(ask -> ask.bucket(bucket).key(probe));
        } catch (S3Exception fault) {
            if (isFull(fault)) {
                LOG.warn("the store is full: nothing can be brought in, what is there can be used");
                return;
            }
            throw new CannotStartException(
                    switch (fault.statusCode()) {
                        case NOT_FOUND -> "The store has no bucket named " + bucket + ".";
                        case FORBIDDEN, UNAUTHORIZED ->
                            "The store refuses the access key, or the key may not read and write the bucket " + bucket
                                    + ": " + codeOf(fault) + ".";
                        case MOVED -> "The bucket " + bucket + " is in another region or at another endpoint.";
                        default ->
                            "The store cannot be used: " + codeOf(fault) + ", status " + fault.statusCode() + ".";
                    },
                    LOOK,
                    fault);
        } catch (SdkException fault) {
            throw new CannotStartException("The store cannot be reached: " + fault.getMessage(), LOOK, fault);
        }
    }

    /** What is between us and the store answers without a code, in its own words. */
    private static String codeOf(S3Exception fault) {
        AwsErrorDetails details = fault.awsErrorDetails();
        return details == null || details.errorCode() == null
                ? String.valueOf(fault.getMessage())
                : details.errorCode();
    }

    private static boolean isFull(S3Exception fault) {
        return fault.statusCode() == FULL || FULL_CODES.contains(codeOf(fault));
    }

    /** An object is there whole or not at all. */
    void upload(Path file, String hash) throws IOException {
        long bytes = Files.size(file);
        if (bytes <= PART) {
            String sum = sumOf(file, 0, bytes);
            asked(
                    "put",
                    hash,
                    () -> client.putObject(
                            ask -> ask.bucket(bucket)
                                    .key(key(hash))
                                    .contentMD5(sum)
                                    .serverSideEncryption(encryption),
                            RequestBody.fromFile(file)));
        } else {
            uploadInParts(file, bytes, hash);
        }
    }

    private void uploadInParts(Path file, long bytes, String hash) throws IOException {
        long size = Math.max(PART, bytes / MOST_PARTS + 1);
        String key = key(hash);
        String upload = asked(
                        "put",
                        hash,
                        () -> client.createMultipartUpload(
                                ask -> ask.bucket(bucket).key(key).serverSideEncryption(encryption)))
                .uploadId();
        try {
            List<CompletedPart> parts = new ArrayList<>();
            for (long from = 0; from < bytes; from += size) {
                long start = from;
                long length = Math.min(size, bytes - start);
                int number = parts.size() + 1;
                String sum = sumOf(file, start, length);
                String tag = asked(
                                "put",
                                hash,
                                () -> client.uploadPart(
                                        ask -> ask.bucket(bucket)
                                                .key(key)
                                                .uploadId(upload)
                                                .partNumber(number)
                                                .contentMD5(sum),
                                        RequestBody.fromContentProvider(
                                                () -> part(file, start, length), length, "application/octet-stream")))
                        .eTag();
                parts.add(CompletedPart.builder().partNumber(number).eTag(tag).build());
            }
            asked(
                    "put",
                    hash,
                    () -> client.completeMultipartUpload(ask ->
                            ask.bucket(bucket).key(key).uploadId(upload).multipartUpload(all -> all.parts(parts))));
        } catch (IOException | RuntimeException fault) {
            try {
                client.abortMultipartUpload(ask -> ask.bucket(bucket).key(key).uploadId(upload));
            } catch (SdkException away) {
                // The sweep removes what is left of it.
                fault.addSuppressed(away);
            }
            throw fault;
        }
    }

    private static InputStream part(Path file, long from, long length) {
        try {
            InputStream in = Files.newInputStream(file);
            in.skipNBytes(from);
            return ByteStreams.limit(in, length);
        } catch (IOException fault) {
            throw new UncheckedIOException(fault.getMessage(), fault);
        }
    }

    /** By which the store checks that what came is what was sent. */
    private static String sumOf(Path file, long from, long length) throws IOException {
        MessageDigest digest;
        try {
            digest = MessageDigest.getInstance("MD5");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has MD5", e);
        }
        ByteBuffer buffer = ByteBuffer.allocate(1 << 16);
        try (InputStream in = part(file, from, length)) {
            for (int count = in.read(buffer.array()); count >= 0; count = in.read(buffer.array())) {
                digest.update(buffer.array(), 0, count);
            }
        }
        return Base64.getEncoder().encodeToString(digest.digest());
    }

    /** The object from a byte on. */
    InputStream open(String hash, long from) throws IOException {
        return asked(
                "get",
                hash,
                () -> client.getObject(
                        ask -> ask.bucket(bucket).key(key(hash)).range(from == 0 ? null : "bytes=" + from + "-")));
    }

    /**
     * An object that is there.
     *
     * @param stored when it was stored last, by the store's clock
     */
    record Found(long bytes, Instant stored) {}

    Optional<Found> find(String hash) throws IOException {
        try {
            return asked(
                            "find",
                            hash,
                            () -> Optional.of(
                                    client.headObject(ask -> ask.bucket(bucket).key(key(hash)))))
                    .map(head -> new Found(head.contentLength(), head.lastModified()));
        } catch (DamagedFileException missing) {
            return Optional.empty();
        }
    }

    void delete(String hash) throws IOException {
        asked(
                "delete",
                hash,
                () -> client.deleteObject(ask -> ask.bucket(bucket).key(key(hash))));
    }

    /** All objects, with when they were stored. */
    void list(BiConsumer<String, Instant> each) throws IOException {
        asked("list", "", () -> {
            for (S3Object found : client.listObjectsV2Paginator(
                            ask -> ask.bucket(bucket).prefix(prefix))
                    .contents()) {
                String name = found.key().substring(found.key().lastIndexOf('/') + 1);
                if (Hashes.isHash(name)) {
                    each.accept(name, found.lastModified());
                }
            }
            return true;
        });
    }

    /** Gives up what was begun to be sent before {@code moment} and never came to its end. */
    void removeLeftOver(Instant moment) throws IOException {
        asked("list", "", () -> {
            for (MultipartUpload each : client.listMultipartUploadsPaginator(
                            ask -> ask.bucket(bucket).prefix(prefix))
                    .uploads()) {
                if (each.initiated() == null || each.initiated().isBefore(moment)) {
                    client.abortMultipartUpload(
                            ask -> ask.bucket(bucket).key(each.key()).uploadId(each.uploadId()));
                }
            }
            return true;
        });
    }

    private <T> T asked(String what, String hash, Supplier<T> request) throws IOException {
        String outcome = "failed";
        long start = System.nanoTime();
        try {
            T out = request.get();
            outcome = "done";
            return out;
        } catch (S3Exception fault) {
            if (fault.statusCode() == NOT_FOUND && !hash.isEmpty()) {
                outcome = "absent";
                throw new DamagedFileException(hash, fault);
            }
            if (isFull(fault)) {
                throw new FullDiskException(new IOException(fault.getMessage(), fault));
            }
            throw new StoreAwayException(fault);
        } catch (SdkException fault) {
            throw new StoreAwayException(fault);
        } finally {
            meters.timer("yubble.store", "request", what, "outcome", outcome)
                    .record(System.nanoTime() - start, TimeUnit.NANOSECONDS);
        }
    }

    @Override
    public void close() {
        client.close();
    }
}
