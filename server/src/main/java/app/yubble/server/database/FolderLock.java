package app.yubble.server.database;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import org.jspecify.annotations.Nullable;

/** Says that a folder is this process's as long as it lives. */
final class FolderLock {
    private final FileChannel file;

    private FolderLock(FileChannel file) {
        this.file = file;
    }

    /** @throws FolderInUseException when somebody else has it */
    static FolderLock on(Path folder) throws IOException {
        FileChannel file =
                FileChannel.open(folder.resolve("lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        if (locked(file) == null) {
            file.close();
            throw new FolderInUseException(folder);
        }
        return new FolderLock(file);
    }

    private static @Nullable FileLock locked(FileChannel file) throws IOException {
        try {
            return file.tryLock();
        } catch (OverlappingFileLockException ours) {
            return null;
        }
    }

    void release() {
        try {
            file.close();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
