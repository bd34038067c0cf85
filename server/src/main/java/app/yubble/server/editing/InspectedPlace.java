package app.yubble.server.editing;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.util.UUID;

/** A place of the edge inspector that somebody has looked at. */
@Entity
class InspectedPlace {
    @Id
    private UUID id;

    private UUID shotId;

    @Column(columnDefinition = "varchar(16)")
    private String kind;

    private double x;
    private double y;

    @Column(columnDefinition = "varchar(16)")
    private String verdict;

    /** For Hibernate. */
    @SuppressWarnings("NullAway.Init")
    protected InspectedPlace() {}

    InspectedPlace(UUID shotId, String kind, double x, double y, String verdict) {
        this.id = UUID.randomUUID();
        this.shotId = shotId;
        this.kind = kind;
        this.x = x;
        this.y = y;
        this.verdict = verdict;
    }

    boolean isAt(String otherKind, double otherX, double otherY, double reach) {
        return kind.equals(otherKind) && Math.hypot(x - otherX, y - otherY) <= reach;
    }

    void judge(String value) {
        verdict = value;
    }

    String verdict() {
        return verdict;
    }
}
