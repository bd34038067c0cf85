package app.yubble.server.storage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import app.yubble.core.refocus.StageKey;
import io.micrometer.core.instrument.simple.SimpleMeterRegistry;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class StageFolderTest {
    private static final int BYTES = 100_000;
    private static final long PLENTY = 50_000_000;

    private final SimpleMeterRegistry meters = new SimpleMeterRegistry();
    private Path root = Path.of("");

    private @Nullable StageFolder folder;

    @BeforeEach
    void begin(@TempDir Path data) {
        root = data.resolve("stages");
    }

    private StageFolder open(long mostBytes, long leastFree, String build) throws IOException {
        close();
        StageFolder opened = new StageFolder(root, mostBytes, leastFree, build, meters);
        folder = opened;
        return opened;
    }

    @AfterEach
    void close() {
        if (folder != null) {
            folder.destroy();
        }
    }

    private static StageKey key(int number) {
        return new StageKey("%064x".formatted(number));
    }

    private static ByteBuffer content(int number) {
        return ByteBuffer.allocate(BYTES).putInt(number).rewind();
    }

    private static void keep(StageFolder stages, String still, int number) {
        stages.keep(still, key(number), out -> out.write(content(number)));
        await().until(() -> stages.find(still, key(number)) != null);
    }

    /** How often results were found, or not. */
    private double looked(String outcome) {
        return meters.counter("yubble.stage.files", "found", outcome).count();
    }

    private List<Path> files() throws IOException {
        try (Stream<Path> all = Files.walk(root)) {
            return all.filter(Files::isRegularFile).toList();
        }
    }

    @Test
    void whatIsKeptIsFoundAfterAStartOfTheSameBuildOnly() throws IOException {
        keep(open(PLENTY, 0, "one"), "a", 1);
        StageFolder again = open(PLENTY, 0, "one");
        await().untilAsserted(() -> assertThat(again.find("a", key(1))).isEqualTo(content(1)));
        double found = looked("yes");
        double notThere = looked("no");
        again.find("a", key(1));
        assertThat(again.find("a", key(2))).isNull();
        assertThat(looked("yes")).isEqualTo(found + 1);
        assertThat(looked("no")).isEqualTo(notThere + 1);
        StageFolder other = open(PLENTY, 0, "two");
        await().untilAsserted(() -> assertThat(files()).isEmpty());
        assertThat(other.find("a", key(1))).isNull();
    }

    @Test
    void whatWasUsedLastStays() throws IOException {
        StageFolder stages = open(5 * BYTES + BYTES / 2, 0, "one");
        for (int i = 0; i < 5; i++) {
            keep(stages, "a", i);
        }
        assertThat(stages.find("a", key(0))).isNotNull();
        keep(stages, "a", 5);
        keep(stages, "a", 6);
        assertThat(IntStream.range(0, 7).filter(i -> stages.find("a", key(i)) != null))
                .containsExactly(0, 3, 4, 5, 6);
        assertThat(files()).hasSize(5);
    }

    @Test
    void aDamagedFileIsAsIfItWereNotThere() throws IOException {
        StageFolder stages = open(PLENTY, 0, "one");
        keep(stages, "a", 1);
        Path file = files().get(0);
        byte[] bytes = Files.readAllBytes(file);
        bytes[BYTES / 2] ^= 1;
        Files.write(file, bytes);
        assertThat(stages.find("a", key(1))).isNull();
        assertThat(files()).isEmpty();
        keep(stages, "a", 1);
        Files.write(files().get(0), new byte[3]);
        assertThat(stages.find("a", key(1))).isNull();
        keep(stages, "a", 1);
        Files.delete(files().get(0));
        assertThat(stages.find("a", key(1))).isNull();
    }

    @Test
    void nothingIsKeptWhenTheDiskIsNearlyFullOrNothingIsToBeKept() throws IOException, InterruptedException {
        for (StageFolder each : List.of(open(PLENTY, Long.MAX_VALUE, "one"), open(0, 0, "two"))) {
            each.keep("a", key(1), out -> out.write(content(1)));
            Thread.sleep(100);
            assertThat(each.find("a", key(1))).isNull();
        }
        assertThat(files()).isEmpty();
    }

    @Test
    void whatWasMadeOfAPhotoGoesWithItsFile() throws IOException {
        StageFolder stages = open(PLENTY, 0, "one");
        keep(stages, "there", 1);
        keep(stages, "gone", 2);
        FileStore files = mock();
        when(files.has("there")).thenReturn(true);
        stages.removeGone(files);
        assertThat(stages.find("gone", key(2))).isNull();
        assertThat(stages.find("there", key(1))).isNotNull();
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(root)))
                .isEqualTo("rwx------");
        assertThat(root.resolve("one/gone")).doesNotExist();
    }

    @Test
    void whatCannotBeWrittenIsNotThereAndHarmsNothing() throws IOException {
        StageFolder stages = open(PLENTY, 0, "one");
        stages.keep("a", key(1), out -> {
            throw new IllegalStateException("the pen broke");
        });
        await().untilAsserted(() -> {
            // It does not try again and again.
            AtomicBoolean tried = new AtomicBoolean();
            stages.keep("a", key(2), out -> tried.set(true));
            Thread.sleep(50);
            assertThat(tried).isFalse();
        });
        assertThat(stages.find("a", key(1))).isNull();
        assertThat(files()).isEmpty();
    }
}
