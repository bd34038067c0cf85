package app.yubble.server.editing;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.util.UUID;

/** One step of a version's history and the recipe after it. */
@Entity
class Edit {
    @Id
    private UUID id;

    private UUID versionId;

    @Column(name = "position")
    private int position;

    private String name;

    @Column(columnDefinition = "longtext")
    private String recipe;

    /** For Hibernate. */
    @SuppressWarnings("NullAway.Init")
    protected Edit() {}

    Edit(UUID versionId, int position, String name, String recipe) {
        this.id = UUID.randomUUID();
        this.versionId = versionId;
        this.position = position;
        this.name = name;
        this.recipe = recipe;
    }

    UUID versionId() {
        return versionId;
    }

    int position() {
        return position;
    }

    String name() {
        return name;
    }

    String recipe() {
        return recipe;
    }
}
