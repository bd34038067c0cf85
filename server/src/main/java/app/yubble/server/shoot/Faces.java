package app.yubble.server.shoot;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.subject.Face;
import app.yubble.core.subject.FaceFinder;
import app.yubble.vision.Network;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** The faces of photos and frames, looked for when they are asked for and remembered. */
@Component
public class Faces {
    private static final Logger LOG = LoggerFactory.getLogger(Faces.class);
    /** Longer side; a face of a fiftieth of it can still be looked at closely. */
    private static final int SIDE = 2560;
    /** Pictures whose faces are remembered; a few hundred bytes each. */
    private static final int REMEMBERED = 2000;

    private final FaceFinder finder;
    private final RefocusLine line;
    private final Cache<String, List<Face>> found =
            Caffeine.newBuilder().maximumSize(REMEMBERED).build();

    Faces(FaceFinder finder, RefocusLine line) {
        this.finder = finder;
        this.line = line;
    }

    /** The main one first. */
    public List<Face> of(ShotStill still) {
        return found.get(
                still.id(),
                id -> find(line.picture(still, still.kept(still.size().fitting(SIDE)))));
    }

    /** The same for a picture that has been decoded already. */
    public List<Face> of(ShotStill still, Picture picture) {
        return found.get(still.id(), id -> find(picture));
    }

    /** None when a network does not run: nothing else waits for faces. */
    private List<Face> find(Picture picture) {
        try {
            return finder.find(picture, Progress.NONE);
        } catch (Network.NetworkException fault) {
            LOG.warn("faces cannot be looked for: {}", fault.getMessage());
            return List.of();
        }
    }
}
