package app.yubble.server.storage;

import java.io.IOException;
import java.util.concurrent.CancellationException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/**
 * Keeps those who store a file and those who remove it apart, on all nodes. Who removes one says so first, then looks when it was
 * stored last; who has stored one looks then whether it is being removed. Either sees the other.
 */
@Component
class GoingFiles {
    /** Milliseconds. */
    private static final long LOOK = 50;
    /** Of a node that died over it. */
    private static final String LOST = "since < current_timestamp(6) - interval 10 minute";

    private final JdbcTemplate database;

    GoingFiles(JdbcTemplate database) {
        this.database = database;
    }

    /** Removes a file, unless it was stored just now. */
    @FunctionalInterface
    interface Removal {
        boolean run() throws IOException;
    }

    /** False when somebody else removes the same, or it stays. */
    boolean remove(String hash, Removal removal) throws IOException {
        database.update("delete from going_file where " + LOST);
        if (database.update("insert ignore into going_file (hash) values (?)", hash) == 0) {
            return false;
        }
        try {
            return removal.run();
        } finally {
            database.update("delete from going_file where hash = ?", hash);
        }
    }

    /** Returns when nobody removes the file. */
    void await(String hash) {
        try {
            while (isGoing(hash)) {
                Thread.sleep(LOOK);
            }
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new CancellationException("interrupted");
        }
    }

    private boolean isGoing(String hash) {
        return Boolean.TRUE.equals(database.queryForObject(
                "select exists (select 1 from going_file where hash = ? and not (" + LOST + "))", Boolean.class, hash));
    }
}
