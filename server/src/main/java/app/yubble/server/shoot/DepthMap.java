package app.yubble.server.shoot;

import app.yubble.core.recipe.DepthChoice;
import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.util.UUID;

/** One depth map of a shot: the estimate, or the one from a file. */
@Entity
public class DepthMap {
    @Id
    private UUID id;

    private UUID shotId;

    @Enumerated(EnumType.STRING)
    @Column(columnDefinition = "varchar(16)")
    private DepthChoice.Source source;

    private String origin;

    @Column(columnDefinition = "char(64)")
    private String contentHash;

    private int width;
    private int height;

    /** For Hibernate. */
    @SuppressWarnings("NullAway.Init")
    protected DepthMap() {}

    DepthMap(UUID shotId, DepthChoice.Source source, String origin, String contentHash, int width, int height) {
        this.id = UUID.randomUUID();
        this.shotId = shotId;
        this.source = source;
        this.origin = origin;
        this.contentHash = contentHash;
        this.width = width;
        this.height = height;
    }

    void replace(String newOrigin, String newContentHash, int newWidth, int newHeight) {
        origin = newOrigin;
        contentHash = newContentHash;
        width = newWidth;
        height = newHeight;
    }

    public DepthChoice.Source source() {
        return source;
    }

    /** The estimator's name or the file's. */
    public String origin() {
        return origin;
    }

    public String contentHash() {
        return contentHash;
    }

    UUID shotId() {
        return shotId;
    }
}
