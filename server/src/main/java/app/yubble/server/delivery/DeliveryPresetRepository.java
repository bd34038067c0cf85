package app.yubble.server.delivery;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.repository.Repository;

interface DeliveryPresetRepository extends Repository<DeliveryPreset, UUID> {
    List<DeliveryPreset> findByAccountIdOrderByName(UUID accountId);

    Optional<DeliveryPreset> findByAccountIdAndName(UUID accountId, String name);

    Optional<DeliveryPreset> findByIdAndAccountId(UUID id, UUID accountId);

    DeliveryPreset save(DeliveryPreset preset);

    void delete(DeliveryPreset preset);
}
