package app.yubble.server.shoot;

import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;
import org.springframework.data.repository.Repository;

interface ShotRepository extends Repository<Shot, UUID> {
    List<Shot> findByShootIdAndAccountIdOrderByCreatedAscIdAsc(UUID shootId, UUID accountId, Limit limit);

    @Query("select s from Shot s, Shot at where at.id = :after and s.shootId = :shoot and s.accountId = :account "
            + "and (s.created > at.created or (s.created = at.created and s.id > at.id)) order by s.created, s.id")
    List<Shot> findAfter(UUID shoot, UUID account, UUID after, Limit limit);

    /** How many shots a shoot has. */
    interface Count {
        UUID getShoot();

        long getShots();
    }

    @Query("select s.shootId as shoot, count(s) as shots from Shot s where s.shootId in :shoots group by s.shootId")
    List<Count> count(Collection<UUID> shoots);

    Optional<Shot> findByIdAndAccountId(UUID id, UUID accountId);

    List<Shot> findByAccountIdOrderByCreatedAscIdAsc(UUID accountId);

    Optional<Shot> findById(UUID id);

    /** For changing it: whoever else wants to change it waits until this transaction is over. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    Optional<Shot> findLockedById(UUID id);

    @Lock(LockModeType.PESSIMISTIC_WRITE)
    Optional<Shot> findLockedByIdAndAccountId(UUID id, UUID accountId);

    List<Shot> findByIdIn(Collection<UUID> ids);

    List<Shot> findByStateNotInAndChangedBeforeOrderByChanged(
            Collection<Shot.State> states, Instant moment, Limit limit);

    boolean existsByStateAndClipFalse(Shot.State state);

    Shot save(Shot shot);

    void delete(Shot shot);
}
