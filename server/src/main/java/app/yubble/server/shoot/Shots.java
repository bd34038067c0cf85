package app.yubble.server.shoot;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthShapeException;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.subject.Quality;
import app.yubble.core.subject.Subject;
import app.yubble.media.depthfile.CameraDepth;
import app.yubble.media.depthfile.CameraDepthReader;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.picture.DecodedPicture;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureFile;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.PictureWriter;
import app.yubble.media.picture.UnreadablePictureException;
import app.yubble.server.jobs.MemoryGate;
import app.yubble.server.problem.NotFoundException;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.storage.FileStore;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Brings photos and depth files in and finds them again. */
@Service
public class Shots {
    /** Longer side of the reduced picture that previews are made from. */
    public static final int PROXY_SIDE = 2560;

    private static final int THUMBNAIL_SIDE = 480;
    private static final int LONGEST_NAME = 200;
    private static final int LONGEST_PROBLEM = 500;

    private final ShootRepository shoots;
    private final ShotRepository shots;
    private final DepthMapRepository depthMaps;
    private final FileStore files;
    private final PictureReader reader;
    private final MemoryGate gate;
    private final TransactionTemplate transaction;

    Shots(
            ShootRepository shoots,
            ShotRepository shots,
            DepthMapRepository depthMaps,
            FileStore files,
            PictureReader reader,
            MemoryGate gate,
            TransactionTemplate transaction) {
        this.shoots = shoots;
        this.shots = shots;
        this.depthMaps = depthMaps;
        this.files = files;
        this.reader = reader;
        this.gate = gate;
        this.transaction = transaction;
    }

    /**
     * Decodes and stores a photo. Nothing is kept when it cannot be read.
     *
     * @throws UnreadablePictureException with the file's name and the reason
     */
    public Shot bringIn(UUID account, UUID shoot, String fileName, byte[] content) {
        Shoot home = shoots.findByIdAndAccountId(shoot, account).orElseThrow(() -> new NotFoundException("shoot"));
        String name = plainName(fileName);
        try {
            PictureFile file = PictureFile.of(content);
            Origin origin = reader.inspect(file);
            return gate.with(origin.size().pixels(), () -> store(account, home, name, file));
        } catch (UnreadablePictureException fault) {
            throw new UnreadablePictureException(name + ": " + fault.getMessage(), fault);
        }
    }

    private Shot store(UUID account, Shoot home, String name, PictureFile file) {
        DecodedPicture decoded = reader.read(file);
        Size size = decoded.picture().size();
        Picture proxy = Resample.toSize(decoded.picture(), size.fitting(PROXY_SIDE));
        Picture thumbnail = Resample.toSize(proxy, size.fitting(THUMBNAIL_SIDE));
        try {
            String proxyHash = written(proxy, decoded.origin(), PictureWriter.Format.PNG16);
            String thumbnailHash = written(thumbnail, decoded.origin(), PictureWriter.Format.JPEG);
            FileStore.Stored stored = files.put(new ByteArrayInputStream(file.bytes()));
            Shot shot = new Shot(account, home.id(), name, stored.hash(), stored.bytes(), decoded.origin());
            shot.show(proxyHash, thumbnailHash);
            keepCameraDepth(shot, file, size);
            return byId(shot.id());
        } catch (IOException e) {
            throw new UncheckedIOException("the photo could not be stored", e);
        }
    }

    // Depth that cannot be used does not spoil the photo: its owner is told.
    private void keepCameraDepth(Shot shot, PictureFile file, Size size) {
        Optional<CameraDepth> stored = Optional.empty();
        try {
            stored = new CameraDepthReader(reader).read(file, size);
        } catch (UnreadablePictureException | DepthShapeException fault) {
            shot.notice(shortened(sentence(String.valueOf(fault.getMessage()))));
        }
        shots.save(shot);
        stored.ifPresent(depth -> put(
                shot.id(),
                DepthChoice.Source.CAMERA,
                new DepthMap.Content(
                        depth.format(),
                        stored(depth.nearness()),
                        depth.nearness().size(),
                        null,
                        null,
                        null,
                        depth.nearMetres(),
                        depth.farMetres())));
    }

    private static String sentence(String text) {
        return text.substring(0, 1).toUpperCase(Locale.ROOT) + text.substring(1) + ".";
    }

    private String written(Picture picture, Origin origin, PictureWriter.Format format) throws IOException {
        return files.put((FileStore.Writing)
                        out -> PictureWriter.write(picture, origin.withSize(picture.size()), format, 0.85, out))
                .hash();
    }

    /** The last part of what a browser calls the file, without anything that could be a path. */
    static String plainName(String fileName) {
        String last = fileName.substring(Math.max(fileName.lastIndexOf('/'), fileName.lastIndexOf('\\')) + 1);
        String clean = last.replaceAll("\\p{Cntrl}", "").strip();
        String named = clean.isEmpty() ? "photo" : clean;
        return named.length() <= LONGEST_NAME ? named : named.substring(named.length() - LONGEST_NAME);
    }

    public Shot owned(UUID id, UUID account) {
        return shots.findByIdAndAccountId(id, account).orElseThrow(() -> new NotFoundException("shot"));
    }

    /** For jobs, which act for the shot's own account. */
    public Shot byId(UUID id) {
        return shots.findById(id).orElseThrow(() -> new NotFoundException("shot"));
    }

