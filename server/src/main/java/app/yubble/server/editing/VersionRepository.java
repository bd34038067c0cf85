package app.yubble.server.editing;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;
import org.springframework.data.repository.Repository;

interface VersionRepository extends Repository<Version, UUID> {
    List<Version> findByShotIdOrderByCreated(UUID shotId);

    @Query("select v from Version v where v.id = :id and exists "
            + "(select 1 from Shot s where s.id = v.shotId and s.accountId = :account)")
    Optional<Version> findOwned(UUID id, UUID account);

    /** Holds the row, so that two requests for one version come one after the other. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select v from Version v where v.id = :id and exists "
            + "(select 1 from Shot s where s.id = v.shotId and s.accountId = :account)")
    Optional<Version> lockOwned(UUID id, UUID account);

    Version save(Version version);

    void delete(Version version);
}
