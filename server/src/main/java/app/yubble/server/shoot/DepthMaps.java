package app.yubble.server.shoot;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.raster.Plane;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.subject.Quality;
import app.yubble.core.subject.Subject;
import app.yubble.media.depthfile.CameraDepth;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.UnreadablePictureException;
import app.yubble.server.memory.MemoryGate;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.storage.StoredPictures;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** The depth maps of shots, one for each source. */
@Service
public class DepthMaps {
    private final DepthMapRepository maps;
    private final ShotRepository shots;
    private final PictureReader reader;
    private final StoredPictures pictures;
    private final TransactionTemplate transaction;
    private final MemoryGate gate;

    DepthMaps(
            DepthMapRepository maps,
            ShotRepository shots,
            PictureReader reader,
            StoredPictures pictures,
            TransactionTemplate transaction,
            MemoryGate gate) {
        this.gate = gate;
        this.maps = maps;
        this.shots = shots;
        this.reader = reader;
        this.pictures = pictures;
        this.transaction = transaction;
    }

    public List<DepthMap> of(UUID shot) {
        return maps.findByShotId(shot);
    }

    /** The maps of each of these shots; one that has none is missing. */
    Map<UUID, List<DepthMap>> of(Collection<UUID> many) {
        return maps.findByShotIdIn(many).stream().collect(Collectors.groupingBy(DepthMap::shotId));
    }

    /** What a camera stored in the photo. */
    void putCamera(UUID shot, CameraDepth depth) {
        put(
                shot,
                DepthChoice.Source.CAMERA,
                new DepthMap.Content(
                        depth.format(),
                        pictures.put(depth.nearness()),
                        depth.nearness().size(),
                        null,
                        null,
                        null,
                        null,
                        null,
                        depth.nearMetres(),
                        depth.farMetres()));
    }

    /** Stores a depth file for a shot, replacing the one before; a file that does not fit changes nothing. */
    public void bringIn(Shot shot, String fileName, byte[] content) {
        String name = Shots.plainName(fileName);
        Plane plane;
        try {
            plane = gate.decodingPlane(
                    new DepthFileReader(reader).claimed(content).pixels(),
                    () -> new DepthFileReader(reader).read(content, shot.size()));
        } catch (UnreadablePictureException fault) {
            throw new UnreadablePictureException(name + ": " + fault.getMessage(), fault);
        } catch (IllegalArgumentException fault) {
            throw new RefusedException(name + ": " + fault.getMessage());
        }
        put(shot.id(), DepthChoice.Source.FILE, content(name, DepthEstimate.of(plane), null));
    }

    private DepthMap.Content content(String origin, DepthEstimate estimate, @Nullable Quality quality) {
        Subject subject = estimate.subject();
        return new DepthMap.Content(
                origin,
                pictures.put(estimate.nearness()),
                estimate.nearness().size(),
                subject == null ? null : pictures.put(subject.matte()),
                subject == null ? null : subject.confidence(),
                estimate.sure() == null ? null : pictures.put(estimate.sure()),
                estimate.kin() == null ? null : pictures.put(estimate.kin().tiles()),
                quality,
                null,
                null);
    }

    /** Stores what estimate {@code run} has found; false, and nothing stored, when it is no longer wanted. */
    public boolean putEstimate(UUID shot, UUID run, String origin, DepthEstimate estimate, Quality quality) {
        if (shots.findById(shot).filter(each -> each.runs(run)).isEmpty()) {
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

    /** The same for a clip of which some depth is there; {@code content} names an index. */
    boolean putOfClip(UUID shot, UUID run, DepthChoice.Source source, DepthMap.Content content) {
        return Boolean.TRUE.equals(transaction.execute(status -> {
            boolean wanted =
                    shots.findLockedById(shot).filter(each -> each.runs(run)).isPresent();
            if (wanted) {
                replace(shot, source, content);
            }
            return wanted;
        }));
    }

    private void put(UUID shot, DepthChoice.Source source, DepthMap.Content content) {
        transaction.executeWithoutResult(status -> replace(shot, source, content));
    }

    private void replace(UUID shot, DepthChoice.Source source, DepthMap.Content content) {
        DepthMap map = maps.findByShotIdAndSource(shot, source).orElseGet(() -> new DepthMap(shot, source));
        map.replace(content);
        maps.save(map);
    }
}
