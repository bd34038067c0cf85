package app.yubble.server.account;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.util.UUID;

/** Somebody who signs in. */
@Entity
class Account {
    @Id
    private UUID id;

    private String name;
    private String passwordHash;

    /** For Hibernate. */
    @SuppressWarnings("NullAway.Init")
    protected Account() {}

    Account(String name, String passwordHash) {
        this.id = UUID.randomUUID();
        this.name = name;
        this.passwordHash = passwordHash;
    }

    UUID id() {
        return id;
    }

    String name() {
        return name;
    }

    String passwordHash() {
        return passwordHash;
    }
}
