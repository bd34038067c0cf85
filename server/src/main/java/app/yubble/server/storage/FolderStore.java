package app.yubble.server.storage;

import app.yubble.server.YubbleProperties;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import org.springframework.stereotype.Component;

/** Files in a local folder, spread over subfolders by the first two digits of their hash. */
@Component
final class FolderStore implements FileStore {
    private final Path folder;

    FolderStore(YubbleProperties properties) throws IOException {
        folder = properties.data().toAbsolutePath().resolve("files");
        Files.createDirectories(folder);
    }

    @Override
    public Stored put(InputStream content) throws IOException {
        return put(content::transferTo);
    }

    @Override
    public Stored put(Writing writing) throws IOException {
        Path partial = Files.createTempFile(folder, "incoming-", ".part");
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            try (OutputStream out = new DigestOutputStream(Files.newOutputStream(partial), digest)) {
                writing.to(out);
            }
            return moved(partial, digest);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        } finally {
            Files.deleteIfExists(partial);
        }
    }

    @Override
    public Path incoming() throws IOException {
        return Files.createTempFile(folder, "incoming-", ".part");
    }

    @Override
    public Stored keep(Path incoming) throws IOException {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            try (OutputStream into = new DigestOutputStream(OutputStream.nullOutputStream(), digest)) {
                Files.copy(incoming, into);
            }
            return moved(incoming, digest);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        } finally {
            Files.deleteIfExists(incoming);
        }
    }

    private Stored moved(Path partial, MessageDigest digest) throws IOException {
        String hash = HexFormat.of().formatHex(digest.digest());
        long bytes = Files.size(partial);
        Path target = path(hash);
        if (!Files.exists(target)) {
            Files.createDirectories(target.getParent());
            Files.move(partial, target, StandardCopyOption.ATOMIC_MOVE);
        }
        return new Stored(hash, bytes);
    }

    @Override
    public Path local(String hash) {
        return path(hash);
    }

    @Override
    public InputStream open(String hash) throws IOException {
        return Files.newInputStream(path(hash));
    }

    @Override
    public long length(String hash) throws IOException {
        return Files.size(path(hash));
    }

    private Path path(String hash) {
        if (!hash.matches("[0-9a-f]{64}")) {
            throw new IllegalArgumentException("not a hash: " + hash);
        }
        return folder.resolve(hash.substring(0, 2)).resolve(hash);
    }
}
