package app.yubble.server.delivery;

import java.util.Optional;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** Which stretches have been rendered, by name. */
@Component
class StretchStore {
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
}
