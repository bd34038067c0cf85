package app.yubble.server.storage;

import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageKey;
import app.yubble.core.refocus.StageStore;
import app.yubble.media.picture.PictureReader;
import app.yubble.server.YubbleProperties;
import com.google.common.cache.Cache;
import com.google.common.cache.CacheBuilder;
import io.micrometer.core.instrument.Counter;
import io.micrometer.core.instrument.MeterRegistry;
import java.io.IOException;
import java.net.JarURLConnection;
import java.net.URI;
import java.net.URL;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.WritableByteChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.jar.JarFile;
import java.util.stream.Stream;
import java.util.zip.CRC32C;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import org.springframework.util.FileSystemUtils;

/**
 * What was used last of the results of stages, as files: {@code stages/BUILD/STILL/KEY}. Another build computes something else, so it begins
 * with nothing. Whatever goes wrong here costs time only: a file that is damaged or cannot be read is as if it were not there.
 */
@Component
public final class StageFolder implements StageStore, DisposableBean {
    private static final Logger LOG = LoggerFactory.getLogger(StageFolder.class);
    /** It holds what photos show. */
    private static final FileAttribute<Set<PosixFilePermission>> OWNER_ONLY =
            PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------"));

    private static final String PARTIAL = ".part";
    /** Results that wait to be written; those of two photos. More are not kept. */
    private static final int MOST_WAITING = 8;
    /** Before the content: its CRC-32C, as a long. */
    private static final int HEADER = Long.BYTES;
    /** Sizes are weighed in as many bytes, so that a sum fits an int. */
    private static final int WEIGHED = 1024;
    /** Files that nobody would miss leave more of the disk free than those that are needed. */
    private static final int CARE = 4;
    /** How long nothing is written after something could not be. */
    private static final Duration PAUSE = Duration.ofMinutes(1);

    private final Path folder;
    private final long mostBytes;
    private final long leastFree;
    /** Bytes by path below the folder. */
    private final Cache<String, Long> known;

    private volatile Instant pausedUntil = Instant.EPOCH;
    /** Paths of what is being written or waits for it. */
    private final Set<String> asked = ConcurrentHashMap.newKeySet();

    private final ThreadPoolExecutor writer = new ThreadPoolExecutor(
            1,
            1,
            0,
            TimeUnit.SECONDS,
            new LinkedBlockingQueue<>(MOST_WAITING),
            work -> {
                Thread thread = new Thread(work, "stages");
                thread.setDaemon(true);
                return thread;
            },
            (work, pool) -> {
                if (work instanceof Writing writing) {
                    writing.drop();
                }
            });

    private final Counter found;
    private final Counter notThere;

    @Autowired
    StageFolder(YubbleProperties properties, MeterRegistry meters) throws IOException {
        this(
                properties.data().toAbsolutePath().resolve("stages"),
                properties.stageDiskBytes(),
                CARE * properties.leastFreeBytes(),
                build(RefocusLine.class, PictureReader.class),
                meters);
    }

    StageFolder(Path root, long mostBytes, long leastFree, String build, MeterRegistry meters) throws IOException {
        found = meters.counter("yubble.stage.files", "found", "yes");
        notThere = meters.counter("yubble.stage.files", "found", "no");
        folder = root.resolve(build);
        this.mostBytes = mostBytes;
        this.leastFree = leastFree;
        known = CacheBuilder.newBuilder()
                .concurrencyLevel(1)
                .maximumWeight(mostBytes / WEIGHED)
                .weigher((String path, Long bytes) -> (int) (bytes / WEIGHED) + 1)
                .<String, Long>removalListener(gone -> {
                    if (gone.wasEvicted()) {
                        delete(folder.resolve(String.valueOf(gone.getKey())));
                    }
                })
                .build();
        Files.createDirectories(root.toAbsolutePath().getParent());
        if (Files.notExists(root)) {
            Files.createDirectory(root, OWNER_ONLY);
        }
        Files.createDirectories(folder);
        writer.execute(() -> begin(root));
    }

    /** Names what computes: by the sums of all its classes, or as nobody else when they are not in archives. */
    private static String build(Class<?>... ofEachPart) throws IOException {
        CRC32C sum = new CRC32C();
        for (Class<?> each : ofEachPart) {
            String place =
                    each.getProtectionDomain().getCodeSource().getLocation().toString();
            if (place.endsWith("/classes/")) {
                return UUID.randomUUID().toString();
            }
            URL archive = URI.create(place.startsWith("jar:") ? place : "jar:" + place + "!/")
                    .toURL();
            try (JarFile part = ((JarURLConnection) archive.openConnection()).getJarFile()) {
                part.stream()
                        .map(entry -> entry.getName() + entry.getCrc())
                        .forEach(entry -> sum.update(entry.getBytes(StandardCharsets.UTF_8)));
            }
        }
        return Long.toHexString(sum.getValue());
    }

