package app.yubble.server.delivery;

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

interface DeliveryRepository extends Repository<Delivery, UUID> {
    List<Delivery> findByAccountIdAndPlayingFalseOrderByCreatedDescIdDesc(UUID accountId, Limit limit);

    @Query(
            "select d from Delivery d, Delivery at where at.id = :after and d.accountId = :account and d.playing = false "
                    + "and (d.created < at.created or (d.created = at.created and d.id < at.id)) "
                    + "order by d.created desc, d.id desc")
    List<Delivery> findAfter(UUID account, UUID after, Limit limit);

    List<Delivery> findByShotIdAndPlayingTrueOrderByCreatedDescIdDesc(UUID shotId);

    List<Delivery> findByAccountIdAndBatchOrderByFileName(UUID accountId, UUID batch);

    List<Delivery> findByAccountIdAndPlayingFalseAndContentHashIsNotNullOrderByCreated(UUID accountId);

    List<Delivery> findByStateInAndChangedBeforeOrderByChanged(
            Collection<Delivery.State> states, Instant moment, Limit limit);

    Optional<Delivery> findByIdAndAccountId(UUID id, UUID accountId);

    Optional<Delivery> findById(UUID id);

    /** For changing it: whoever else wants to change it waits until this transaction is over. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    Optional<Delivery> findLockedById(UUID id);

    @Lock(LockModeType.PESSIMISTIC_WRITE)
    Optional<Delivery> findLockedByIdAndAccountId(UUID id, UUID accountId);

    Delivery save(Delivery delivery);

    void delete(Delivery delivery);
}
