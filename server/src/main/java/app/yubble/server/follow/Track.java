package app.yubble.server.follow;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** What is carried through a clip: where it is at every frame, once it is known. */
@Entity
class Track {
    /** What is carried. */
    enum Kind {
        POINT,
        /** Found again by the face around it. */
        EYE,
        /** Not where it is, but a mask of it. */
        SUBJECT
    }

    @Id
    private UUID id;

    private UUID shotId;

    @Column(columnDefinition = "char(64)")
    private String name;

    @Column(columnDefinition = "mediumtext")
    private String puts;

    @Enumerated(EnumType.STRING)
    private Kind kind;

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
     * @param name of what was said of it by hand
     * @param puts the same as JSON
     */
    Track(UUID shotId, String name, String puts, Kind kind) {
        this.id = UUID.randomUUID();
        this.shotId = shotId;
        this.name = name;
        this.puts = puts;
        this.kind = kind;
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

    Kind kind() {
        return kind;
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
