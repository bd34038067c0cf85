package app.yubble.server.editing;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A named recipe of a shot. Its recipe is the one of the edit at its position; edits beyond the position have been
 * undone and can be redone.
 *
 * <p>{@code lockVersion} is set by hand, not by Hibernate's version check: it must also guard undo, redo and edits that
 * touch only the history, and the caller is told the number to send back.
 */
@Entity
class Version {
    @Id
    private UUID id;

    private UUID shotId;
    private String name;

    @Column(name = "position")
    private int position;

    private long lockVersion;

    @Column(insertable = false, updatable = false)
    private Instant created;

    private @Nullable Instant removed;

    /** For Hibernate. */
    @SuppressWarnings("NullAway.Init")
    protected Version() {}

    @SuppressWarnings("NullAway.Init")
    Version(UUID shotId, String name) {
        this.id = UUID.randomUUID();
        this.shotId = shotId;
        this.name = name;
    }

    UUID id() {
        return id;
    }

    UUID shotId() {
        return shotId;
    }

    String name() {
        return name;
    }

    int position() {
        return position;
    }

    long lockVersion() {
        return lockVersion;
    }

    void moveTo(int newPosition) {
        position = newPosition;
        lockVersion++;
    }

    /** Hides it; it can be brought back. */
    void remove() {
        removed = Instant.now();
    }

    boolean isRemoved() {
        return removed != null;
    }

    void bringBack() {
        removed = null;
    }

    void rename(String newName) {
        name = newName;
    }
}
