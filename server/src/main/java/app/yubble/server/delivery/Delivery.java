package app.yubble.server.delivery;

import app.yubble.media.picture.ColourSpace;
import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EntityListeners;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.Objects;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** One export: what, from which recipe, how far, and its file. The recipe is a copy; later edits do not change it. */
@Entity
@EntityListeners(DeliveryNews.class)
class Delivery {
    /** From asked for to done. */
    enum State {
        WAITING,
        RENDERING,
        DONE,
        FAILED,
        CANCELLED
    }

    @Id
    private UUID id;

    private UUID accountId;
    private UUID shotId;
    private String versionName;
    private String fileName;

    @Enumerated(EnumType.STRING)
    @Column(columnDefinition = "varchar(24)")
    private DeliveryFormat format;

    private double quality;
    private @Nullable Integer longestSide;
    private boolean halvesColour;

    @Enumerated(EnumType.STRING)
    @Column(columnDefinition = "varchar(16)")
    private ColourSpace space;

    private boolean keepsPlace;
    private double sharpening;
    private @Nullable UUID batch;
    private boolean playing;
    private @Nullable Integer firstFrame;
    private @Nullable Integer endFrame;

    @Column(columnDefinition = "char(64)")
    private @Nullable String depthHash;

    @Column(columnDefinition = "longtext")
    private String recipe;

    @Enumerated(EnumType.STRING)
    @Column(columnDefinition = "varchar(16)")
    private State state;

    private double progress;
    private @Nullable String problem;

    @Column(columnDefinition = "char(64)")
    private @Nullable String contentHash;

    private @Nullable Long bytes;

    @Column(columnDefinition = "char(64)")
    private @Nullable String thumbnailHash;

    @Column(insertable = false, updatable = false)
    private Instant created;

    private Instant changed;

    @Version
    private @Nullable Long revision;

    /** For Hibernate. */
    @SuppressWarnings("NullAway.Init")
    protected Delivery() {}

    @SuppressWarnings("NullAway.Init")
    Delivery(
            UUID accountId,
            UUID shotId,
            String versionName,
            String fileName,
            DeliverySettings settings,
            String recipe) {
        this.id = UUID.randomUUID();
        this.accountId = accountId;
        this.shotId = shotId;
        this.versionName = versionName;
        this.fileName = fileName;
        this.format = settings.format();
        this.quality = settings.quality();
        this.longestSide = settings.longestSide();
        this.halvesColour = Boolean.TRUE.equals(settings.halvesColour());
        this.space = Objects.requireNonNullElse(settings.space(), ColourSpace.SOURCE);
        this.keepsPlace = !Boolean.FALSE.equals(settings.keepsPlace());
        this.sharpening = Objects.requireNonNullElse(settings.sharpening(), 0.0);
        this.recipe = recipe;
        this.state = State.WAITING;
        this.changed = Instant.now();
    }

    /**
     * Which frames of a clip, the second no longer one of them.
     *
     * @param newDepthHash the depth that it has now; an estimate that is made meanwhile changes nothing
     */
    void stretch(int newFirstFrame, int newEndFrame, String newDepthHash) {
        depthHash = newDepthHash;
        firstFrame = newFirstFrame;
        endFrame = newEndFrame;
    }

    /** One of several that were asked for together. */
    void belongTo(UUID newBatch) {
        batch = newBatch;
    }

    @Nullable
    UUID batch() {
        return batch;
    }

    DeliverySettings settings() {
        return new DeliverySettings(format, quality, longestSide, halvesColour, space, keepsPlace, sharpening);
    }

    /** A small picture of the result; null when there is none. */
    @Nullable
    String thumbnailHash() {
        return thumbnailHash;
    }

    void showAs(String newThumbnailHash) {
        thumbnailHash = newThumbnailHash;
    }

    /** Made to be looked at on the Bench, not to be fetched. */
    void play() {
        playing = true;
    }

    boolean isPlaying() {
        return playing;
    }

    String depthHash() {
        return Objects.requireNonNull(depthHash);
    }

    int firstFrame() {
        return firstFrame == null ? 0 : firstFrame;
    }

    int endFrame() {
        return endFrame == null ? 0 : endFrame;
    }

    /** Grows with every change that was stored. */
    long revision() {
        return revision == null ? 0 : revision;
    }

    void reach(State newState, double newProgress, @Nullable String newProblem) {
        state = newState;
        progress = newProgress;
        problem = newProblem;
        changed = Instant.now();
    }

    void done(String newContentHash, long newBytes) {
        contentHash = newContentHash;
        bytes = newBytes;
        reach(State.DONE, 1, null);
    }

    boolean isOver() {
        return state == State.DONE || state == State.FAILED || state == State.CANCELLED;
    }

    UUID id() {
        return id;
    }

    UUID accountId() {
        return accountId;
    }

    UUID shotId() {
        return shotId;
    }

    String versionName() {
        return versionName;
    }

    String fileName() {
        return fileName;
    }

    DeliveryFormat format() {
        return format;
    }

    double quality() {
        return quality;
    }

    @Nullable
    Integer longestSide() {
        return longestSide;
    }

    String recipe() {
        return recipe;
    }

    State state() {
        return state;
    }

    Instant changed() {
        return changed;
    }

    double progress() {
        return progress;
    }

    @Nullable
    String problem() {
        return problem;
    }

    @Nullable
    String contentHash() {
        return contentHash;
    }

    @Nullable
    Long bytes() {
        return bytes;
    }

    Instant created() {
        return created;
    }
}
