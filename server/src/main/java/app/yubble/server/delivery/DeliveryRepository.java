package app.yubble.server.delivery;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.repository.Repository;

interface DeliveryRepository extends Repository<Delivery, UUID> {
    List<Delivery> findByAccountIdOrderByCreatedDesc(UUID accountId);

    List<Delivery> findByAccountIdAndChangedAfterOrderByChanged(UUID accountId, Instant after);

    Optional<Delivery> findByIdAndAccountId(UUID id, UUID accountId);

    Optional<Delivery> findById(UUID id);

    Delivery save(Delivery delivery);

    void delete(Delivery delivery);
}
