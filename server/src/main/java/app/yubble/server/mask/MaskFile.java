package app.yubble.server.mask;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.util.UUID;

/** Says that an account has brought a mask in and may paint with it. */
@Entity
class MaskFile {
    @Id
    private UUID id;

    private UUID accountId;

    @Column(columnDefinition = "char(64)")
    private String contentHash;

    /** For Hibernate. */
    @SuppressWarnings("NullAway.Init")
    protected MaskFile() {}

    MaskFile(UUID accountId, String contentHash) {
        this.id = UUID.randomUUID();
        this.accountId = accountId;
        this.contentHash = contentHash;
    }
}
