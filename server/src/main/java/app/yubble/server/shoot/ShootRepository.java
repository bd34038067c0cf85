package app.yubble.server.shoot;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.Query;
import org.springframework.data.repository.Repository;

interface ShootRepository extends Repository<Shoot, UUID> {
    List<Shoot> findByAccountIdOrderByCreatedDescIdDesc(UUID accountId, Limit limit);

    @Query("select s from Shoot s, Shoot at where at.id = :after and s.accountId = :account "
            + "and (s.created < at.created or (s.created = at.created and s.id < at.id)) "
            + "order by s.created desc, s.id desc")
    List<Shoot> findAfter(UUID account, UUID after, Limit limit);

    Optional<Shoot> findByIdAndAccountId(UUID id, UUID accountId);

    Shoot save(Shoot shoot);

    void delete(Shoot shoot);
}
