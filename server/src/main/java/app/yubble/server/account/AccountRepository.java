package app.yubble.server.account;

import java.util.Optional;
import java.util.UUID;
import org.springframework.data.repository.Repository;

interface AccountRepository extends Repository<Account, UUID> {
    Optional<Account> findById(UUID id);

    Optional<Account> findByFoldedName(String name);

    Account save(Account account);

    void deleteById(UUID id);
}
