package app.yubble.server.shoot;

import app.yubble.core.depth.DepthShapeException;
import app.yubble.core.lens.CutLight;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.media.clip.ClipInfo;
import app.yubble.media.depthfile.CameraDepth;
import app.yubble.media.depthfile.CameraDepthReader;
import app.yubble.media.picture.DecodedPicture;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureFile;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.PictureWriter;
import app.yubble.media.picture.UnreadablePictureException;
import app.yubble.server.account.Allowance;
import app.yubble.server.jobs.Unfinished;
import app.yubble.server.memory.MemoryGate;
import app.yubble.server.paging.Page;
import app.yubble.server.problem.ConflictException;
import app.yubble.server.problem.NotFoundException;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.storage.FileStore;
import app.yubble.server.storage.StoredPictures;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Brings photos and depth files in and finds them again. */
@Service
public class Shots {
    /** Longer side of the reduced picture that previews are made from. */
    public static final int PROXY_SIDE = 2560;

    private static final int THUMBNAIL_SIDE = 480;
    private static final int LONGEST_NAME = 200;
    /** That nobody works on and that are taken up at a time. */
    private static final int MOST_LOST = 200;

    private static final int LONGEST_PROBLEM = 500;

    private final ShootRepository shoots;
    private final ShotRepository shots;
    private final DepthMaps depthMaps;
    private final FileStore files;
    private final PictureReader reader;
    private final MemoryGate gate;
    private final StoredPictures pictures;
    private final Allowance allowance;

    Shots(
            ShootRepository shoots,
            ShotRepository shots,
            DepthMaps depthMaps,
            FileStore files,
            PictureReader reader,
            MemoryGate gate,
            StoredPictures pictures,
            Allowance allowance) {
        this.allowance = allowance;
        this.shoots = shoots;
        this.shots = shots;
        this.depthMaps = depthMaps;
        this.files = files;
        this.reader = reader;
        this.gate = gate;
        this.pictures = pictures;
    }

    /**
     * Decodes and stores a photo. Nothing is kept when it cannot be read.
     *
     * @throws UnreadablePictureException with the file's name and the reason
     */
    public Shot bringIn(UUID account, UUID shoot, String fileName, byte[] content) {
        Shoot home = requireShoot(account, shoot);
        String name = plainName(fileName);
        allowance.requireShot(account, content.length);
        allowance.requireWork(account, 1);
        try {
            PictureFile file = PictureFile.of(content);
            Origin origin = reader.inspect(file);
            return decoding(origin, () -> store(account, home, name, file));
        } catch (UnreadablePictureException fault) {
            throw new UnreadablePictureException(name + ": " + fault.getMessage(), fault);
        }
    }

    /**
     * Takes a retouched file for a photo that is there: depth, touch-ups, versions and history stay.
     *
     * @throws RefusedException when it has another shape
     * @throws UnreadablePictureException with the file's name and the reason
     */
    public Shot replace(UUID id, UUID account, String fileName, byte[] content) {
        Shot shot = owned(id, account);
        String name = plainName(fileName);
        if (shot.isClip()) {
            throw new RefusedException("A clip cannot be replaced; bring the new one in beside it.");
        }
        if (shot.isBusy()) {
            throw new ConflictException("The depth of this shot is being found. Wait until it is there.");
        }
        allowance.requireBytes(account, content.length - shot.bytes());
        try {
            PictureFile file = PictureFile.of(content);
            Origin origin = reader.inspect(file);
            requireShape(name, origin.size(), shot.size());
            return decoding(origin, () -> replaced(shot, file));
        } catch (UnreadablePictureException fault) {
            throw new UnreadablePictureException(name + ": " + fault.getMessage(), fault);
        }
    }

    private Shot decoding(Origin origin, Supplier<Shot> work) {
        return gate.decoding(origin.size().pixels(), origin.isDeep(), work);
    }

