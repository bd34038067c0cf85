package app.yubble.server.follow;

import app.yubble.core.follow.EyeFinder;
import app.yubble.core.follow.Follow;
import app.yubble.core.follow.Put;
import app.yubble.core.follow.TrackPoint;
import app.yubble.core.follow.Tracker;
import app.yubble.core.raster.Progress;
import app.yubble.core.subject.FaceFinder;
import app.yubble.media.clip.ClipFile;
import app.yubble.media.clip.GreyClip;
import app.yubble.server.jobs.JobStarter;
import app.yubble.server.jobs.StoredProgress;
import app.yubble.server.jobs.Urgency;
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

/** Tracks of followed points and masks of kept subjects, made once for each way in which they were put by hand. */
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
    private final SubjectMaker subjects;
    private final Cache<String, List<TrackPoint>> read =
            Caffeine.newBuilder().maximumSize(MOST_READ).build();

    Tracks(
            TrackRepository repository,
            Shots shots,
            ClipFiles clips,
            FileStore files,
            JobStarter starter,
            JsonMapper json,
            FaceFinder faces,
            SubjectMaker subjects) {
        this.subjects = subjects;
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

    /**
     * Something that is carried.
     *
     * @param puts what was said of it by hand, as JSON
     * @param key equal for equal things of a shot and only for those
     */
    record Sought(Track.Kind kind, String puts, String key) {
        String name() {
            try {
                byte[] text = key.getBytes(StandardCharsets.UTF_8);
                return HexFormat.of()
                        .formatHex(MessageDigest.getInstance("SHA-256").digest(text));
            } catch (NoSuchAlgorithmException e) {
                throw new IllegalStateException("every Java platform has SHA-256", e);
            }
        }
    }

    private Sought sought(Follow follow) {
        return new Sought(
                follow.eye() ? Track.Kind.EYE : Track.Kind.POINT,
                json.writeValueAsString(follow.puts()),
                follow.puts() + (follow.eye() ? " eye" : ""));
    }

    /** What is known of a follow's track; null when it is not made yet. */
    @Nullable
    Known known(Shot shot, Follow follow) {
        String hash = hash(shot, sought(follow));
        return hash == null ? null : new Known(hash, points(hash));
    }

    private List<TrackPoint> points(String hash) {
        return Objects.requireNonNull(read.get(hash, wanted -> TrackFile.read(content(wanted))));
    }

    /** What has been made. */
    byte[] content(String hash) {
        try {
            return files.bytes(hash);
        } catch (IOException fault) {
            throw new UncheckedIOException("A stored file cannot be read: " + fault.getMessage(), fault);
        }
    }

    /** The file that has been made of it; null when it is not made yet. */
    @Nullable
    String hash(Shot shot, Sought sought) {
        return find(shot, sought).map(Track::contentHash).orElse(null);
    }

    /** The track of a follow, which is begun when there is none yet. */
    Track wanted(Shot shot, Follow follow) {
        return wanted(shot, sought(follow));
    }

    /** What is carried, begun when it is not yet. */
    Track wanted(Shot shot, Sought sought) {
        Track found = find(shot, sought).orElse(null);
        if (found == null) {
            if (repository.countWaiting(shot.accountId()) >= MOST_WAITING) {
                throw new TooOftenException("Too much is being followed at once. Wait until some of it is done.");
            }
            Track fresh = begun(shot, sought);
            repository.keepOnly(shot.id(), repository.newestFirst(shot.id(), Limit.of(KEPT)));
            start(shot, fresh.id());
            return fresh;
        }
        boolean open = found.contentHash() == null && found.fault() == null;
        if (open && found.touched().isBefore(Instant.now().minus(LOST))) {
            repository.reach(found.id(), found.done(), Instant.now());
            start(shot, found.id());
        }
        return found;
    }

    private Optional<Track> find(Shot shot, Sought sought) {
        return repository.findByShotIdAndName(shot.id(), sought.name());
    }

    /** A new one, or that of somebody who began it at the same moment. */
    private Track begun(Shot shot, Sought sought) {
        try {
            return repository.save(new Track(shot.id(), sought.name(), sought.puts(), sought.kind()));
        } catch (DataIntegrityViolationException atOnce) {
            return find(shot, sought).orElseThrow(() -> atOnce);
        }
    }

    private void start(Shot shot, UUID id) {
        starter.<TrackJob>enqueue(shot.accountId(), Urgency.CLIP, job -> job.run(id));
    }

    /** The track of a follow, made here and now when it is not there. */
    Known made(Shot shot, Follow follow) {
        String hash = made(shot, sought(follow));
        return new Known(hash, points(hash));
    }

    /** The file of what is carried, made here and now when it is not there. */
    String made(Shot shot, Sought sought) {
        if (hash(shot, sought) == null) {
            make(find(shot, sought).orElseGet(() -> begun(shot, sought)).id());
        }
        return Objects.requireNonNull(hash(shot, sought), "what was just made");
    }

    /** Carries it. */
    void make(UUID id) {
        Track track = repository.findById(id).orElseThrow(() -> new NotFoundException("track"));
        if (track.contentHash() != null) {
            return;
        }
        Shot shot = shots.byId(track.shotId());
        StoredProgress progress =
                new StoredProgress(done -> repository.reach(id, Math.min(0.99, done), Instant.now()) > 0);
        byte[] bytes = track.kind() == Track.Kind.SUBJECT
                ? subjects.made(shot, track.puts(), this::earlier, progress)
                : TrackFile.write(points(track, shot, progress));
        try {
            repository.finish(id, files.put(new ByteArrayInputStream(bytes)).hash(), Instant.now());
        } catch (IOException fault) {
            throw new UncheckedIOException("a track could not be stored", fault);
        }
    }

    private byte @Nullable [] earlier(Shot shot, Sought sought) {
        String hash = hash(shot, sought);
        return hash == null ? null : content(hash);
    }

    private List<TrackPoint> points(Track track, Shot shot, Progress progress) {
        ClipFile small = clips.small(shot);
        List<Put> puts = List.of(json.readValue(track.puts(), Put[].class));
        Tracker tracker = new Tracker(new LucasKanade(), track.kind() == Track.Kind.EYE ? eyes : null);
        return new GreyClip(small.file(), small.sheet()).track(tracker, puts, progress);
    }

    void fail(UUID id, RuntimeException fault) {
        String said = "It could not be carried through the clip: " + fault.getMessage();
        repository.fail(id, said.substring(0, Math.min(LONGEST_FAULT, said.length())), Instant.now());
    }
}
