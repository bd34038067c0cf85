package app.yubble.server.storage;

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
import java.nio.file.attribute.FileTime;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Stream;

/** Files in a local folder, spread over subfolders by the first two digits of their hash. */
final class FolderStore implements FileStore {
    private static final String PARTIAL = ".part";
    /** On the way out. */
    private static final String GONE = ".gone";

    private final Path folder;
    private final long leastFree;

    /** @param leastFree bytes of the disk that are kept free */
    FolderStore(Path folder, long leastFree) throws IOException {
        this.folder = folder.toAbsolutePath();
        Files.createDirectories(folder);
        this.leastFree = leastFree;
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
        return Files.createTempFile(folder, "incoming-", PARTIAL);
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
    public boolean has(String hash) {
        return Files.exists(path(hash));
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

    @Override
    public Set<String> storedBefore(Instant moment) throws IOException {
        Set<String> out = new HashSet<>();
        each(Hashes::isHash, moment, file -> out.add(file.getFileName().toString()));
        return out;
    }

    @Override
    public boolean remove(String hash, Instant moment) throws IOException {
        Path file = path(hash);
        Path aside = home(hash).resolve(hash + GONE);
        try {
            Files.move(file, aside, StandardCopyOption.ATOMIC_MOVE);
        } catch (NoSuchFileException missing) {
            return false;
        }
        if (isOlder(aside, moment)) {
            Files.delete(aside);
            return true;
        }
        // Somebody has stored the same between the look and the move.
        putBack(aside, file);
        return false;
    }

    private static void putBack(Path aside, Path file) throws IOException {
        if (Files.exists(file)) {
            Files.delete(aside);
        } else {
            Files.move(aside, file, StandardCopyOption.ATOMIC_MOVE);
        }
    }

    @Override
    public void removeLeftOver(Instant moment) throws IOException {
        each(name -> name.endsWith(PARTIAL), moment, Files::deleteIfExists);
        each(name -> name.endsWith(GONE), moment, aside -> {
            String name = aside.getFileName().toString();
            putBack(aside, path(name.substring(0, name.length() - GONE.length())));
        });
    }

    /** Does something with a file. */
    @FunctionalInterface
    private interface Work {
        void with(Path file) throws IOException;
    }

    /** In the folder and those below it, of files that have not changed since. */
    private void each(Predicate<String> name, Instant moment, Work work) throws IOException {
        List<Path> found;
        try (Stream<Path> all = Files.walk(folder, 2)) {
            found = all.filter(file -> name.test(file.getFileName().toString())).toList();
        }
        for (Path file : found) {
            if (Files.isRegularFile(file) && isOlder(file, moment)) {
                work.with(file);
            }
        }
    }

    /** Notes that a file was looked at just now. */
    void touch(String hash) throws IOException {
        Files.setLastModifiedTime(path(hash), FileTime.from(Instant.now()));
    }

    /** A file, and when it was stored or touched last. */
    record Held(String hash, long bytes, Instant used) {}

    /** All files, those that were used longest ago first. */
    List<Held> held() throws IOException {
        List<Held> out = new ArrayList<>();
        each(
                Hashes::isHash,
                Instant.MAX,
                file -> out.add(new Held(
                        file.getFileName().toString(),
                        Files.size(file),
                        Files.getLastModifiedTime(file).toInstant())));
        out.sort(Comparator.comparing(Held::used));
        return out;
    }

    private static boolean isOlder(Path file, Instant moment) throws IOException {
        return Files.getLastModifiedTime(file).toInstant().isBefore(moment);
    }

    private Path path(String hash) {
        if (!Hashes.isHash(hash)) {
            throw new IllegalArgumentException("not a hash: " + hash);
        }
        return home(hash).resolve(hash);
    }

    private Path home(String hash) {
        return folder.resolve(hash.substring(0, 2));
    }
}