    private static void requireShape(String name, Size size, Size before) {
        if (!size.hasShapeOf(before)) {
            throw new RefusedException(name + " has another shape: " + size.width() + " x " + size.height()
                    + " pixels instead of " + before.width() + " x " + before.height()
                    + ". Depth and touch-ups would not lie where they belong.");
        }
    }

    private Shot replaced(Shot shot, PictureFile file) {
        DecodedPicture decoded = reader.read(file);
        try {
            show(shot, decoded);
            FileStore.Stored stored = files.put(new ByteArrayInputStream(file.bytes()));
            shot.replace(stored.hash(), stored.bytes(), decoded.origin());
            shots.save(shot);
            return byId(shot.id());
        } catch (IOException e) {
            throw new UncheckedIOException("the photo could not be stored", e);
        }
    }

    private void show(Shot shot, DecodedPicture decoded) {
        Size size = decoded.picture().size();
        Picture proxy = Resample.toSize(decoded.picture(), size.fitting(PROXY_SIDE));
        Picture thumbnail = Resample.toSize(proxy, size.fitting(THUMBNAIL_SIDE));
        shot.show(
                pictures.put(proxy, decoded.origin(), PictureWriter.Format.PNG16),
                pictures.put(thumbnail, decoded.origin(), PictureWriter.Format.JPEG));
        shot.knowCutLight(pictures.put(PhotoMaterial.stored(CutLight.of(decoded.picture()), size.fitting(PROXY_SIDE))));
    }

    private Shot store(UUID account, Shoot home, String name, PictureFile file) {
        DecodedPicture decoded = reader.read(file);
        Size size = decoded.picture().size();
        try {
            FileStore.Stored stored = files.put(new ByteArrayInputStream(file.bytes()));
            Shot shot = new Shot(account, home.id(), name, stored.hash(), stored.bytes(), decoded.origin());
            show(shot, decoded);
            Optional<CameraDepth> depth = Optional.empty();
            try {
                depth = new CameraDepthReader(reader).read(file, size);
            } catch (UnreadablePictureException | DepthShapeException fault) {
                // Depth that cannot be used does not spoil the photo: its owner is told.
                shot.notice(shortened(sentence(String.valueOf(fault.getMessage()))));
            }
            shots.save(shot);
            depth.ifPresent(map -> depthMaps.putCamera(shot.id(), map));
            return byId(shot.id());
        } catch (IOException e) {
            throw new UncheckedIOException("the photo could not be stored", e);
        }
    }

    /** A clip whose file has been stored; it has no picture yet. */
    @Transactional
    public Shot bringInClip(UUID account, UUID shoot, String fileName, FileStore.Stored stored, ClipInfo info) {
        Shoot home = requireShoot(account, shoot);
        allowance.requireShot(account, stored.bytes());
        allowance.requireClip(account, info.micros());
        return shots.save(new Shot(account, home.id(), plainName(fileName), stored.hash(), stored.bytes(), info));
    }

    /** Those that wait for their depth or their frames and have not moved on since. */
    public List<UUID> untouchedSince(Instant moment) {
        return shots
                .findByStateNotInAndChangedBeforeOrderByChanged(
                        List.of(Shot.State.READY, Shot.State.FAILED), moment, Limit.of(MOST_LOST))
                .stream()
                .map(Shot::id)
                .toList();
    }

    /** Takes one of them on; false when it has moved on since. */
    @Transactional
    public boolean claim(UUID id, Instant moment) {
        Shot shot = shots.findLockedById(id).orElse(null);
        if (shot == null || !shot.isBusy() || !shot.changed().isBefore(moment)) {
            return false;
        }
        boolean old = shot.created().isBefore(moment.minus(Unfinished.TRIED_FOR));
        if (old) {
            shot.reach(Shot.State.FAILED, 0, "The server stopped over this. Estimate its depth again.");
        } else {
            shot.touch();
        }
        return !old;
    }

    /** @throws NotFoundException when it is not there or somebody else's */
    public Shoot requireShoot(UUID account, UUID shoot) {
        return shoots.findByIdAndAccountId(shoot, account).orElseThrow(() -> new NotFoundException("shoot"));
    }

