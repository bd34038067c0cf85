package app.yubble.server.delivery;

import java.util.Optional;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Which stretches have been rendered, and which are being rendered, by name. */
@Component
class StretchStore {
    private static final Logger LOG = LoggerFactory.getLogger(StretchStore.class);

    /** Seconds that a stretch is left to a node that no longer tells of it; a frame takes far less. */
    private static final int LEASE = 60;
    /** Days after which one is let go of. */
    private static final int KEPT_DAYS = 14;

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
    void put(String name, UUID shot, String hash) {
        database.update("insert ignore into stretch (name, shot_id, content_hash) values (?, ?, ?)", name, shot, hash);
    }

    /** Stretches are rendered again when somebody wants them again. */
    @Scheduled(initialDelay = 900_000, fixedDelay = 6 * 3_600_000)
    void letGoOfOld() {
        try {
            database.update("delete from stretch where created < now(6) - interval ? day", KEPT_DAYS);
        } catch (DataAccessException noDatabase) {
            LOG.debug("no stretches are let go of while the database is away");
        }
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
