package app.yubble.server.memory;

import app.yubble.server.YubbleProperties;
import app.yubble.server.problem.RefusedException;
import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.core.instrument.Timer;
import java.util.Locale;
import java.util.concurrent.Semaphore;
import java.util.function.Supplier;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/**
 * Shares the memory out among all that decode or make pictures at full size: each says how many bytes it takes before it
 * begins, and waits until there is room. What takes more than there is beside the caches has all of it to itself and empties
 * them; what this server can never do is refused.
 *
 * <p>Files that came in have a gate of their own, which comes first: who holds a file may wait for memory, never the other way
 * round.
 */
@Component
public class MemoryGate {
    /** Bytes that a decoded picture takes for each pixel: three planes, and the samples that they are read from. */
    private static final long DECODING = 16;
    /** The same of a file with 16 bits a channel, or of a kind that is converted before it is decoded. */
    private static final long DECODING_DEEP = 26;
    /** Of a plane and the samples that it is read from. */
    private static final long DECODING_PLANE = 16;
    /** Bytes for each pixel that a line made part by part holds at once. */
    private static final long LINE = 21;
    /** The same of a picture looked at at 100 %, most of which stays in the caches. */
    private static final long LOOK = 30;

    /** Bytes that an estimate of depth takes, which works on the reduced picture however large the photo is. */
    private static final long ESTIMATING = 300_000_000;

    /** Bytes that the server itself, its sessions and its jobs take. */
    private static final long OWN = 250_000_000;
    /** Pixels from which a line has all memory to itself: what it looks things up in does not stay for others. */
    private static final long LARGE = 40_000_000;
    /** Megapixels of all lines at once: two of 24 are no faster than one after the other, as each uses all cores. */
    private static final int LINE_MEGAPIXELS = 40;
    /** Share of the heap for files as they came in. */
    private static final int FILES = 12;
    /** Permits are counted in so many bytes. */
    private static final long UNIT = 1_000_000;

    private final LastUsed kept;
    /** In units, beside full caches. */
    private final int room;
    /** In units, when the caches are nearly empty. */
    private final int most;

    private final Semaphore permits;
    /** How long whoever wants memory waits for it. */
    private final Timer waits;
    /** Of whole lines; who waits for it does not stand in the way of those who look at a picture. */
    private final Semaphore lines = new Semaphore(LINE_MEGAPIXELS, true);

    /** Small pictures would find room for hundreds at once, which only takes turns from everybody else. */
    private final Semaphore decoders = new Semaphore(2 * Runtime.getRuntime().availableProcessors(), true);

    private final int fileRoom;
    private final Semaphore files;

    @Autowired
    MemoryGate(LastUsed kept, YubbleProperties properties, MeterRegistry meters) {
        this(kept, Runtime.getRuntime().maxMemory(), properties.cacheBytes() + properties.viewerBytes(), meters);
    }

    /** @param caches bytes that they may hold */
    MemoryGate(LastUsed kept, long heap, long caches, MeterRegistry meters) {
        this.kept = kept;
        waits = meters.timer("yubble.gate.wait");
        long ours = Math.max(heap / 2, heap - OWN);
        room = (int) (Math.max(heap / 4, ours - LastUsed.within(heap, caches)) / UNIT);
        most = (int) Math.max(room, (ours - LastUsed.within(heap, caches) / LastUsed.SHORT - heap / FILES) / UNIT);
        permits = new Semaphore(room, true);
        fileRoom = (int) Math.max(1, heap / FILES / UNIT);
        files = new Semaphore(fileRoom, true);
    }

    /** For what goes through all of the line at full size. */
    public <T> T withLine(long pixels, Supplier<T> work) {
        int wanted = (int) Math.max(1, Math.min(LINE_MEGAPIXELS, pixels / UNIT));
        lines.acquireUninterruptibly(wanted);
        try {
            return with(pixels < LARGE ? LINE * pixels : Math.max(LINE * pixels, (room + 1) * UNIT), work);
        } finally {
            lines.release(wanted);
        }
    }

    /** Whether nothing that takes much memory is under way. */
    public boolean isIdle() {
        return permits.availablePermits() == room;
    }

    /**
     * For a file that is decoded whole.
     *
     * @param deep whether it has more than 8 bits a channel
     */
    public <T> T decoding(long pixels, boolean deep, Supplier<T> work) {
        decoders.acquireUninterruptibly();
        try {
            return with((deep ? DECODING_DEEP : DECODING) * pixels, work);
        } finally {
            decoders.release();
        }
    }

    /** For a file that becomes one plane: depth, a mask. */
    public <T> T decodingPlane(long pixels, Supplier<T> work) {
        return with(DECODING_PLANE * pixels, work);
    }

    /** For a picture at a size that is larger than any whole preview. */
    public <T> T looking(long pixels, Supplier<T> work) {
        return with(LOOK * pixels, work);
    }

    /** For an estimate of depth. */
    public void estimating(Runnable work) {
        with(ESTIMATING, () -> {
            work.run();
            return true;
        });
    }

    /** While a file that came in takes so many bytes. */
    <T> T holding(long bytes, Supplier<T> work) {
        int wanted = (int) Math.min(fileRoom, bytes / UNIT + 1);
        files.acquireUninterruptibly(wanted);
        try {
            return work.get();
        } finally {
            files.release(wanted);
        }
    }

    private <T> T with(long bytes, Supplier<T> work) {
        long units = bytes / UNIT + 1;
        if (units > most) {
            throw new RefusedException(String.format(
                    Locale.ROOT,
                    "This takes %.1f GB of memory; the server has %.1f GB for one picture. A smaller picture works.",
                    units / 1e3,
                    most / 1e3));
        }
        int wanted = (int) Math.min(room, units);
        waits.record(() -> permits.acquireUninterruptibly(wanted));
        try {
            return units > room ? kept.makingRoom(work) : work.get();
        } finally {
            permits.release(wanted);
        }
    }
}
