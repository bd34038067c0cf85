package app.yubble.server.storage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.yubble.server.problem.FullDiskException;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FullDiskTest {
    @TempDir
    Path data;

    private FolderStore store(long leastFree) throws IOException {
        return new FolderStore(data, leastFree);
    }

    @Test
    void withTooLittleRoomNothingIsTakenAndWhatIsThereIsStillRead() throws IOException {
        String hash =
                store(0).put(new ByteArrayInputStream(new byte[] {1, 2, 3})).hash();
        FolderStore full = store(Long.MAX_VALUE);

        assertThatThrownBy(() -> full.put(new ByteArrayInputStream(new byte[] {4})))
                .isInstanceOf(UncheckedIOException.class)
                .hasCauseInstanceOf(FullDiskException.class)
                .hasMessageContaining("no room left");
        assertThatThrownBy(full::requireRoom).hasCauseInstanceOf(FullDiskException.class);

        assertThat(full.bytes(hash)).containsExactly(1, 2, 3);
        try (Stream<Path> all = Files.walk(data)) {
            assertThat(all.filter(Files::isRegularFile)).hasSize(1);
        }
    }

    @Test
    void aDiskThatFillsUpOnTheWayIsToldAsWhatItIsAndLeavesNothing() throws IOException {
        FolderStore store = store(0);

        assertThatThrownBy(() -> store.put((FileStore.Writing) out -> {
                    out.write(new byte[100_000]);
                    throw new IOException("No space left on device");
                }))
                .isInstanceOf(FullDiskException.class)
                .hasMessageContaining("no room left");

        try (Stream<Path> all = Files.walk(data)) {
            assertThat(all.filter(Files::isRegularFile)).isEmpty();
        }
    }
}
