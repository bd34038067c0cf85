package app.yubble.server.shoot;

import app.yubble.core.recipe.DepthChoice;
import app.yubble.media.picture.PictureReader;
import app.yubble.server.storage.FileStore;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.stereotype.Component;

/** What the refocus line draws shots from. */
@Component
public class Materials {
    private final DepthMaps maps;
    private final ClipFiles clips;
    private final FileStore files;
    private final PictureReader reader;
    private final FramesWanted wanted;
    private final ObjectProvider<SubjectMasks> kept;

    Materials(
            DepthMaps maps,
            ClipFiles clips,
            FileStore files,
            PictureReader reader,
            FramesWanted wanted,
            ObjectProvider<SubjectMasks> kept) {
        this.kept = kept;
        this.wanted = wanted;
        this.maps = maps;
        this.clips = clips;
        this.files = files;
        this.reader = reader;
    }

    /** A clip with the depth that it had when it was named {@code depthHash}. */
    public ShotMaterial ofClip(Shot shot, DepthChoice.Source source, String depthHash) {
        return new ClipMaterial(shot, Map.of(source, depthHash), clips, files, reader, wanted, kept.getObject());
    }

    /** A shot with the depth that it has now. */
    public ShotMaterial of(Shot shot) {
        return shot.isClip()
                ? new ClipMaterial(
                        shot,
                        maps.of(shot.id()).stream().collect(Collectors.toMap(DepthMap::source, DepthMap::contentHash)),
                        clips,
                        files,
                        reader,
                        wanted,
                        kept.getObject())
                : new PhotoMaterial(shot, maps.of(shot.id()), files, reader);
    }
}
