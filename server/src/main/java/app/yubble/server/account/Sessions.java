package app.yubble.server.account;

import com.google.common.collect.Lists;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Set;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Service;

/** Where somebody is signed in. */
@Service
public class Sessions {
    /** What the browser said of itself at sign-in. */
    static final String BROWSER = "yubble.browser";

    /** In one question. */
    private static final int AT_ONCE = 500;

    private final FindByIndexNameSessionRepository<? extends Session> repository;
    private final JdbcTemplate database;

    Sessions(FindByIndexNameSessionRepository<? extends Session> repository, JdbcTemplate database) {
        this.database = database;
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

    /** By which of some sessions somebody is still signed in. */
    public Set<String> open(Set<String> ids) {
        Set<String> out = new HashSet<>();
        for (List<String> some : Lists.partition(List.copyOf(ids), AT_ONCE)) {
            List<Object> values = new ArrayList<>(some);
            values.add(System.currentTimeMillis());
            out.addAll(database.queryForList(
                    "select SESSION_ID from SPRING_SESSION where SESSION_ID in ("
                            + String.join(", ", Collections.nCopies(some.size(), "?")) + ") and EXPIRY_TIME > ?",
                    String.class,
                    values.toArray()));
        }
        return out;
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
