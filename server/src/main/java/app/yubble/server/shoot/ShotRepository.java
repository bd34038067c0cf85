package app.yubble.server.shoot;

import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.repository.Repository;

interface ShotRepository extends Repository<Shot, UUID> {
    List<Shot> findByShootIdAndAccountIdOrderByCreated(UUID shootId, UUID accountId);

    Optional<Shot> findByIdAndAccountId(UUID id, UUID accountId);

    Optional<Shot> findById(UUID id);

    /** For changing it: whoever else wants to change it waits until this transaction is over. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    Optional<Shot> findLockedById(UUID id);

    @Lock(LockModeType.PESSIMISTIC_WRITE)
    Optional<Shot> findLockedByIdAndAccountId(UUID id, UUID accountId);

    List<Shot> findByAccountIdAndChangedAfterOrderByChanged(UUID accountId, Instant after);

    Shot save(Shot shot);

    void delete(Shot shot);
}
