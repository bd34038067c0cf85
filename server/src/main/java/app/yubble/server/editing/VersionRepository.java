package app.yubble.server.editing;

import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;
import org.springframework.data.repository.Repository;

interface VersionRepository extends Repository<Version, UUID> {
    List<Version> findByShotIdAndRemovedIsNullOrderByCreated(UUID shotId);

    /** Without reading the versions themselves: one that is locked afterwards is as it then stands. */
    @Query("select v.id from Version v where v.shotId = :shot and v.removed is null order by v.created")
    List<UUID> findIds(UUID shot);

    /** For good. */
    @Modifying
    @Query("delete from Version v where v.shotId = :shot and v.removed < :before")
    void deleteRemoved(UUID shot, Instant before);

    @Query("select v from Version v where v.id = :id and v.removed is null and exists "
            + "(select 1 from Shot s where s.id = v.shotId and s.accountId = :account)")
    Optional<Version> findOwned(UUID id, UUID account);

    /** Also one that was removed. Holds the row, so that two requests for one version come one after the other. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select v from Version v where v.id = :id and exists "
            + "(select 1 from Shot s where s.id = v.shotId and s.accountId = :account)")
    Optional<Version> lockOwned(UUID id, UUID account);

    Version save(Version version);
}
