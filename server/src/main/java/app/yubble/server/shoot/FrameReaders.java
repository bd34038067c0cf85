package app.yubble.server.shoot;

import app.yubble.core.raster.Picture;
import app.yubble.media.clip.ClipFile;
import app.yubble.media.clip.ClipFrames;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.RemovalListener;
import com.github.benmanes.caffeine.cache.Scheduler;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.stereotype.Component;

/**
 * Decoders that stay open for a while, so that the next frames of a clip come without a new jump into its file. A reader is used by one
 * thread at a time, which holds its lock.
 */
@Component
final class FrameReaders implements DisposableBean {
    private static final int MOST = 4;
    private static final Duration UNUSED = Duration.ofSeconds(20);
    /** Frames farther ahead are jumped to: decoding as many takes as long as a new start, 150 ms. */
    private static final int NEAR = 12;
    /** How far a reader goes before it is opened anew. */
    private static final int REACH = 500;

    private final Cache<Path, Reader> readers = Caffeine.newBuilder()
            .maximumSize(MOST)
            .expireAfterAccess(UNUSED)
            .scheduler(Scheduler.systemScheduler())
            .removalListener((RemovalListener<Path, Reader>) (file, reader, cause) -> {
                if (reader != null) {
                    reader.close();
                }
            })
            .build();

    /** Made by the framework. */
    FrameReaders() {}

    Picture frame(ClipFile clip, int frame) {
        return Objects.requireNonNull(readers.get(clip.file(), file -> new Reader()))
                .frame(clip, frame);
    }

    @Override
    public void destroy() {
        readers.invalidateAll();
        readers.cleanUp();
    }

    private static final class Reader {
        private @Nullable ClipFrames open;
        private boolean over;
        private int next;
        private int end;

        synchronized Picture frame(ClipFile clip, int frame) {
            if (over) {
                // It was put away while somebody had it in hand already.
                return clip.frame(frame);
            }
            if (open == null || frame < next || frame > next + NEAR || frame >= end) {
                end();
                end = Math.min(clip.sheet().frames(), frame + REACH);
                open = ClipFrames.open(clip.file(), clip.sheet(), frame, end);
                next = frame;
            }
            Picture out = null;
            while (next <= frame) {
                out = open.next();
                next++;
            }
            return Objects.requireNonNull(out, "frame " + frame);
        }

        synchronized void close() {
            over = true;
            end();
        }

        private void end() {
            if (open != null) {
                open.close();
                open = null;
            }
        }
    }
}
