package app.yubble.server.editing;

import app.yubble.media.picture.Camera;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureReader;
import app.yubble.server.shoot.ClipFiles;
import app.yubble.server.shoot.Shot;
import app.yubble.server.storage.FileStore;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.io.IOException;
import org.springframework.stereotype.Component;

/** The profile and tone curve of each shot's file, the newest few hundred kept. */
@Component
class Origins {
    private static final int MOST = 300;

    private final FileStore files;
    private final PictureReader reader;
    private final ClipFiles clips;

    private final Cache<String, Origin> kept =
            Caffeine.newBuilder().maximumSize(MOST).build();

    Origins(FileStore files, PictureReader reader, ClipFiles clips) {
        this.clips = clips;
        this.files = files;
        this.reader = reader;
    }

    Origin of(Shot shot) throws IOException {
        Origin known = kept.getIfPresent(shot.contentHash());
        if (known != null) {
            return known;
        }
        if (shot.isClip()) {
            // Shown without a profile, as browsers show the clip itself.
            return new Origin(
                    "JPEG",
                    shot.size(),
                    null,
                    clips.sheet(shot).info().colours().curve(),
                    Camera.UNKNOWN);
        }
        // The small picture carries the same profile, and a large original takes a tenth of a second to open.
        String small = shot.thumbnailHash();
        Origin origin = reader.inspect(files.bytes(small == null ? shot.contentHash() : small));
        kept.put(shot.contentHash(), origin);
        return origin;
    }
}
