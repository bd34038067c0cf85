package app.yubble.server.account;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** Somebody who signs in. */
@Entity
class Account {
    @Id
    private UUID id;

    private String name;
    /** Unique; see {@link AccountName#folded}. */
    private String foldedName;

    private String passwordHash;
    private @Nullable String depthEngine;
    /** Whether it sees how the installation is. */
    private boolean administrator;

    /** For Hibernate. */
    @SuppressWarnings("NullAway.Init")
    protected Account() {}

    Account(String name, String passwordHash) {
        this.id = UUID.randomUUID();
        this.name = name;
        this.foldedName = AccountName.folded(name);
        this.passwordHash = passwordHash;
    }

    UUID id() {
        return id;
    }

    String name() {
        return name;
    }

    @Nullable
    String depthEngine() {
        return depthEngine;
    }

    void useDepthEngine(String name) {
        depthEngine = name;
    }

    boolean isAdministrator() {
        return administrator;
    }

    void makeAdministrator() {
        administrator = true;
    }

    void usePassword(String hash) {
        passwordHash = hash;
    }

    String passwordHash() {
        return passwordHash;
    }
}
