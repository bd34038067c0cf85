package app.yubble.server.shoot;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.repository.Repository;

interface ShootRepository extends Repository<Shoot, UUID> {
    List<Shoot> findByAccountIdOrderByCreatedDesc(UUID accountId);

    Optional<Shoot> findByIdAndAccountId(UUID id, UUID accountId);

    Shoot save(Shoot shoot);

    void delete(Shoot shoot);
}
