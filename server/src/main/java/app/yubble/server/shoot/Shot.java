package app.yubble.server.shoot;

import app.yubble.core.raster.Size;
import app.yubble.media.clip.ClipInfo;
import app.yubble.media.picture.Camera;
import app.yubble.media.picture.Origin;
import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EntityListeners;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.OptionalDouble;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** One photo or clip that was brought in; its file is kept unchanged for ever. */
@Entity
@EntityListeners(ShotNews.class)
public class Shot {
    /** How far a shot is on the way to its first preview. */
    public enum State {
        WAITING,
        /** A clip is being gone through. */
        READING,
        ESTIMATING,
        /** Depth is there and can be used while a better matte is being made. */
        REFINING,
        READY,
        FAILED
    }

    @Id
    private UUID id;

    private UUID accountId;
    private UUID shootId;
    private String name;

    @Column(columnDefinition = "char(64)")
    private String contentHash;

    private String format;
    private int width;
    private int height;
    private long bytes;
    private @Nullable Double focalLength;
    private @Nullable Double sensorWidth;

    @Column(name = "f_number")
    private @Nullable Double fNumber;

    private @Nullable Double distance;

    @Enumerated(EnumType.STRING)
    @Column(columnDefinition = "varchar(16)")
    private State state;

    private double progress;
    private @Nullable String problem;
    private @Nullable String notice;
    private @Nullable UUID depthRun;

    @Column(columnDefinition = "char(64)")
    private @Nullable String proxyHash;

    @Column(columnDefinition = "char(64)")
    private @Nullable String thumbnailHash;

    @Column(columnDefinition = "char(64)")
    private @Nullable String cutLightHash;

    private boolean clip;

    @Column(columnDefinition = "char(64)")
    private @Nullable String sheetHash;

    private @Nullable Integer frames;
    private @Nullable Long micros;

    @Column(columnDefinition = "char(64)")
    private @Nullable String stripHash;

    private @Nullable Integer stripCount;

    @Column(insertable = false, updatable = false)
    private Instant created;

    private Instant changed;

    @Version
    private @Nullable Long revision;

    /** For Hibernate. */
    @SuppressWarnings("NullAway.Init")
    protected Shot() {}

    @SuppressWarnings("NullAway.Init")
    private Shot(UUID accountId, UUID shootId, String name, String contentHash, long bytes, String format, Size size) {
        this.id = UUID.randomUUID();
        this.accountId = accountId;
        this.shootId = shootId;
        this.name = name;
        this.contentHash = contentHash;
        this.bytes = bytes;
        this.format = format;
        this.width = size.width();
        this.height = size.height();
        this.state = State.WAITING;
        this.changed = Instant.now();
    }

    Shot(UUID accountId, UUID shootId, String name, String contentHash, long bytes, Origin origin) {
        this(accountId, shootId, name, contentHash, bytes, origin.format(), origin.size());
        Camera camera = origin.camera();
        this.focalLength = orNull(camera.focalLength());
        this.sensorWidth = orNull(camera.sensorWidth());
        this.fNumber = orNull(camera.fNumber());
        this.distance = orNull(camera.distance());
    }

    Shot(UUID accountId, UUID shootId, String name, String contentHash, long bytes, ClipInfo info) {
        this(accountId, shootId, name, contentHash, bytes, info.container(), info.size());
        this.clip = true;
    }

    private static @Nullable Double orNull(OptionalDouble value) {
        return value.isPresent() ? value.getAsDouble() : null;
    }

    private static OptionalDouble orEmpty(@Nullable Double value) {
        return value == null ? OptionalDouble.empty() : OptionalDouble.of(value);
    }

    void show(String newProxyHash, String newThumbnailHash) {
        proxyHash = newProxyHash;
        thumbnailHash = newThumbnailHash;
    }

    /** Another file of the same shape takes the place of this one. */
    void replace(String newContentHash, long newBytes, Origin origin) {
        contentHash = newContentHash;
        bytes = newBytes;
        format = origin.format();
        width = origin.size().width();
        height = origin.size().height();
        notice = null;
        changed = Instant.now();
    }

    /** How much light of lamps was cut off; null when it was not looked for. */
    @Nullable
    String cutLightHash() {
        return cutLightHash;
    }

    void knowCutLight(String newCutLightHash) {
        cutLightHash = newCutLightHash;
    }

    /** What was found when the clip was gone through. */
    void read(ClipReading found) {
        sheetHash = found.sheetHash();
        frames = found.frames();
        micros = found.micros();
        stripHash = found.stripHash();
        stripCount = found.stripCount();
        show(found.proxyHash(), found.posterHash());
    }

    /** What is stored of a clip that was gone through: files by their hashes. */
    public record ClipReading(
            String sheetHash,
            int frames,
            long micros,
            String proxyHash,
            String posterHash,
            String stripHash,
            int stripCount) {}

    /** Whether its depth or its frames are being found. */
    boolean isBusy() {
        return state != State.READY && state != State.FAILED;
    }

    public boolean isClip() {
        return clip;
    }

    public @Nullable String sheetHash() {
        return sheetHash;
    }

    public @Nullable Integer frames() {
        return frames;
    }

    public @Nullable Long micros() {
        return micros;
    }

    public @Nullable String stripHash() {
        return stripHash;
    }

    public @Nullable Integer stripCount() {
        return stripCount;
    }

    /** Moves on; {@code problem} says why when the state is FAILED. */
    public void reach(State newState, double newProgress, @Nullable String newProblem) {
        state = newState;
        progress = newProgress;
        problem = newProblem;
        changed = Instant.now();
    }

    /** Begins an estimate; any that is under way finds out that it is no longer wanted. */
    UUID beginDepth() {
        UUID run = UUID.randomUUID();
        depthRun = run;
        reach(State.WAITING, 0, null);
        return run;
    }

    void endDepth() {
        depthRun = null;
    }

    boolean runs(UUID run) {
        return run.equals(depthRun);
    }

    /** Something about the file that its owner should know and that stops nothing. */
    void notice(String text) {
        notice = text;
    }

    public @Nullable String notice() {
        return notice;
    }

    void rename(String newName) {
        name = newName;
        changed = Instant.now();
    }

    public UUID id() {
        return id;
    }

    public UUID accountId() {
        return accountId;
    }

    public UUID shootId() {
        return shootId;
    }

    public String name() {
        return name;
    }

    public String contentHash() {
        return contentHash;
    }

    public String format() {
        return format;
    }

    public Size size() {
        return new Size(width, height);
    }

    public long bytes() {
        return bytes;
    }

    public Camera camera() {
        return new Camera(orEmpty(focalLength), orEmpty(sensorWidth), orEmpty(fNumber), orEmpty(distance));
    }

    /** Grows with every change that was stored. */
    public long revision() {
        return revision == null ? 0 : revision;
    }

    public State state() {
        return state;
    }

    Instant created() {
        return created;
    }

    Instant changed() {
        return changed;
    }

    /** Somebody sees to it. */
    void touch() {
        changed = Instant.now();
    }

    public double progress() {
        return progress;
    }

    public @Nullable String problem() {
        return problem;
    }

    public @Nullable String proxyHash() {
        return proxyHash;
    }

    public @Nullable String thumbnailHash() {
        return thumbnailHash;
    }
}
