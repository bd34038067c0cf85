package app.yubble.server.delivery;

import java.util.Optional;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** Which stretches have been rendered, and which are being rendered, by name. */
@Component
class StretchStore {
    /** Seconds that a stretch is left to a node that no longer tells of it; a frame takes far less. */
    private static final int LEASE = 60;

    private final JdbcTemplate database;

    StretchStore(JdbcTemplate database) {
        this.database = database;
    }

    /** The hash of its file. */
    Optional<String> find(String name) {
        return database.queryForList("select content_hash from stretch where name = ?", String.class, name).stream()
                .findFirst();
    }

    /** Two nodes may have rendered it; either file will do. */
    void put(String name, String hash) {
        database.update("insert ignore into stretch (name, content_hash) values (?, ?)", name, hash);
    }

    /** Whether it is the caller's to render now. */
    boolean take(String name) {
        database.update("delete from stretch_taken where name = ? and until < now(6)", name);
        return database.update(
                        "insert ignore into stretch_taken (name, until) values (?, now(6) + interval ? second)",
                        name,
                        LEASE)
                > 0;
    }

    void keepTaken(String name) {
        database.update("update stretch_taken set until = now(6) + interval ? second where name = ?", LEASE, name);
    }

    void giveBack(String name) {
        database.update("delete from stretch_taken where name = ?", name);
    }
}
