package app.yubble.server.jobs;

import com.google.common.base.Supplier;
import com.google.common.base.Suppliers;
import io.micrometer.core.instrument.Gauge;
import io.micrometer.core.instrument.MeterRegistry;
import java.time.Duration;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.ToLongFunction;
import org.springframework.dao.DataAccessException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** What all workers have before them and in hand. */
@Component
public class QueueTable {
    /** Figures that are asked for one after another are of one look. */
    private static final Duration LOOK = Duration.ofSeconds(5);

    private final JdbcTemplate database;

    QueueTable(JdbcTemplate database, MeterRegistry meters) {
        this.database = database;
        Supplier<Map<Urgency, Row>> look = Suppliers.memoizeWithExpiration(this::byUrgency, LOOK);
        for (Urgency urgency : Urgency.values()) {
            gauge(meters, look, urgency, "waiting", Row::waiting);
            gauge(meters, look, urgency, "later", Row::later);
            gauge(meters, look, urgency, "working", Row::working);
        }
    }

    private static void gauge(
            MeterRegistry meters,
            Supplier<Map<Urgency, Row>> look,
            Urgency urgency,
            String state,
            ToLongFunction<Row> count) {
        Gauge.builder("yubble.jobs", () -> {
                    Row row = Objects.requireNonNull(look.get()).get(urgency);
                    return row == null ? 0 : count.applyAsLong(row);
                })
                .tag("urgency", urgency.name())
                .tag("state", state)
                .register(meters);
    }

    /**
     * Jobs of one urgency, of all nodes.
     *
     * @param oldest seconds for which the one has waited that came first
     */
    public record Row(Urgency urgency, long waiting, long later, long working, long oldest) {}

    private Map<Urgency, Row> byUrgency() {
        Map<Urgency, Row> out = new EnumMap<>(Urgency.class);
        try {
            all().forEach(row -> out.put(row.urgency(), row));
        } catch (DataAccessException away) {
            return Map.of();
        }
        return out;
    }

    /** The most urgent first; those that have none are left out. */
    public List<Row> all() {
        return database
                .query(
                        "select coalesce(t.urgency, 'DELIVERY') u, sum(j.state = 'ENQUEUED'), sum(j.state = 'SCHEDULED'),"
                                + " sum(j.state = 'PROCESSING'), coalesce(max(case when j.state = 'ENQUEUED'"
                                + " then timestampdiff(second, t.created, current_timestamp(6)) end), 0)"
                                + " from jobrunr_jobs j left join job_turn t on t.job_id = j.id"
                                + " where j.state in ('ENQUEUED', 'SCHEDULED', 'PROCESSING') group by u",
                        (row, index) -> new Row(
                                Urgency.valueOf(row.getString(1)),
                                row.getLong(2),
                                row.getLong(3),
                                row.getLong(4),
                                row.getLong(5)))
                .stream()
                .sorted(Comparator.comparing(Row::urgency))
                .toList();
    }
}
