package app.yubble.server.mask;

import app.yubble.core.raster.Plane;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.touchup.Touchup;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.depthfile.MaskFileReader;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.UnreadablePictureException;
import app.yubble.server.memory.MemoryGate;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import app.yubble.server.storage.StoredPictures;
import java.util.UUID;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.stereotype.Service;

/** Masks that were brought in as files. A recipe names them by their hash; only who brought one in can use it. */
@Service
public class MaskFiles {
    private final MaskFileRepository repository;
    private final StoredPictures pictures;
    private final PictureReader reader;
    private final MemoryGate gate;

    MaskFiles(MaskFileRepository repository, StoredPictures pictures, PictureReader reader, MemoryGate gate) {
        this.gate = gate;
        this.repository = repository;
        this.pictures = pictures;
        this.reader = reader;
    }

    /** Stores a mask for shots of this one's shape and gives its hash; a file that does not fit changes nothing. */
    public String bringIn(Shot shot, UUID account, String fileName, byte[] content) {
        String name = Shots.plainName(fileName);
        Plane plane;
        try {
            plane = gate.decodingPlane(
                    new DepthFileReader(reader).claimed(content).pixels(),
                    () -> new MaskFileReader(reader).read(content, shot.size()));
        } catch (UnreadablePictureException fault) {
            throw new UnreadablePictureException(name + ": " + fault.getMessage(), fault);
        } catch (IllegalArgumentException fault) {
            throw new RefusedException(name + ": " + fault.getMessage());
        }
        String hash = pictures.put(plane);
        if (!repository.existsByAccountIdAndContentHash(account, hash)) {
            try {
                repository.save(new MaskFile(account, hash));
            } catch (DataIntegrityViolationException broughtInTwiceAtOnce) {
                return hash;
            }
        }
        return hash;
    }

    /** @throws RefusedException when a touch-up begins with a mask that the account did not bring in */
    public void require(Recipe recipe, UUID account) {
        for (Touchup each : recipe.touchups()) {
            String file = each.start().file();
            if (file != null && !repository.existsByAccountIdAndContentHash(account, file)) {
                throw new RefusedException("The mask of \u201c" + each.name()
                        + "\u201d was not brought in here. Load it from its file again.");
            }
        }
    }
}
