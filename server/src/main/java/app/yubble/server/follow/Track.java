package app.yubble.server.follow;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** Where a followed point is at every frame of a clip, once it is known. */
@Entity
class Track {
    @Id
    private UUID id;

    private UUID shotId;

    @Column(columnDefinition = "char(64)")
    private String name;

    @Column(columnDefinition = "mediumtext")
    private String puts;

    private boolean eye;
    private double done;

    @Column(columnDefinition = "char(64)")
    private @Nullable String contentHash;

    private @Nullable String fault;
    private Instant touched;

    /** For Hibernate. */
    @SuppressWarnings("NullAway.Init")
    protected Track() {}

    /**
     * One that is to be made.
     *
     * @param name of where it was put by hand
     * @param puts the same as JSON
     * @param eye whether it is an eye
     */
    Track(UUID shotId, String name, String puts, boolean eye) {
        this.id = UUID.randomUUID();
        this.shotId = shotId;
        this.name = name;
        this.puts = puts;
        this.eye = eye;
        this.touched = Instant.now();
    }

    UUID id() {
        return id;
    }

    UUID shotId() {
        return shotId;
    }

    String puts() {
        return puts;
    }

    boolean eye() {
        return eye;
    }

    double done() {
        return done;
    }

    @Nullable
    String contentHash() {
        return contentHash;
    }

    @Nullable
    String fault() {
        return fault;
    }

    Instant touched() {
        return touched;
    }
}
