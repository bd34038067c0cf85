package app.yubble.server.follow;

import app.yubble.core.keep.KeptMasks;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.touchup.KeptAt;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.SubjectMasks;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Subjects that are kept through clips, read back. */
@Service
class KeptSubjects implements SubjectMasks {
    /** Of five minutes each some ten megabytes. */
    private static final int MOST_READ = 12;

    private final Tracks tracks;
    private final Cache<String, KeptMasks> read =
            Caffeine.newBuilder().maximumSize(MOST_READ).softValues().build();

    KeptSubjects(Tracks tracks) {
        this.tracks = tracks;
    }

    @Override
    public @Nullable Known known(Shot shot, List<KeptAt> said) {
        String hash = tracks.hash(shot, SubjectMaker.sought(said, DepthChoice.of(DepthChoice.Source.ESTIMATED)));
        return hash == null ? null : new Known(hash, masks(hash)::at);
    }

    /** What has been made of what was said. */
    KeptMasks masks(String hash) {
        return Objects.requireNonNull(read.get(hash, wanted -> KeptMasks.read(tracks.content(wanted))));
    }

    void made(Shot shot, List<KeptAt> said, DepthChoice depth) {
        tracks.made(shot, SubjectMaker.sought(said, depth));
    }
}
