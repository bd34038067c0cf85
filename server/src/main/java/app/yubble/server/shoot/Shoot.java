package app.yubble.server.shoot;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;

/** A collection of shots. */
@Entity
class Shoot {
    @Id
    private UUID id;

    private UUID accountId;
    private String name;

    @Column(insertable = false, updatable = false)
    private Instant created;

    /** For Hibernate. */
    @SuppressWarnings("NullAway.Init")
    protected Shoot() {}

    @SuppressWarnings("NullAway.Init")
    Shoot(UUID accountId, String name) {
        this.id = UUID.randomUUID();
        this.accountId = accountId;
        this.name = name;
    }

    UUID id() {
        return id;
    }

    String name() {
        return name;
    }

    void rename(String newName) {
        name = newName;
    }
}