    /** Removes what other builds have left, and knows what this one has. */
    private void begin(Path root) {
        try {
            for (Path other : below(root)) {
                if (!other.equals(folder)) {
                    FileSystemUtils.deleteRecursively(other);
                }
            }
            List<Path> files = new ArrayList<>();
            for (Path still : below(folder)) {
                files.addAll(below(still));
            }
            files.sort(Comparator.comparingLong(file -> file.toFile().lastModified()));
            for (Path file : files) {
                if (file.toString().endsWith(PARTIAL)) {
                    delete(file);
                } else {
                    known.put(folder.relativize(file).toString(), Files.size(file));
                }
            }
        } catch (IOException fault) {
            LOG.warn("results of stages cannot be kept: {}", fault.getMessage());
        }
    }

    private static List<Path> below(Path folder) throws IOException {
        try (Stream<Path> all = Files.list(folder)) {
            return all.toList();
        }
    }

    private static String path(String still, StageKey key) {
        return still + "/" + key.hash();
    }

    @Override
    public boolean has(String still, StageKey key) {
        return known.getIfPresent(path(still, key)) != null;
    }

    @Override
    public @Nullable ByteBuffer find(String still, StageKey key) {
        String path = path(still, key);
        if (known.getIfPresent(path) == null) {
            notThere.increment();
            return null;
        }
        Path file = folder.resolve(path);
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
            ByteBuffer all = channel.map(FileChannel.MapMode.READ_ONLY, 0, channel.size());
            if (all.remaining() > HEADER && all.getLong() == sum(all.duplicate())) {
                Files.setLastModifiedTime(file, FileTime.from(Instant.now()));
                found.increment();
                return all.slice();
            }
            LOG.warn("a kept result of a stage was damaged, and is made anew");
        } catch (NoSuchFileException gone) {
            LOG.debug("{} has just been let go of", path);
        } catch (IOException fault) {
            LOG.warn("a kept result of a stage cannot be read: {}", fault.getMessage());
        }
        notThere.increment();
        known.invalidate(path);
        delete(file);
        return null;
    }

    @Override
    public void keep(String still, StageKey key, Written written) {
        String path = path(still, key);
        boolean wanted = mostBytes > 0 && known.getIfPresent(path) == null;
        if (wanted && Instant.now().isAfter(pausedUntil) && asked.add(path)) {
            writer.execute(new Writing(path, written));
        }
    }

    private void pause() {
        pausedUntil = Instant.now().plus(PAUSE);
    }

    /** A file that is being written, or waits for it. */
    private final class Writing implements Runnable {
        private final String path;
        private final Written written;

        Writing(String path, Written written) {
            this.path = path;
            this.written = written;
        }

        @Override
        public void run() {
            Path file = folder.resolve(path);
            Path partial = folder.resolve(path + PARTIAL);
            try {
                if (Files.getFileStore(folder).getUsableSpace() < leastFree) {
                    pause();
                } else {
                    Files.createDirectories(folder.resolve(path).getParent());
                    write(partial);
                    long bytes = Files.size(partial);
                    Files.move(partial, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
                    known.put(path, bytes);
                }
            } catch (IOException | RuntimeException fault) {
                LOG.warn("a result of a stage cannot be kept: {}", fault.getMessage());
                delete(partial);
                pause();
            } finally {
                asked.remove(path);
            }
        }

        private void write(Path partial) throws IOException {
            try (FileChannel out = FileChannel.open(
                    partial,
                    StandardOpenOption.WRITE,
                    StandardOpenOption.CREATE,
                    StandardOpenOption.TRUNCATE_EXISTING)) {
                out.position(HEADER);
                SummedChannel summed = new SummedChannel(out);
                written.to(summed);
                out.write(ByteBuffer.allocate(HEADER).putLong(summed.sum()).flip(), 0);
            }
        }

        void drop() {
            asked.remove(path);
        }
    }

    /** Sums up what goes through. */
    private static final class SummedChannel implements WritableByteChannel {
        private final FileChannel to;
        private final CRC32C sum = new CRC32C();

        SummedChannel(FileChannel to) {
            this.to = to;
        }

        long sum() {
            return sum.getValue();
        }

        @Override
        public int write(ByteBuffer from) throws IOException {
            int bytes = from.remaining();
            sum.update(from.duplicate());
            while (from.hasRemaining()) {
                to.write(from);
            }
            return bytes;
        }

        @Override
        public boolean isOpen() {
            return to.isOpen();
        }

        @Override
        public void close() throws IOException {
            to.close();
        }
    }

    private static long sum(ByteBuffer content) {
        CRC32C out = new CRC32C();
        out.update(content);
        return out.getValue();
    }

    /** Removes what was made of stills whose files are gone. */
    void removeGone(FileStore files) throws IOException {
        for (Path still : below(folder)) {
            if (!files.has(still.getFileName().toString())) {
                for (Path file : below(still)) {
                    known.invalidate(folder.relativize(file).toString());
                }
                FileSystemUtils.deleteRecursively(still);
            }
        }
    }

    private static void delete(Path file) {
        try {
            Files.deleteIfExists(file);
        } catch (IOException fault) {
            LOG.warn("{} cannot be removed: {}", file, fault.getMessage());
        }
    }

    @Override
    public void destroy() {
        writer.shutdownNow();
    }
}
