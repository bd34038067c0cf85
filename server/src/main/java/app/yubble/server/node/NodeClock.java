package app.yubble.server.node;

import app.yubble.server.problem.CannotStartException;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.Objects;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/**
 * Compares this node's clock with the database's. The job engine tells by the clock whether another node has died over its work: one
 * whose clock is off would take that of all others.
 */
@Component
public class NodeClock {
    private final JdbcTemplate database;
    private final InstantSource own;
    private final Duration most;

    @Autowired
    NodeClock(JdbcTemplate database, NodeProperties properties) {
        this(database, properties, InstantSource.system());
    }

    NodeClock(JdbcTemplate database, NodeProperties properties, InstantSource own) {
        this.database = database;
        this.own = own;
        most = properties.mostClockOff();
    }

    /** How far this node is ahead; what asking took is not counted. */
    Duration ahead() {
        Instant before = own.instant();
        double seconds = Objects.requireNonNull(
                database.queryForObject("select unix_timestamp(current_timestamp(6))", Double.class));
        Instant told = Instant.ofEpochMilli((long) (seconds * 1000));
        Instant after = own.instant();
        if (told.isBefore(before)) {
            return Duration.between(told, before);
        }
        return told.isAfter(after) ? Duration.between(told, after) : Duration.ZERO;
    }

    /** @throws CannotStartException when it is too far off for work */
    public void require() {
        String problem = problem();
        if (!problem.isEmpty()) {
            throw new CannotStartException(
                    problem, "Set the clocks of all nodes and of the database by the same time service.");
        }
    }

    /** What is wrong with it; empty when nothing is. */
    public String problem() {
        Duration ahead = ahead();
        return ahead.abs().compareTo(most) <= 0
                ? ""
                : String.format(
                        "The clock of this node is %d s %s the database's. Until it is right it takes no work.",
                        ahead.abs().toSeconds(), ahead.isNegative() ? "behind" : "ahead of");
    }
}
