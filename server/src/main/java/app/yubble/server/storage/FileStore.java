package app.yubble.server.storage;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Set;
import org.springframework.core.io.Resource;

/**
 * Files under the SHA-256 of their content. What is stored never changes, so equal files are stored once and a
 * reference can be cached for ever.
 */
public interface FileStore {
    /** A stored file: its hash in lower-case hexadecimal and its length. */
    record Stored(String hash, long bytes) {}

    /** @throws java.io.UncheckedIOException of a {@link FullDiskException} when there is no room for more files */
    void requireRoom();

    /** Stores what {@code content} holds; nothing is left behind when reading it fails. */
    Stored put(InputStream content) throws IOException;

    /** Stores what {@code writing} writes. */
    Stored put(Writing writing) throws IOException;

    /** A new empty file on the store's own disk, for what is still coming in. */
    Path incoming() throws IOException;

    /** Stores a file that {@link #incoming} gave; it is no longer where it was. */
    Stored keep(Path incoming) throws IOException;

    /**
     * The stored file for programs that read files; it must not be changed. Where files lie elsewhere it is fetched, and stays for some
     * hours.
     */
    Path local(String hash);

    boolean has(String hash) throws IOException;

    InputStream open(String hash) throws IOException;

    /** The whole file in memory. */
    default byte[] bytes(String hash) throws IOException {
        try (InputStream in = open(hash)) {
            return in.readAllBytes();
        }
    }

    /** Writes a file's content to a stream. */
    @FunctionalInterface
    interface Writing {
        void to(java.io.OutputStream out) throws IOException;
    }

    /** Hashes of what was stored before {@code moment} and not again since. */
    Set<String> storedBefore(Instant moment) throws IOException;

    /** Removes a file unless it was stored after {@code moment}; false when it was, or is not there. */
    boolean remove(String hash, Instant moment) throws IOException;

    /** Removes what servers that died before {@code moment} have left half written. */
    void removeLeftOver(Instant moment) throws IOException;

    /** How many bytes the file has. */
    long length(String hash) throws IOException;

    /** The file for an answer, sent in pieces. */
    default Resource resource(String hash) {
        return new StoredFile(this, hash);
    }
}
