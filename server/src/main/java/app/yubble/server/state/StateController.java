package app.yubble.server.state;

import app.yubble.server.account.Accounts;
import app.yubble.server.account.SignedIn;
import app.yubble.server.jobs.QueueTable;
import app.yubble.server.node.NodeTable;
import app.yubble.server.problem.NotFoundException;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** One page for whoever runs the installation: its nodes, what waits, what failed, how much is stored. */
@RestController
class StateController {
    /** Seconds after which a node is taken for gone; it tells of itself every five. */
    private static final double GONE = 20;

    private final Accounts accounts;
    private final NodeTable nodes;
    private final QueueTable queue;
    private final JdbcTemplate database;

    StateController(Accounts accounts, NodeTable nodes, QueueTable queue, JdbcTemplate database) {
        this.queue = queue;
        this.accounts = accounts;
        this.nodes = nodes;
        this.database = database;
    }

    /**
     * @param state {@code ready}, {@code troubled}, {@code draining}, or {@code gone} when it has not been seen lately
     * @param problem empty when there is none
     * @param quiet seconds since it was last seen
     */
    record NodeView(
            String name, String role, String version, Instant started, String state, String problem, long quiet) {}

    /**
     * Jobs of one urgency.
     *
     * @param oldest seconds for which the one has waited that came first
     */
    record QueueView(String urgency, long waiting, long later, long working, long oldest) {}

    /** Something that could not be made in the last day. */
    record FailureView(String kind, String account, Instant when, String problem) {}

    /** @param bytes of what was brought in and of what was made */
    record StoreView(long accounts, long shots, long bytes, long deliveries, long deliveryBytes) {}

    record StateView(
            List<NodeView> nodes, List<QueueView> queue, List<FailureView> failures, StoreView store, long people) {}

    /** For others it is not there. */
    @GetMapping("/api/state")
    StateView state(@AuthenticationPrincipal SignedIn who) {
        if (!accounts.isAdministrator(who.id())) {
            throw new NotFoundException("page");
        }
        return new StateView(
                nodes.all().stream().map(StateController::shown).toList(), queue(), failures(), store(), people());
    }

    private static NodeView shown(NodeTable.Seen node) {
        return new NodeView(
                node.name(),
                node.role().toLowerCase(Locale.ROOT),
                node.version(),
                node.started(),
                node.quiet() > GONE ? "gone" : node.state().name().toLowerCase(Locale.ROOT),
                node.problem() == null ? "" : node.problem(),
                (long) node.quiet());
    }

    private List<QueueView> queue() {
        return queue.all().stream()
                .map(row -> new QueueView(
                        row.urgency().name().toLowerCase(Locale.ROOT),
                        row.waiting(),
                        row.later(),
                        row.working(),
                        row.oldest()))
                .toList();
    }

    private List<FailureView> failures() {
        return database.query(
                "select kind, name, changed, problem from ("
                        + "select 'delivery' kind, a.name, d.changed, d.problem from delivery d join account a on a.id = d.account_id"
                        + " where d.state = 'FAILED'"
                        + " union all select 'depth', a.name, s.changed, s.problem from shot s join account a on a.id = s.account_id"
                        + " where s.state = 'FAILED') f"
                        + " where changed > current_timestamp(6) - interval 1 day order by changed desc limit 50",
                (row, index) -> new FailureView(
                        row.getString(1),
                        row.getString(2),
                        row.getTimestamp(3).toInstant(),
                        row.getString(4) == null ? "" : row.getString(4)));
    }

    private StoreView store() {
        return Objects.requireNonNull(database.queryForObject(
                "select (select count(*) from account), (select count(*) from shot),"
                        + " (select coalesce(sum(bytes), 0) from shot), (select count(*) from delivery),"
                        + " (select coalesce(sum(bytes), 0) from delivery)",
                (row, index) ->
                        new StoreView(row.getLong(1), row.getLong(2), row.getLong(3), row.getLong(4), row.getLong(5))));
    }

    /** Accounts with a session that was used in the last quarter of an hour. */
    private long people() {
        Long out = database.queryForObject(
                "select count(distinct PRINCIPAL_NAME) from SPRING_SESSION where PRINCIPAL_NAME is not null"
                        + " and LAST_ACCESS_TIME > unix_timestamp() * 1000 - 900000",
                Long.class);
        return out == null ? 0 : out;
    }
}
