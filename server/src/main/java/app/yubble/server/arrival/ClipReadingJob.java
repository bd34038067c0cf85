package app.yubble.server.arrival;

import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.media.clip.ClipFile;
import app.yubble.media.clip.ClipInfo;
import app.yubble.media.clip.ClipProbe;
import app.yubble.media.clip.ClipScan;
import app.yubble.media.clip.ClipToolException;
import app.yubble.media.clip.UnreadableClipException;
import app.yubble.media.picture.PictureWriter;
import app.yubble.server.YubbleProperties;
import app.yubble.server.account.Accounts;
import app.yubble.server.depth.DepthClipJob;
import app.yubble.server.depth.DepthJob;
import app.yubble.server.jobs.BrokenOffException;
import app.yubble.server.jobs.ClipLane;
import app.yubble.server.jobs.JobStarter;
import app.yubble.server.jobs.StoredProgress;
import app.yubble.server.jobs.Urgency;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import app.yubble.server.storage.FileStore;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import org.jobrunr.jobs.annotations.Job;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Goes through a clip that came in: the time of every frame, the cuts, a small file, thumbnails. Then its depth begins. */
@Component
public class ClipReadingJob {
    private static final Logger LOG = LoggerFactory.getLogger(ClipReadingJob.class);
    private static final int POSTER_SIDE = 480;
    /** Share of the clip at which the poster is: the first frame is often still dark. */
    private static final double POSTER_AT = 0.1;
    /** Of small pictures that are only looked at. */
    private static final double QUALITY = 0.8;

    private final Shots shots;
    private final FileStore files;
    private final DepthJob depth;
    private final Accounts accounts;
    private final YubbleProperties properties;
    private final DepthClipJob depthClips;
    private final JobStarter starter;
    private final ClipLane lane;

    ClipReadingJob(
            Shots shots,
            FileStore files,
            DepthJob depth,
            Accounts accounts,
            YubbleProperties properties,
            DepthClipJob depthClips,
            JobStarter starter,
            ClipLane lane) {
        this.depthClips = depthClips;
        this.shots = shots;
        this.files = files;
        this.depth = depth;
        this.accounts = accounts;
        this.properties = properties;
        this.starter = starter;
        this.lane = lane;
    }

    /** A file with depth of every frame. */
    record DepthFile(String name, String hash) {}

    void enqueue(UUID shot, @Nullable DepthFile file) {
        String name = file == null ? "" : file.name();
        String hash = file == null ? "" : file.hash();
        starter.<ClipReadingJob>enqueue(
                shots.byId(shot).accountId(), Urgency.READING, job -> job.run(shot, name, hash));
    }

    /**
     * Runs in a worker.
     *
     * @param depthName of a file with depth, empty for none
     */
    @Job(name = "Reading of clip %0", retries = 3)
    public void run(UUID id, String depthName, String depthHash) {
        lane.<ClipReadingJob>run(() -> read(id, depthName, depthHash), job -> job.run(id, depthName, depthHash));
    }

    private void read(UUID id, String depthName, String depthHash) {
        long start = System.nanoTime();
        try {
            Shot shot = shots.byId(id);
            if (shot.sheetHash() == null) {
                Found found = scanned(shot);
                LOG.info("clip {} read in {} ms", shot.name(), (System.nanoTime() - start) / 1_000_000);
                shots.read(id, found.reading(), found.notice());
            }
            if (!depthHash.isEmpty()) {
                depthClips.enqueue(id, depthName, depthHash);
                return;
            }
            depth.enqueue(id, accounts.depthEngine(shot.accountId()), properties.clipDepth());
        } catch (CancellationException gone) {
            BrokenOffException.rethrow(gone);
            LOG.info("reading of clip {} cancelled", id);
        } catch (UnreadableClipException | ClipToolException | IOException fault) {
            BrokenOffException.rethrow(fault);
            LOG.warn("clip {} could not be read", id, fault);
            shots.reading(id, Shot.State.FAILED, 0, "The clip could not be read: " + fault.getMessage());
        }
    }

    /** @param notice what its owner should know; empty when all is well */
    private record Found(Shot.ClipReading reading, String notice) {}

    private Found scanned(Shot shot) throws IOException {
        Path original = files.local(shot.contentHash());
        Path proxy = files.incoming();
        Path times = files.incoming();
        try {
            ClipInfo info = ClipProbe.probe(original);
            StoredProgress progress =
                    new StoredProgress(done -> shots.reading(shot.id(), Shot.State.READING, done, null));
            ClipScan scan = ClipScan.of(
                    original, info, proxy, times, new ClipScan.Limits(properties.mostClipFrames()), progress);
            Size small = ClipScan.proxySize(info.size());
            ClipFile file = new ClipFile(proxy, scan.sheet().ofProxy(small));
            var poster = file.frame((int) (POSTER_AT * scan.sheet().frames()));
            String posterHash = files.put((FileStore.Writing) out -> PictureWriter.writeSeen(
                            Resample.toSize(poster, small.fitting(POSTER_SIDE)),
                            info.colours().curve(),
                            QUALITY,
                            out))
                    .hash();
            String stripHash = files.put(
                            (FileStore.Writing) out -> PictureWriter.writeJpeg(scan.thumbnails(), QUALITY, out))
                    .hash();
            String sheetHash =
                    files.put(new ByteArrayInputStream(scan.sheet().toJson())).hash();
            return new Found(
                    new Shot.ClipReading(
                            sheetHash,
                            scan.sheet().frames(),
                            scan.sheet().totalMicros(),
                            files.keep(proxy).hash(),
                            posterHash,
                            stripHash,
                            scan.thumbnailCount()),
                    notice(info, scan));
        } finally {
            Files.deleteIfExists(proxy);
            Files.deleteIfExists(times);
        }
    }

    /** What is worth knowing of a clip that is taken all the same. */
    private static String notice(ClipInfo info, ClipScan scan) {
        List<String> all = new ArrayList<>();
        long expected = Math.round(info.micros() / 1e6 * info.rate());
        if (!scan.complaint().isEmpty()) {
            all.add(String.format(
                    Locale.ROOT,
                    "The clip is damaged or was cut off: %d frames could be read%s.",
                    scan.sheet().frames(),
                    expected > scan.sheet().frames() ? " of about " + expected : ""));
        }
        if (!info.colours().told()) {
            all.add("The clip does not say how its colours are stored; they are taken for "
                    + (info.colours().matrix().equals("bt709") ? "BT.709." : "BT.601."));
        }
        if (info.interlaced()) {
            all.add("The clip is interlaced; its frames are taken as whole pictures.");
        }
        if (!info.hasSquarePixels()) {
            all.add("The clip's pixels are not square: it is shown narrower or wider here than it is delivered.");
        }
        return String.join(" ", all);
    }
}
