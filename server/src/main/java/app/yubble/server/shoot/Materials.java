package app.yubble.server.shoot;

import app.yubble.media.picture.PictureReader;
import app.yubble.server.storage.FileStore;
import org.springframework.stereotype.Component;

/** What the refocus line draws shots from. */
@Component
public class Materials {
    private final DepthMaps maps;
    private final ClipFiles clips;
    private final FileStore files;
    private final PictureReader reader;

    Materials(DepthMaps maps, ClipFiles clips, FileStore files, PictureReader reader) {
        this.maps = maps;
        this.clips = clips;
        this.files = files;
        this.reader = reader;
    }

    /** A shot with the depth that it has now. */
    public ShotMaterial of(Shot shot) {
        return shot.isClip()
                ? new ClipMaterial(shot, maps.of(shot.id()), clips, files, reader)
                : new PhotoMaterial(shot, maps.of(shot.id()), files, reader);
    }
}
