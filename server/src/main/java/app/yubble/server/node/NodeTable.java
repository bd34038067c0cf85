package app.yubble.server.node;

import java.sql.Timestamp;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** All nodes that have been seen lately. */
@Component
public class NodeTable {
    private final JdbcTemplate database;
    private final Node node;
    private final String version;
    private final Instant started = Instant.now();

    NodeTable(JdbcTemplate database, Node node) {
        this.database = database;
        this.node = node;
        String own = NodeTable.class.getPackage().getImplementationVersion();
        version = own == null ? "" : own;
    }

    /** How a node is. */
    public enum State {
        READY,
        /** Something is wrong with it. */
        TROUBLED,
        /** It stops and takes nothing more. */
        DRAINING
    }

    /**
     * A node.
     *
     * @param quiet seconds since it was last seen
     */
    public record Seen(
            String name,
            String role,
            String version,
            Instant started,
            State state,
            @Nullable String problem,
            double quiet) {}

    /** Writes down that this node is there. */
    public void tell(State state, String problem) {
        database.update(
                "insert into node (name, role, version, started, seen, state, problem)"
                        + " values (?, ?, ?, ?, current_timestamp(6), ?, ?) on duplicate key update role = values(role),"
                        + " version = values(version), started = values(started), seen = values(seen),"
                        + " state = values(state), problem = values(problem)",
                node.name(),
                node.role().name(),
                version,
                Timestamp.from(started),
                state.name(),
                problem.isEmpty() ? null : problem);
        database.update("delete from node where seen < current_timestamp(6) - interval 1 day");
    }

    /** It has stopped as it should. */
    public void leave() {
        database.update("delete from node where name = ?", node.name());
    }

    public List<Seen> all() {
        return database.query(
                "select name, role, version, started, state, problem,"
                        + " timestampdiff(microsecond, seen, current_timestamp(6)) / 1e6 from node order by name",
                (row, index) -> new Seen(
                        row.getString(1),
                        row.getString(2),
                        row.getString(3),
                        row.getTimestamp(4).toInstant(),
                        State.valueOf(row.getString(5)),
                        row.getString(6),
                        row.getDouble(7)));
    }
}
