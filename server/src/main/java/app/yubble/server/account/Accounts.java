package app.yubble.server.account;

import app.yubble.server.problem.ConflictException;
import app.yubble.server.problem.NotFoundException;
import app.yubble.server.problem.RefusedException;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import org.springframework.security.core.userdetails.UserDetails;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Makes and finds accounts. */
@Service
public class Accounts implements UserDetailsService {
    private static final String AUTOMATIC = "auto";
    private static final int LEAST_PASSWORD = 10;
    // BCrypt reads no more than 72 bytes.
    private static final int MOST_PASSWORD_BYTES = 72;

    private final AccountRepository repository;
    private final PasswordEncoder encoder;

    Accounts(AccountRepository repository, PasswordEncoder encoder) {
        this.repository = repository;
        this.encoder = encoder;
    }

    @Override
    public UserDetails loadUserByUsername(String name) {
        return repository
                .findByFoldedName(AccountName.folded(name))
                .map(account -> new SignedIn(account.id(), account.name(), account.passwordHash()))
                .orElseThrow(() -> new UsernameNotFoundException("no such account"));
    }

    public Optional<UUID> find(String name) {
        return repository.findByFoldedName(AccountName.folded(name)).map(Account::id);
    }

    /** The depth network that new shots of an account are estimated with. */
    @Transactional(readOnly = true)
    public String depthEngine(UUID id) {
        return repository.findById(id).map(Account::depthEngine).orElse(AUTOMATIC);
    }

    @Transactional
    public void useDepthEngine(UUID id, String name) {
        repository
                .findById(id)
                .orElseThrow(() -> new NotFoundException("account"))
                .useDepthEngine(name);
    }

    @Transactional
    public UUID create(String name, String password) {
        String shown = AccountName.shown(name);
        if (password.length() < LEAST_PASSWORD
                || password.getBytes(java.nio.charset.StandardCharsets.UTF_8).length > MOST_PASSWORD_BYTES) {
            throw new RefusedException("The password must have at least " + LEAST_PASSWORD + " characters and at most "
                    + MOST_PASSWORD_BYTES + " bytes.");
        }
        if (find(shown).isPresent()) {
            throw new ConflictException("There already is an account of that name.");
        }
        return repository
                .save(new Account(shown, Objects.requireNonNull(encoder.encode(password))))
                .id();
    }
}