    /** Stores what was found when a clip was gone through. */
    @Transactional
    public void read(UUID id, Shot.ClipReading found, String notice) {
        shots.findLockedById(id).ifPresent(shot -> {
            shot.read(found);
            if (!notice.isEmpty()) {
                shot.notice(shortened(notice));
            }
            shot.reach(Shot.State.WAITING, 0, null);
        });
    }

    /** How far a clip has been gone through; false when it is gone. */
    @Transactional
    public boolean reading(UUID id, Shot.State state, double progress, @Nullable String problem) {
        return shots.findLockedById(id)
                .map(shot -> {
                    shot.reach(state, progress, problem == null ? null : shortened(problem));
                    return true;
                })
                .orElse(false);
    }

    /** The last part of what a browser calls the file, without anything that could be a path. */
    public static String plainName(String fileName) {
        String last = fileName.substring(Math.max(fileName.lastIndexOf('/'), fileName.lastIndexOf('\\')) + 1);
        String clean = last.replaceAll("\\p{Cntrl}", "").strip();
        String named = clean.isEmpty() ? "photo" : clean;
        return named.length() <= LONGEST_NAME ? named : named.substring(named.length() - LONGEST_NAME);
    }

    private static String sentence(String text) {
        return text.substring(0, 1).toUpperCase(Locale.ROOT) + text.substring(1) + ".";
    }

    /** The shots of a shoot, in the order in which they came in. */
    /** All of an account, the oldest first. */
    @Transactional(readOnly = true)
    public List<Shot> all(UUID account) {
        return shots.findByAccountIdOrderByCreatedAscIdAsc(account);
    }

    @Transactional(readOnly = true)
    public Page<Shot> page(UUID shoot, UUID account, @Nullable UUID after, int count) {
        if (shoots.findByIdAndAccountId(shoot, account).isEmpty()) {
            throw new NotFoundException("shoot");
        }
        Limit oneMore = Limit.of(count + 1);
        return Page.of(
                after == null
                        ? shots.findByShootIdAndAccountIdOrderByCreatedAscIdAsc(shoot, account, oneMore)
                        : shots.findAfter(shoot, account, owned(after, account).id(), oneMore),
                count,
                Shot::id);
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

    public void delete(UUID id, UUID account) {
        shots.delete(owned(id, account));
    }

    @Transactional
    public Shot rename(UUID id, UUID account, String name) {
        Shot shot = locked(id, account);
        shot.rename(plainName(name));
        return shot;
    }

    /** Those that are still there. */
    public List<Shot> all(Collection<UUID> ids) {
        return shots.findByIdIn(ids);
    }

    /** The number of a new estimate; see {@link Shot#beginDepth}. */
    @Transactional
    public UUID beginDepth(UUID id) {
        return shots.findLockedById(id)
                .orElseThrow(() -> new NotFoundException("shot"))
                .beginDepth();
    }

    /** Whether any photo still has no depth at all. */
    @Transactional(readOnly = true)
    public boolean anyPhotoWaits() {
        return shots.existsByStateAndClipFalse(Shot.State.WAITING);
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
        boolean some = !depthMaps.of(id).isEmpty();
        shot.reach(
                some ? Shot.State.READY : Shot.State.FAILED,
                some ? 1 : 0,
                some
                        ? null
                        : "The estimate was cancelled before there was any depth. Estimate again, or bring a map in.");
        return shot;
    }

    /** The depth that was there before stays usable, with the reason shown; without any the shot has failed. */
    @Transactional
    public void failDepth(UUID id, UUID run, String problem) {
        shots.findLockedById(id).filter(shot -> shot.runs(run)).ifPresent(shot -> {
            shot.endDepth();
            boolean some = !depthMaps.of(id).isEmpty();
            shot.reach(some ? Shot.State.READY : Shot.State.FAILED, some ? 1 : 0, shortened(problem));
        });
    }

    private static String shortened(String text) {
        return text.length() <= LONGEST_PROBLEM ? text : text.substring(0, LONGEST_PROBLEM - 3) + "...";
    }
}
