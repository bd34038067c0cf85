package app.yubble.server.storage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import app.yubble.server.problem.CannotStartException;
import app.yubble.server.problem.DamagedFileException;
import app.yubble.server.problem.StoreAwayException;
import com.sun.net.httpserver.HttpServer;
import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.core.instrument.simple.SimpleMeterRegistry;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Two nodes that share nothing but an object store. */
class ObjectStoreTest {
    private static final MeterRegistry METERS = new SimpleMeterRegistry();
    private static final long PLENTY = 1_000_000_000;

    @TempDir
    static Path shared;

    static TestStore server;

    @TempDir
    Path folder;

    private final GoingFiles going = mock();

    @BeforeAll
    static void startStore() throws IOException {
        server = new TestStore(shared);
    }

    @AfterAll
    static void stopStore() {
        server.close();
    }

    @BeforeEach
    void nobodyElseRemovesAnything() throws IOException {
        when(going.remove(anyString(), any()))
                .thenAnswer(call -> call.<GoingFiles.Removal>getArgument(1).run());
    }

    private static StoreProperties settings(String bucket, String key, String secret, String endpoint) {
        return new StoreProperties(
                bucket,
                URI.create(endpoint),
                "us-east-1",
                true,
                "club/",
                key,
                secret,
                null,
                PLENTY,
                Duration.ofSeconds(5));
    }

    private static Bucket bucket() {
        return new Bucket(settings("photos", TestStore.KEY, TestStore.SECRET, server.endpoint()), METERS);
    }

    private ObjectStore node(String name, long nearBytes) throws IOException {
        return new ObjectStore(bucket(), new FolderStore(folder.resolve(name), 0), nearBytes, going, METERS);
    }

    private static byte[] content(int seed, int bytes) {
        byte[] out = new byte[bytes];
        new Random(seed).nextBytes(out);
        return out;
    }

    private static String put(FileStore store, byte[] content) throws IOException {
        return store.put(new ByteArrayInputStream(content)).hash();
    }

    private Stream<Path> filesOf(String node) throws IOException {
        return Files.walk(folder.resolve(node)).filter(Files::isRegularFile);
    }

    @Test
    void whatOneNodeStoresAnotherReads() throws IOException {
        byte[] small = content(1, 1000);
        byte[] inParts = content(2, 40_000_000);
        ObjectStore one = node("one", PLENTY);
        String first = put(one, small);
        String second = put(one, inParts);

        ObjectStore other = node("other", PLENTY);
        assertThat(other.bytes(first)).isEqualTo(small);
        assertThat(other.bytes(second)).isEqualTo(inParts);
        assertThat(other.length(second)).isEqualTo(inParts.length);
        assertThat(Files.readAllBytes(other.local(first))).isEqualTo(small);
        assertThat(other.has(first)).isTrue();
        assertThat(other.used()).isEqualTo(small.length + inParts.length);
    }

    @Test
    void aPartOfAFileIsReadWithoutTheRest() throws IOException {
        byte[] all = content(3, 3_000_000);
        String hash = put(node("one", PLENTY), all);
        Bucket bucket = bucket();
        try (InputStream in = new RemoteInput(from -> bucket.open(hash, from), all.length)) {
            in.skipNBytes(2_500_000);
            assertThat(in.readNBytes(4))
                    .containsExactly(all[2_500_000], all[2_500_001], all[2_500_002], all[2_500_003]);
        }
    }

    @Test
    void whatIsNotWhatItsNameSaysIsNotTaken() throws IOException {
        String hash = put(node("one", PLENTY), content(4, 5000));
        Files.write(server.file(hash), content(5, 5000));
        ObjectStore other = node("other", PLENTY);
        assertThatThrownBy(() -> other.bytes(hash)).isInstanceOf(DamagedFileException.class);
        assertThat(filesOf("other")).isEmpty();
        // Bringing the same in again mends it.
        put(node("one", PLENTY), content(4, 5000));
        assertThat(other.bytes(hash)).isEqualTo(content(4, 5000));
    }

    @Test
    void whatIsMissingIsToldAsMissing() throws IOException {
        ObjectStore one = node("one", PLENTY);
        String hash = "0".repeat(64);
        assertThatThrownBy(() -> one.open(hash))
                .isInstanceOf(DamagedFileException.class)
                .hasMessageContaining("missing");
        assertThatThrownBy(() -> one.local(hash)).hasCauseInstanceOf(DamagedFileException.class);
        assertThat(one.has(hash)).isFalse();
    }

    @Test
    void whatIsOldIsRemovedAndWhatWasStoredSinceIsNot() throws IOException {
        ObjectStore one = node("one", PLENTY);
        Instant before = Instant.now().minusSeconds(60);
        String hash = put(one, content(6, 100));
        Instant after = Instant.now().plusSeconds(60);
        assertThat(one.storedBefore(before)).doesNotContain(hash);
        assertThat(one.storedBefore(after)).contains(hash);
        assertThat(one.remove(hash, before)).isFalse();
        assertThat(one.bytes(hash)).hasSize(100);
        assertThat(one.remove(hash, after)).isTrue();
        assertThat(one.has(hash)).isFalse();
        assertThat(one.remove(hash, after)).isFalse();
        assertThat(node("other", PLENTY).has(hash)).isFalse();
    }

