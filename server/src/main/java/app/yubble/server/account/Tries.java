package app.yubble.server.account;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.sql.Timestamp;
import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/**
 * Counts what somebody tries too often, for all nodes. Rows are named by a hash, so that their length does not depend on what was
 * sent, and go when their time is over.
 */
@Component
class Tries {
    private final JdbcTemplate database;

    Tries(JdbcTemplate database) {
        this.database = database;
    }

    /**
     * A limit.
     *
     * @param what is counted
     * @param most as many are free
     * @param within from the first one on
     */
    record Limit(String what, int most, Duration within) {}

    boolean isOver(Limit limit, String who) {
        Integer tries = database.query(
                "select tries from try_count where who = ? and first_at > ?",
                rows -> rows.next() ? rows.getInt(1) : 0,
                key(limit, who),
                since(limit));
        return tries != null && tries >= limit.most();
    }

    void count(Limit limit, String who) {
        database.update("delete from try_count where what = ? and first_at <= ?", limit.what(), since(limit));
        database.update(
                "insert into try_count (who, what, tries, first_at) values (?, ?, 1, ?) on duplicate key update tries = tries + 1",
                key(limit, who),
                limit.what(),
                Timestamp.from(Instant.now()));
    }

    void forget(Limit limit, String who) {
        database.update("delete from try_count where who = ?", key(limit, who));
    }

    private static Timestamp since(Limit limit) {
        return Timestamp.from(Instant.now().minus(limit.within()));
    }

    private static String key(Limit limit, String who) {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256")
                    .digest((limit.what() + '\0' + who).getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(hash);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
