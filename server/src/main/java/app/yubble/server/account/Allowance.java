package app.yubble.server.account;

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
    private static final long MICROS_IN_SECOND = 1_000_000;

    private final JdbcTemplate database;
    private final Limits limits;
    private final SecurityLog log;

    Allowance(JdbcTemplate database, Limits limits, SecurityLog log) {
        this.database = database;
        this.limits = limits;
        this.log = log;
    }

    /**
     * What an account has.
     *
     * @param bytes of the files that it brought in and of those that were made for it
     * @param shots photos and clips
     * @param work what waits to be made
     * @param clipSeconds of all its clips together
     */
    record Used(long bytes, long shots, long work, long clipSeconds) {}

    Used used(UUID account) {
        return Objects.requireNonNull(database.queryForObject(
                "select (select coalesce(sum(bytes), 0) from shot where account_id = ?)"
                        + " + (select coalesce(sum(bytes), 0) from delivery where account_id = ?),"
                        + " (select count(*) from shot where account_id = ?),"
                        + " (select count(*) from delivery where account_id = ? and state in ('WAITING', 'RENDERING'))"
                        + " + (select count(*) from shot where account_id = ? and state not in ('READY', 'FAILED')),"
                        + " (select coalesce(sum(micros), 0) from shot where account_id = ?)",
                (row, number) ->
                        new Used(row.getLong(1), row.getLong(2), row.getLong(3), row.getLong(4) / MICROS_IN_SECOND),
                account,
                account,
                account,
                account,
                account,
                account));
    }

    /** @throws RefusedException when there is no room for one more shot of so many bytes */
    public void requireShot(UUID account, long bytes) {
        Used used = used(account);
        long most = limits.of(account).shots();
        if (used.shots() >= most) {
            refuse("An account has at most " + most + " photos and clips here. Delete some first.");
        }
        requireBytes(account, used, bytes);
    }

    /** @throws RefusedException when the clips of an account would become too long with this one */
    public void requireClip(UUID account, long micros) {
        long most = limits.of(account).clipSeconds();
        long used = used(account).clipSeconds();
        if (used + micros / MICROS_IN_SECOND > most) {
            refuse("All clips of an account together may have " + most + " seconds here, and these have " + used
                    + ". Delete some first, or cut this one shorter.");
        }
    }

    /** The same for a file that takes the place of one, or belongs to a shot. */
    public void requireBytes(UUID account, long bytes) {
        requireBytes(account, used(account), bytes);
    }

    private void requireBytes(UUID account, Used used, long bytes) {
        long most = limits.of(account).bytes();
        if (used.bytes() + Math.max(0, bytes) > most) {
            refuse(String.format(
                    Locale.ROOT,
                    "An account has at most %.1f GB here, and this one has %.1f. Delete photos or deliveries first.",
                    most / 1e9,
                    used.bytes() / 1e9));
        }
    }

    /** @throws RefusedException when too much waits to be made already */
    public void requireWork(UUID account, int more) {
        long waiting = used(account).work();
        long most = limits.of(account).work();
        if (waiting + more > most) {
            refuse("At most " + most + " things may wait to be made for one account; " + waiting
                    + " do. Wait until some are done, or cancel some.");
        }
    }

    private void refuse(String why) {
        log.note(SecurityLog.Event.LIMITED, why);
        throw new RefusedException(why);
    }
}