    /** The other node had looked just before, and removes it in the moment in which it is stored. */
    @Test
    void whatIsRemovedWhileItIsStoredIsStoredAgain() throws IOException {
        ObjectStore one = node("one", PLENTY);
        AtomicInteger removals = new AtomicInteger();
        doAnswer(call -> {
                    if (removals.getAndIncrement() == 0) {
                        bucket().delete(call.getArgument(0));
                    }
                    return null;
                })
                .when(going)
                .await(anyString());
        String hash = put(one, content(7, 100));
        assertThat(node("other", PLENTY).bytes(hash)).hasSize(100);
        assertThat(removals).hasValue(2);
    }

    @Test
    void whatIsAtHandIsBoundedAndWhatWasUsedLastStays() throws IOException {
        ObjectStore one = node("one", 2500);
        String oldest = put(one, content(8, 1000));
        String middle = put(one, content(9, 1000));
        for (String each : new String[] {oldest, middle}) {
            Files.setLastModifiedTime(
                    folder.resolve("one").resolve(each.substring(0, 2)).resolve(each),
                    FileTime.from(Instant.now().minus(Duration.ofHours(each.equals(oldest) ? 9 : 8))));
        }
        String newest = put(one, content(10, 1000));
        assertThat(filesOf("one").map(file -> file.getFileName().toString())).containsExactlyInAnyOrder(middle, newest);
        assertThat(one.bytes(oldest)).isEqualTo(content(8, 1000));
    }

    @Test
    void aStoreThatIsAwayIsToldAndNothingIsLeftHalfWritten() throws IOException {
        ObjectStore one = node("one", PLENTY);
        String known = put(one, content(11, 1000));
        server.stop();
        try {
            assertThatThrownBy(() -> put(one, content(12, 1000))).isInstanceOf(StoreAwayException.class);
            assertThat(filesOf("one")).hasSize(1);
            assertThat(one.bytes(known)).hasSize(1000);
            assertThatThrownBy(() -> node("other", PLENTY).bytes(known)).isInstanceOf(StoreAwayException.class);
        } finally {
            server.start();
        }
        assertThat(node("other", PLENTY).bytes(put(one, content(12, 1000)))).hasSize(1000);
    }

    @ParameterizedTest
    @CsvSource({
        "507, <Error><Code>XStorageFull</Code></Error>, FullDiskException",
        "400, <Error><Code>QuotaExceeded</Code></Error>, FullDiskException",
        "500, java.io.IOException: No space left on device, StoreAwayException",
        "502, <h1>Bad Gateway</h1>, StoreAwayException",
        "500, '', StoreAwayException"
    })
    void whatAStoreOrAProxyBeforeItAnswersIsToldAsWhatItIs(int status, String body, String fault) throws IOException {
        HttpServer sayer = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        sayer.createContext("/", request -> {
            request.getRequestBody().readAllBytes();
            byte[] answer = body.getBytes(StandardCharsets.UTF_8);
            request.sendResponseHeaders(status, answer.length == 0 ? -1 : answer.length);
            try (OutputStream out = request.getResponseBody()) {
                out.write(answer);
            }
        });
        sayer.start();
        String address = "http://127.0.0.1:" + sayer.getAddress().getPort();
        try (Bucket bucket = new Bucket(settings("photos", "key", "secret", address), METERS)) {
            Path file = Files.write(folder.resolve("file"), content(15, 100));
            assertThatThrownBy(() -> bucket.upload(file, "a".repeat(64)))
                    .extracting(thrown -> thrown.getClass().getSimpleName())
                    .isEqualTo(fault);
            if (fault.startsWith("Full")) {
                bucket.require();
            } else {
                assertThatThrownBy(bucket::require)
                        .isInstanceOf(CannotStartException.class)
                        .hasMessageContaining("status " + status);
            }
        } finally {
            sayer.stop(0);
        }
    }

    @Test
    void aConnectionThatBreaksIsBegunAgainWhereItBroke() throws IOException {
        byte[] all = content(13, 1000);
        AtomicInteger opened = new AtomicInteger();
        RemoteInput.Source breaking = from -> {
            opened.incrementAndGet();
            return new ByteArrayInputStream(all, (int) from, (int) Math.min(300, all.length - from));
        };
        try (InputStream in = new RemoteInput(breaking, all.length)) {
            assertThat(in.readAllBytes()).isEqualTo(all);
        }
        assertThat(opened).hasValue(4);
        try (InputStream in = new RemoteInput(
                from -> {
                    throw new IOException("cable");
                },
                10)) {
            assertThatThrownBy(in::read).isInstanceOf(StoreAwayException.class).hasMessageContaining("cable");
        }
    }

    @Test
    void theStartSaysWhatIsWrongWithTheSettings() {
        bucket().require();
        assertThatThrownBy(() -> new Bucket(
                                settings("nowhere", TestStore.KEY, TestStore.SECRET, server.endpoint()), METERS)
                        .require())
                .isInstanceOf(CannotStartException.class)
                .hasMessage("The store has no bucket named nowhere.");
        assertThatThrownBy(() ->
                        new Bucket(settings("photos", TestStore.KEY, "wrong", server.endpoint()), METERS).require())
                .hasMessageContaining("refuses the access key")
                .hasMessageNotContaining("wrong");
        assertThatThrownBy(() -> new Bucket(
                                settings("photos", TestStore.KEY, TestStore.SECRET, "http://127.0.0.1:1"), METERS)
                        .require())
                .hasMessageStartingWith("The store cannot be reached");
    }
}
