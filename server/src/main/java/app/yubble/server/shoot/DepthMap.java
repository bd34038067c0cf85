package app.yubble.server.shoot;

import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.subject.Quality;
import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** One depth map of a shot: the estimate, the one stored in the photo, or the one from a file. */
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

    @Column(columnDefinition = "char(64)")
    private @Nullable String matteHash;

    private @Nullable Double confidence;

    @Column(columnDefinition = "char(64)")
    private @Nullable String sureHash;

    @Column(columnDefinition = "char(64)")
    private @Nullable String kinHash;

    @Enumerated(EnumType.STRING)
    @Column(columnDefinition = "varchar(8)")
    private @Nullable Quality quality;

    private @Nullable Double nearMetres;
    private @Nullable Double farMetres;

    /** For Hibernate. */
    @SuppressWarnings("NullAway.Init")
    protected DepthMap() {}

    @SuppressWarnings("NullAway.Init")
    DepthMap(UUID shotId, DepthChoice.Source source) {
        this.id = UUID.randomUUID();
        this.shotId = shotId;
        this.source = source;
    }

    /**
     * What is stored of a map.
     *
     * @param origin the estimator's name, the file's, or the format in which the photo held it
     * @param matteHash the subject's matte; null when there is none
     * @param sureHash how sure each place of an estimate is; null when that cannot be told
     * @param kinHash what places are like; null when that cannot be told
     * @param quality null for a map that was not estimated
     * @param nearMetres distance at nearness 1, when it is known
     * @param farMetres distance at nearness 0, when it is known
     */
    record Content(
            String origin,
            String contentHash,
            Size size,
            @Nullable String matteHash,
            @Nullable Double confidence,
            @Nullable String sureHash,
            @Nullable String kinHash,
            @Nullable Quality quality,
            @Nullable Double nearMetres,
            @Nullable Double farMetres) {}

    void replace(Content content) {
        origin = content.origin();
        contentHash = content.contentHash();
        width = content.size().width();
        height = content.size().height();
        matteHash = content.matteHash();
        confidence = content.confidence();
        sureHash = content.sureHash();
        kinHash = content.kinHash();
        quality = content.quality();
        nearMetres = content.nearMetres();
        farMetres = content.farMetres();
    }

    Content content() {
        return new Content(
                origin,
                contentHash,
                new Size(width, height),
                matteHash,
                confidence,
                sureHash,
                kinHash,
                quality,
                nearMetres,
                farMetres);
    }

    public DepthChoice.Source source() {
        return source;
    }

    public String contentHash() {
        return contentHash;
    }

    UUID shotId() {
        return shotId;
    }
}
