package app.yubble.server.follow;

import app.yubble.core.follow.EyeFinder;
import app.yubble.core.follow.Follow;
import app.yubble.core.follow.Put;
import app.yubble.core.follow.TrackPoint;
import app.yubble.core.follow.Tracker;
import app.yubble.core.subject.FaceFinder;
import app.yubble.media.clip.ClipFile;
import app.yubble.media.clip.GreyClip;
import app.yubble.server.jobs.JobStarter;
import app.yubble.server.jobs.StoredProgress;
import app.yubble.server.problem.NotFoundException;
import app.yubble.server.problem.TooOftenException;
import app.yubble.server.shoot.ClipFiles;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import app.yubble.server.storage.FileStore;
import app.yubble.vision.FaceEyes;
import app.yubble.vision.LucasKanade;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** Tracks of followed points, made once for each way in which they were put by hand. */
@Service
public class Tracks {
    /** Of a shot; older ones go, they are quickly made again. */
    private static final int KEPT = 60;
    /** Of an account at once. */
    private static final int MOST_WAITING = 20;
    /** A track that nothing has happened to for so long has lost its job. */
    private static final Duration LOST = Duration.ofMinutes(2);

    private static final int MOST_READ = 200;
    private static final int LONGEST_FAULT = 480;

    private final TrackRepository repository;
    private final Shots shots;
    private final ClipFiles clips;
    private final FileStore files;
    private final JobStarter starter;
    private final JsonMapper json;
    private final EyeFinder eyes;
    private final Cache<String, List<TrackPoint>> read =
            Caffeine.newBuilder().maximumSize(MOST_READ).build();

    Tracks(
            TrackRepository repository,
            Shots shots,
            ClipFiles clips,
            FileStore files,
            JobStarter starter,
            JsonMapper json,
            FaceFinder faces) {
        this.repository = repository;
        this.shots = shots;
        this.clips = clips;
        this.files = files;
        this.starter = starter;
        this.json = json;
        eyes = new FaceEyes(faces);
    }

    /** A track that is known. */
    record Known(String hash, List<TrackPoint> points) {}

    /** What is known of a follow's track; null when it is not made yet. */
    @Nullable
    Known known(Shot shot, Follow follow) {
        String hash = find(shot, follow).map(Track::contentHash).orElse(null);
        return hash == null ? null : new Known(hash, points(hash));
    }

    private List<TrackPoint> points(String hash) {
        return Objects.requireNonNull(read.get(hash, wanted -> {
            try {
                return TrackFile.read(files.bytes(wanted));
            } catch (IOException fault) {
                throw new UncheckedIOException("A stored file cannot be read: " + fault.getMessage(), fault);
            }
        }));
    }

    /** The track of a follow, which is begun when there is none yet. */
    Track wanted(Shot shot, Follow follow) {
        Track found = find(shot, follow).orElse(null);
        if (found == null) {
            if (repository.countWaiting(shot.accountId()) >= MOST_WAITING) {
                throw new TooOftenException("Too many points are being followed at once. Wait until some are done.");
            }
            Track fresh = begun(shot, follow);
            repository.keepOnly(shot.id(), repository.newestFirst(shot.id(), Limit.of(KEPT)));
            start(fresh.id());
            return fresh;
        }
        boolean open = found.contentHash() == null && found.fault() == null;
        if (open && found.touched().isBefore(Instant.now().minus(LOST))) {
            repository.reach(found.id(), found.done(), Instant.now());
            start(found.id());
        }
        return found;
    }

    private Optional<Track> find(Shot shot, Follow follow) {
        return repository.findByShotIdAndName(shot.id(), name(follow));
    }

    /** A new track, or that of somebody who began it at the same moment. */
    private Track begun(Shot shot, Follow follow) {
        try {
            return repository.save(
                    new Track(shot.id(), name(follow), json.writeValueAsString(follow.puts()), follow.eye()));
        } catch (DataIntegrityViolationException atOnce) {
            return find(shot, follow).orElseThrow(() -> atOnce);
        }
    }

    private void start(UUID id) {
        starter.<TrackJob>enqueue(job -> job.run(id));
    }

    /** The track of a follow, made here and now when it is not there. */
    Known made(Shot shot, Follow follow) {
        Known known = known(shot, follow);
        if (known == null) {
            make(find(shot, follow).orElseGet(() -> begun(shot, follow)).id());
            known = known(shot, follow);
        }
        return Objects.requireNonNull(known, "a track that was just made");
    }

    /** Follows the point of a track. */
    void make(UUID id) {
        Track track = repository.findById(id).orElseThrow(() -> new NotFoundException("track"));
        if (track.contentHash() != null) {
            return;
        }
        Shot shot = shots.byId(track.shotId());
        ClipFile small = clips.small(shot);
        List<Put> puts = List.of(json.readValue(track.puts(), Put[].class));
        StoredProgress progress =
                new StoredProgress(done -> repository.reach(id, Math.min(0.99, done), Instant.now()) > 0);
        Tracker tracker = new Tracker(new LucasKanade(), track.eye() ? eyes : null);
        List<TrackPoint> points = new GreyClip(small.file(), small.sheet()).track(tracker, puts, progress);
        try {
            byte[] bytes = TrackFile.write(points);
            repository.finish(id, files.put(new ByteArrayInputStream(bytes)).hash(), Instant.now());
        } catch (IOException fault) {
            throw new UncheckedIOException("a track could not be stored", fault);
        }
    }

    void fail(UUID id, RuntimeException fault) {
        String said = "It could not be followed: " + fault.getMessage();
        repository.fail(id, said.substring(0, Math.min(LONGEST_FAULT, said.length())), Instant.now());
    }

    private static String name(Follow follow) {
        try {
            byte[] text = (follow.puts() + (follow.eye() ? " eye" : "")).getBytes(StandardCharsets.UTF_8);
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(text));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
