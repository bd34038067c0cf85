package app.yubble.server.storage;

import app.yubble.server.problem.DamagedFileException;
import app.yubble.server.problem.FullDiskException;
import com.google.common.util.concurrent.Striped;
import io.micrometer.core.instrument.Counter;
import io.micrometer.core.instrument.Gauge;
import io.micrometer.core.instrument.MeterRegistry;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.Lock;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Files in an object store that all nodes share. What this node wrote or read lately also lies in a folder of its own, up to a size:
 * previews read a photo many times.
 */
final class ObjectStore implements FileStore {
    private static final Logger LOG = LoggerFactory.getLogger(ObjectStore.class);

    /** Larger files are read from the store as far as they are wanted, unless a program needs them as a file. */
    private static final long FETCHED = 100_000_000;
    /** Programs that read a file for a long time begin again now and then. */
    private static final Duration STAYS = Duration.ofHours(4);
    /** Of the room for it, that stays filled when there is too much. */
    private static final double KEPT = 0.8;

    private static final int MOST_TRIES = 3;
    private static final int LOCKS = 64;

    private final Bucket bucket;
    private final FolderStore near;
    private final long nearBytes;
    private final GoingFiles going;
    private final AtomicLong used = new AtomicLong();
    private final Counter atHand;
    private final Counter fetched;
    /** So that two who want the same file fetch it once. */
    private final Striped<Lock> fetching = Striped.lock(LOCKS);

    /**
     * @param near what is at hand
     * @param nearBytes as much of it is kept
     */
    ObjectStore(Bucket bucket, FolderStore near, long nearBytes, GoingFiles going, MeterRegistry meters)
            throws IOException {
        this.bucket = bucket;
        this.near = near;
        this.nearBytes = nearBytes;
        this.going = going;
        atHand = meters.counter("yubble.store.reads", "from", "hand");
        fetched = meters.counter("yubble.store.reads", "from", "store");
        Gauge.builder("yubble.store.hand", used, AtomicLong::get)
                .baseUnit("bytes")
                .register(meters);
        used.set(near.held().stream().mapToLong(FolderStore.Held::bytes).sum());
    }

    @Override
    public void requireRoom() {
        near.requireRoom();
    }

    @Override
    public Stored put(InputStream content) throws IOException {
        return uploaded(near.put(content));
    }

    @Override
    public Stored put(Writing writing) throws IOException {
        return uploaded(near.put(writing));
    }

    @Override
    public Path incoming() throws IOException {
        return near.incoming();
    }

    @Override
    public Stored keep(Path incoming) throws IOException {
        return uploaded(near.keep(incoming));
    }

    private Stored uploaded(Stored stored) throws IOException {
        String hash = stored.hash();
        boolean there = false;
        try {
            for (int tries = 0; !there && tries < MOST_TRIES; tries++) {
                // Also when it is there already: from then on it is as if it were new, for those who remove what is
                // old.
                bucket.upload(near.local(hash), hash);
                going.await(hash);
                there = bucket.find(hash).isPresent();
            }
            if (!there) {
                throw new IOException("what was stored was not there afterwards");
            }
        } finally {
            if (!there) {
                near.remove(hash, Instant.MAX);
            }
        }
        used.addAndGet(stored.bytes());
        trim(nearBytes, STAYS);
        return stored;
    }

    /** Bytes at hand on this node. */
    long used() {
        return used.get();
    }

    private void trim(long most, Duration stays) throws IOException {
        if (used.get() <= most) {
            return;
        }
        List<FolderStore.Held> all = near.held();
        long bytes = all.stream().mapToLong(FolderStore.Held::bytes).sum();
        Instant young = Instant.now().minus(stays);
        for (FolderStore.Held each : all) {
            if (bytes <= KEPT * most || each.used().isAfter(young)) {
                break;
            }
            bytes -= near.remove(each.hash(), Instant.MAX) ? each.bytes() : 0;
        }
        used.set(bytes);
    }

    @Override
    public Path local(String hash) {
        try {
            fetch(hash);
            return near.local(hash);
        } catch (IOException fault) {
            throw new UncheckedIOException(fault.getMessage(), fault);
        }
    }

    private void fetch(String hash) throws IOException {
        Lock lock = fetching.get(hash);
        lock.lock();
        try {
            if (near.has(hash)) {
                near.touch(hash);
                atHand.increment();
                return;
            }
            try {
                fetchNow(hash);
            } catch (FullDiskException full) {
                trim(0, Duration.ZERO);
                LOG.warn("the disk is full; what was at hand of the store has gone");
                fetchNow(hash);
            }
        } finally {
            lock.unlock();
        }
    }

    private void fetchNow(String hash) throws IOException {
        try (InputStream in = remote(hash)) {
            used.addAndGet(near.put(in).bytes());
        } catch (UncheckedIOException fault) {
            throw fault.getCause();
        }
        trim(nearBytes, STAYS);
    }

    /** Checked at its end. */
    private InputStream remote(String hash) throws IOException {
        fetched.increment();
        return new CheckedInput(new RemoteInput(from -> bucket.open(hash, from), length(hash)), hash);
    }

    @Override
    public boolean has(String hash) throws IOException {
        return bucket.find(hash).isPresent();
    }

    @Override
    public InputStream open(String hash) throws IOException {
        if (!near.has(hash) && length(hash) > FETCHED) {
            return remote(hash);
        }
        fetch(hash);
        try {
            return near.open(hash);
        } catch (DamagedFileException gone) {
            // Somebody needed its room just now.
            return remote(hash);
        }
    }

    @Override
    public long length(String hash) throws IOException {
        return near.has(hash)
                ? near.length(hash)
                : bucket.find(hash)
                        .orElseThrow(() -> new DamagedFileException(hash, new IOException("not in the store")))
                        .bytes();
    }

    @Override
    public Set<String> storedBefore(Instant moment) throws IOException {
        Set<String> out = new HashSet<>();
        bucket.list((hash, stored) -> {
            if (stored.isBefore(moment)) {
                out.add(hash);
            }
        });
        return out;
    }

    @Override
    public boolean remove(String hash, Instant moment) throws IOException {
        boolean gone = going.remove(hash, () -> {
            if (bucket.find(hash)
                    .filter(found -> found.stored().isBefore(moment))
                    .isEmpty()) {
                return false;
            }
            bucket.delete(hash);
            return true;
        });
        if (gone && near.has(hash)) {
            used.addAndGet(-near.length(hash));
            near.remove(hash, Instant.MAX);
        }
        return gone;
    }

    @Override
    public void removeLeftOver(Instant moment) throws IOException {
        near.removeLeftOver(moment);
        bucket.removeLeftOver(moment);
    }
}
