package app.yubble.server.shoot;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.repository.Repository;

interface ShotRepository extends Repository<Shot, UUID> {
    List<Shot> findByShootIdAndAccountIdOrderByCreated(UUID shootId, UUID accountId);

    Optional<Shot> findByIdAndAccountId(UUID id, UUID accountId);

    Optional<Shot> findById(UUID id);

    List<Shot> findByAccountIdAndChangedAfterOrderByChanged(UUID accountId, Instant after);

    Shot save(Shot shot);

    void delete(Shot shot);
}
