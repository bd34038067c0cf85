package app.yubble.server.editing;

import app.yubble.core.inspect.Fault;
import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.util.UUID;

/** A place of the edge inspector that somebody has looked at. */
@Entity
class InspectedPlace {
    /** What somebody made of a place. */
    enum Verdict {
        ACCEPTED,
        SKIPPED
    }

    @Id
    private UUID id;

    private UUID shotId;

    @Enumerated(EnumType.STRING)
    @Column(columnDefinition = "varchar(16)")
    private Fault.Kind kind;

    private double x;
    private double y;

    @Enumerated(EnumType.STRING)
    @Column(columnDefinition = "varchar(16)")
    private Verdict verdict;

    /** For Hibernate. */
    @SuppressWarnings("NullAway.Init")
    protected InspectedPlace() {}

    InspectedPlace(UUID shotId, Fault.Kind kind, double x, double y, Verdict verdict) {
        this.id = UUID.randomUUID();
        this.shotId = shotId;
        this.kind = kind;
        this.x = x;
        this.y = y;
        this.verdict = verdict;
    }

    boolean isAt(Fault.Kind otherKind, double otherX, double otherY, double reach) {
        return kind == otherKind && Math.hypot(x - otherX, y - otherY) <= reach;
    }

    void judge(Verdict value) {
        verdict = value;
    }

    Verdict verdict() {
        return verdict;
    }
}
