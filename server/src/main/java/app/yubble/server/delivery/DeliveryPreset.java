package app.yubble.server.delivery;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.util.UUID;

/** Settings under a name. */
@Entity
class DeliveryPreset {
    @Id
    private UUID id;

    private UUID accountId;
    private String name;
    private String pattern;

    @Column(columnDefinition = "longtext")
    private String settings;

    /** For Hibernate. */
    @SuppressWarnings("NullAway.Init")
    protected DeliveryPreset() {}

    DeliveryPreset(UUID accountId, String name) {
        this.id = UUID.randomUUID();
        this.accountId = accountId;
        this.name = name;
        this.pattern = "";
        this.settings = "";
    }

    void set(String newPattern, String newSettings) {
        pattern = newPattern;
        settings = newSettings;
    }

    UUID id() {
        return id;
    }

    UUID accountId() {
        return accountId;
    }

    String name() {
        return name;
    }

    String pattern() {
        return pattern;
    }

    String settings() {
        return settings;
    }
}
