package app.yubble.server.account;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.util.Collection;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Service;

/** Where somebody is signed in. */
@Service
public class Sessions {
    /** What the browser said of itself at sign-in. */
    static final String BROWSER = "yubble.browser";

    private final FindByIndexNameSessionRepository<? extends Session> repository;

    Sessions(FindByIndexNameSessionRepository<? extends Session> repository) {
        this.repository = repository;
    }

    /**
     * One of them.
     *
     * @param id names it; with it nobody can take the session over
     */
    record OpenSession(String id, String browser, Instant since, Instant lastUsed, boolean current) {}

    /** The one used last comes first. */
    List<OpenSession> of(String account, String current) {
        return all(account).stream()
                .map(each -> new OpenSession(
                        named(each.getId()),
                        each.getAttributeOrDefault(BROWSER, ""),
                        each.getCreationTime(),
                        each.getLastAccessedTime(),
                        each.getId().equals(current)))
                .sorted(Comparator.comparing(OpenSession::lastUsed).reversed())
                .toList();
    }

    /** Ends one; false when there is none of that name. */
    boolean end(String account, String id) {
        for (Session each : all(account)) {
            if (named(each.getId()).equals(id)) {
                repository.deleteById(each.getId());
                return true;
            }
        }
        return false;
    }

    void endAllBut(String account, String current) {
        all(account).stream()
                .filter(each -> !each.getId().equals(current))
                .forEach(each -> repository.deleteById(each.getId()));
    }

    public void endAll(String account) {
        endAllBut(account, "");
    }

    /** Whether somebody is still signed in by a session. */
    public boolean isOpen(String id) {
        Session session = repository.findById(id);
        return session != null && !session.isExpired();
    }

    private Collection<? extends Session> all(String account) {
        return repository.findByPrincipalName(account).values();
    }

    private static String named(String secret) {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256").digest(secret.getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(hash, 0, 8);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
