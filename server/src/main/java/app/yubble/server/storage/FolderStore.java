package app.yubble.server.storage;

import app.yubble.server.YubbleProperties;
import app.yubble.server.problem.DamagedFileException;
import app.yubble.server.problem.FullDiskException;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.util.HexFormat;
import org.springframework.stereotype.Component;

/** Files in a local folder, spread over subfolders by the first two digits of their hash. */
@Component
final class FolderStore implements FileStore {
    private final Path folder;
    private final long leastFree;

    FolderStore(YubbleProperties properties) throws IOException {
        folder = properties.data().toAbsolutePath().resolve("files");
        Files.createDirectories(folder);
        leastFree = properties.leastFreeBytes();
    }

    @Override
    public void requireRoom() {
        try {
            if (Files.getFileStore(folder).getUsableSpace() < leastFree) {
                throw new FullDiskException(null);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e.getMessage(), e);
        }
    }

    @Override
    public Stored put(InputStream content) throws IOException {
        return put(content::transferTo);
    }

    @Override
    public Stored put(Writing writing) throws IOException {
        Path partial = incoming();
        try {
            MessageDigest digest = Hashes.sha256();
            try (FileChannel file = FileChannel.open(partial, StandardOpenOption.WRITE);
                    OutputStream out =
                            new BufferedOutputStream(new DigestOutputStream(Channels.newOutputStream(file), digest))) {
                writing.to(out);
                out.flush();
                file.force(true);
            }
            return moved(partial, digest);
        } catch (IOException fault) {
            throw FullDiskException.told(fault);
        } finally {
            Files.deleteIfExists(partial);
        }
    }

    @Override
    public Path incoming() throws IOException {
        requireRoom();
        return Files.createTempFile(folder, "incoming-", ".part");
    }

    @Override
    public Stored keep(Path incoming) throws IOException {
        try {
            MessageDigest digest = Hashes.sha256();
            try (OutputStream into = new DigestOutputStream(OutputStream.nullOutputStream(), digest)) {
                Files.copy(incoming, into);
            }
            flush(incoming);
            return moved(incoming, digest);
        } finally {
            Files.deleteIfExists(incoming);
        }
    }

    /** Also over a file that is there: it may have been damaged. Whoever reads that one goes on doing so. */
    private Stored moved(Path partial, MessageDigest digest) throws IOException {
        String hash = HexFormat.of().formatHex(digest.digest());
        long bytes = Files.size(partial);
        Path target = path(hash);
        Path home = home(hash);
        if (Files.notExists(home)) {
            Files.createDirectories(home);
            flush(folder);
        }
        Files.move(partial, target, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        flush(home);
        return new Stored(hash, bytes);
    }

    /** Waits until a file's bytes, or a folder's names, would outlive a loss of power. */
    private static void flush(Path file) throws IOException {
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
            channel.force(true);
        }
    }

    @Override
    public Path local(String hash) {
        return path(hash);
    }

    @Override
    public InputStream open(String hash) throws IOException {
        try {
            return new CheckedInput(Files.newInputStream(path(hash)), hash);
        } catch (NoSuchFileException missing) {
            throw new DamagedFileException(hash, missing);
        }
    }

    @Override
    public long length(String hash) throws IOException {
        try {
            return Files.size(path(hash));
        } catch (NoSuchFileException missing) {
            throw new DamagedFileException(hash, missing);
        }
    }

    private Path path(String hash) {
        if (!hash.matches("[0-9a-f]{64}")) {
            throw new IllegalArgumentException("not a hash: " + hash);
        }
        return home(hash).resolve(hash);
    }

    private Path home(String hash) {
        return folder.resolve(hash.substring(0, 2));
    }
}