    private Shot locked(UUID id, UUID account) {
        return shots.findLockedByIdAndAccountId(id, account).orElseThrow(() -> new NotFoundException("shot"));
    }

    @Transactional
    public Shot rename(UUID id, UUID account, String name) {
        Shot shot = locked(id, account);
        shot.rename(plainName(name));
        return shot;
    }

    public List<DepthMap> depthMaps(UUID shot) {
        return depthMaps.findByShotId(shot);
    }

    public List<Shot> changedAfter(UUID account, Instant after) {
        return shots.findByAccountIdAndChangedAfterOrderByChanged(account, after);
    }

    /** The number of a new estimate; see {@link Shot#beginDepth}. */
    @Transactional
    public UUID beginDepth(UUID id) {
        return shots.findLockedById(id)
                .orElseThrow(() -> new NotFoundException("shot"))
                .beginDepth();
    }

    /** How far estimate {@code run} has come; false when it is no longer wanted. */
    @Transactional
    public boolean reach(UUID id, UUID run, Shot.State state, double progress, @Nullable String problem) {
        return shots.findLockedById(id)
                .filter(shot -> shot.runs(run))
                .map(shot -> {
                    shot.reach(state, progress, problem);
                    return true;
                })
                .orElse(false);
    }

    /** Stops the estimate that is under way; the depth that was there stays. */
    @Transactional
    public Shot cancelDepth(UUID id, UUID account) {
        Shot shot = locked(id, account);
        if (shot.state() == Shot.State.READY || shot.state() == Shot.State.FAILED) {
            return shot;
        }
        shot.endDepth();
        boolean some = !depthMaps.findByShotId(id).isEmpty();
        shot.reach(
                some ? Shot.State.READY : Shot.State.FAILED,
                some ? 1 : 0,
                some
                        ? null
                        : "The estimate was cancelled before there was any depth. Estimate again, or bring a map in.");
        return shot;
    }

    /** Stores a depth file for a shot, replacing the one before; a file that does not fit changes nothing. */
    public void bringInDepth(Shot shot, String fileName, byte[] content) {
        String name = plainName(fileName);
        Plane plane;
        try {
            plane = new DepthFileReader(reader).read(content, shot.size());
        } catch (UnreadablePictureException fault) {
            throw new UnreadablePictureException(name + ": " + fault.getMessage(), fault);
        } catch (IllegalArgumentException fault) {
            throw new RefusedException(name + ": " + fault.getMessage());
        }
        putDepth(shot.id(), DepthChoice.Source.FILE, name, DepthEstimate.of(plane), null);
    }

    /** Stores a map, and the matte that came with it, as 16-bit grey PNG under its source. */
    public void putDepth(
            UUID shot, DepthChoice.Source source, String origin, DepthEstimate estimate, @Nullable Quality quality) {
        put(shot, source, content(origin, estimate, quality));
    }

    private DepthMap.Content content(String origin, DepthEstimate estimate, @Nullable Quality quality) {
        Subject subject = estimate.subject();
        return new DepthMap.Content(
                origin,
                stored(estimate.nearness()),
                estimate.nearness().size(),
                subject == null ? null : stored(subject.matte()),
                subject == null ? null : subject.confidence(),
                quality,
                null,
                null);
    }

    /** The same for estimate {@code run}; false, and nothing stored, when it is no longer wanted. */
    boolean putEstimate(UUID shot, UUID run, String origin, DepthEstimate estimate, Quality quality) {
        if (!byId(shot).runs(run)) {
            return false;
        }
        DepthMap.Content content = content(origin, estimate, quality);
        // Whoever cancels holds the shot's lock, so either it is seen here or it comes after what is stored.
        return Boolean.TRUE.equals(transaction.execute(status -> {
            boolean wanted =
                    shots.findLockedById(shot).filter(each -> each.runs(run)).isPresent();
            if (wanted) {
                replace(shot, DepthChoice.Source.ESTIMATED, content);
            }
            return wanted;
        }));
    }

    /** The depth that was there before stays usable, with the reason shown; without any the shot has failed. */
    @Transactional
    public void failDepth(UUID id, UUID run, String problem) {
        shots.findLockedById(id).filter(shot -> shot.runs(run)).ifPresent(shot -> {
            shot.endDepth();
            boolean some = !depthMaps.findByShotId(id).isEmpty();
            shot.reach(some ? Shot.State.READY : Shot.State.FAILED, some ? 1 : 0, shortened(problem));
        });
    }

    private static String shortened(String text) {
        return text.length() <= LONGEST_PROBLEM ? text : text.substring(0, LONGEST_PROBLEM - 3) + "...";
    }

    private void put(UUID shot, DepthChoice.Source source, DepthMap.Content content) {
        transaction.executeWithoutResult(status -> replace(shot, source, content));
    }

    private void replace(UUID shot, DepthChoice.Source source, DepthMap.Content content) {
        DepthMap map = depthMaps.findByShotIdAndSource(shot, source).orElseGet(() -> new DepthMap(shot, source));
        map.replace(content);
        depthMaps.save(map);
    }

    String stored(Plane plane) {
        try {
            return files.put((FileStore.Writing) out -> PictureWriter.writeGrey(plane, out))
                    .hash();
        } catch (IOException e) {
            throw new UncheckedIOException("a map could not be stored", e);
        }
    }
}
