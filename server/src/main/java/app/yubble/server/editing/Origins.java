package app.yubble.server.editing;

import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureReader;
import app.yubble.server.shoot.Shot;
import app.yubble.server.storage.FileStore;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.stereotype.Component;

/** The profile and tone curve of each shot's file, the newest few hundred kept. */
@Component
class Origins {
    private static final int MOST = 300;

    private final FileStore files;
    private final PictureReader reader;

    private final Map<String, Origin> kept = new LinkedHashMap<>(16, 0.75f, true) {
        private static final long serialVersionUID = 1L;

        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Origin> eldest) {
            return size() > MOST;
        }
    };

    Origins(FileStore files, PictureReader reader) {
        this.files = files;
        this.reader = reader;
    }

    Origin of(Shot shot) throws IOException {
        synchronized (kept) {
            Origin known = kept.get(shot.contentHash());
            if (known != null) {
                return known;
            }
        }
        // The reduced picture carries the same profile and is quicker to open than a large original.
        String proxy = shot.proxyHash();
        Origin origin = reader.inspect(files.bytes(proxy == null ? shot.contentHash() : proxy));
        synchronized (kept) {
            kept.put(shot.contentHash(), origin);
        }
        return origin;
    }
}
