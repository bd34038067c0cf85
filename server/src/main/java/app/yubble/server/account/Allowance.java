package app.yubble.server.account;

import app.yubble.server.YubbleProperties;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.problem.SecurityLog;
import java.util.Locale;
import java.util.Objects;
import java.util.UUID;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** How much of the server one account may have. */
@Component
public class Allowance {
    private final JdbcTemplate database;
    private final YubbleProperties properties;
    private final SecurityLog log;

    Allowance(JdbcTemplate database, YubbleProperties properties, SecurityLog log) {
        this.database = database;
        this.properties = properties;
        this.log = log;
    }

    /**
     * What an account has.
     *
     * @param bytes of the files that it brought in and of those that were made for it
     */
    record Used(long bytes, long shots) {}

    Used used(UUID account) {
        return Objects.requireNonNull(database.queryForObject(
                "select (select coalesce(sum(bytes), 0) from shot where account_id = ?)"
                        + " + (select coalesce(sum(bytes), 0) from delivery where account_id = ?),"
                        + " (select count(*) from shot where account_id = ?)",
                (row, number) -> new Used(row.getLong(1), row.getLong(2)),
                account,
                account,
                account));
    }

    /** @throws RefusedException when there is no room for one more shot of so many bytes */
    public void requireShot(UUID account, long bytes) {
        Used used = used(account);
        if (used.shots() >= properties.mostAccountShots()) {
            refuse("An account has at most " + properties.mostAccountShots()
                    + " photos and clips here. Delete some first.");
        }
        requireBytes(used, bytes);
    }

    /** The same for a file that takes the place of one, or belongs to a shot. */
    public void requireBytes(UUID account, long bytes) {
        requireBytes(used(account), bytes);
    }

    private void requireBytes(Used used, long bytes) {
        if (used.bytes() + Math.max(0, bytes) > properties.mostAccountBytes()) {
            refuse(String.format(
                    Locale.ROOT,
                    "An account has at most %.1f GB here, and this one has %.1f. Delete photos or deliveries first.",
                    properties.mostAccountBytes() / 1e9,
                    used.bytes() / 1e9));
        }
    }

    /** @throws RefusedException when too much waits to be made already */
    public void requireWork(UUID account, int more) {
        Integer waiting = database.queryForObject(
                "select (select count(*) from delivery where account_id = ? and state in ('WAITING', 'RENDERING'))"
                        + " + (select count(*) from shot where account_id = ? and state not in ('READY', 'FAILED'))",
                Integer.class,
                account,
                account);
        if (waiting != null && waiting + more > properties.mostAccountWork()) {
            refuse("At most " + properties.mostAccountWork() + " things may wait to be made for one account; " + waiting
                    + " do. Wait until some are done, or cancel some.");
        }
    }

    private void refuse(String why) {
        log.note(SecurityLog.Event.LIMITED, why);
        throw new RefusedException(why);
    }
}
