package app.yubble.server.account;

import app.yubble.server.problem.ConflictException;
import app.yubble.server.problem.NotFoundException;
import app.yubble.server.problem.RefusedException;
import com.nulabinc.zxcvbn.Zxcvbn;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import org.springframework.security.core.GrantedAuthority;
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

    /** Knows tens of thousands of common passwords, names and words, and how people change them. */
    private static final Zxcvbn GUESSES = new Zxcvbn();
    /** As many can be tried within minutes by somebody who has the table of accounts. */
    private static final double LEAST_GUESSES = 1e6;
    /** Everybody's first idea. */
    private static final String PRODUCT = "yubble";

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
                .<UserDetails>map(
                        account -> new Checked(new SignedIn(account.id(), account.name()), account.passwordHash()))
                .orElseThrow(() -> new UsernameNotFoundException("no such account"));
    }

    /** An account with what its password is checked against. */
    record Checked(SignedIn who, String passwordHash) implements UserDetails {
        private static final long serialVersionUID = 1L;

        @Override
        public List<GrantedAuthority> getAuthorities() {
            return who.getAuthorities();
        }

        @Override
        public String getPassword() {
            return passwordHash;
        }

        @Override
        public String getUsername() {
            return who.name();
        }
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

    /** Whether an account sees how the installation is. */
    @Transactional(readOnly = true)
    public boolean isAdministrator(UUID id) {
        return repository.findById(id).filter(Account::isAdministrator).isPresent();
    }

    /** False when there is no such account. */
    @Transactional
    public boolean makeAdministrator(String name) {
        Optional<Account> account = repository.findByFoldedName(AccountName.folded(name));
        account.ifPresent(Account::makeAdministrator);
        return account.isPresent();
    }

    /** The password is made unreadable before the database is asked for anything: it takes long, and should. */
    public UUID create(String name, String password) {
        String shown = AccountName.shown(name);
        requireGood(shown, password);
        if (find(shown).isPresent()) {
            throw new ConflictException("There already is an account of that name.");
        }
        return repository
                .save(new Account(shown, Objects.requireNonNull(encoder.encode(password))))
                .id();
    }

    /** With all that belongs to it. */
    @Transactional
    public void delete(UUID id) {
        repository.deleteById(id);
    }

    /** Whoever changes a password has shown that they know the one before. */
    @Transactional
    public void usePassword(UUID id, String password) {
        Account account = repository.findById(id).orElseThrow(() -> new NotFoundException("account"));
        requireGood(account.name(), password);
        account.usePassword(Objects.requireNonNull(encoder.encode(password)));
    }

    private static void requireGood(String name, String password) {
        if (password.length() < LEAST_PASSWORD
                || password.getBytes(StandardCharsets.UTF_8).length > MOST_PASSWORD_BYTES) {
            throw new RefusedException("The password must have at least " + LEAST_PASSWORD + " characters and at most "
                    + MOST_PASSWORD_BYTES + " bytes.");
        }
        if (GUESSES.measure(password, List.of(name, PRODUCT)).getGuesses() < LEAST_GUESSES) {
            throw new RefusedException("This password is among the first that somebody would try."
                    + " Three or four words that have nothing to do with each other are a good one.");
        }
    }
}
