package app.yubble.server.news;

import app.yubble.server.node.Node;
import java.util.List;
import java.util.UUID;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.RowMapper;
import org.springframework.stereotype.Component;

/** Tells all nodes what happens; within a transaction they are told when it is over. */
@Component
public class News {
    private static final String SELECT = "select seq, account_id, kind, subject, number, node from happening where ";

    private final JdbcTemplate database;
    private final Node node;

    News(JdbcTemplate database, Node node) {
        this.database = database;
        this.node = node;
    }

    /** What something is about. */
    public enum Kind {
        SHOT,
        DELIVERY,
        /** A page that has asked for a preview: its earlier ones are no longer wanted. */
        PAGE,
        /** There is something in the queue of jobs. */
        QUEUE
    }

    /**
     * Something that happened.
     *
     * @param sequence in which the database was told
     * @param subject of a shot or a delivery its id, of a page its name
     * @param number how many changes it has had, or that of the request
     * @param isOwn whether this node told it
     */
    public record Item(long sequence, UUID account, Kind kind, String subject, long number, boolean isOwn) {}

    public void tell(UUID account, Kind kind, String subject, long number) {
        database.update(
                "insert into happening (account_id, kind, subject, number, node) values (?, ?, ?, ?, ?)",
                account,
                kind.name(),
                subject,
                number,
                node.name());
    }

    /** What an account's pages should have been told since, as far as it is still known. */
    public List<Item> missed(UUID account, long after) {
        return database.query(
                SELECT + "account_id = ? and seq > ? and kind in ('SHOT', 'DELIVERY') order by seq",
                row(),
                account,
                after);
    }

    /** The number of the last that was told half a minute ago: what a page loaded just then may not have seen lies after it. */
    public long halfAMinuteAgo() {
        return database
                .queryForList(
                        "select seq from happening where at < current_timestamp(6) - interval 30 second"
                                + " order by at desc limit 1",
                        Long.class)
                .stream()
                .findFirst()
                .orElse(0L);
    }

    List<Item> where(String condition, Object... values) {
        return database.query(SELECT + condition, row(), values);
    }

    long last() {
        Long last = database.queryForObject("select coalesce(max(seq), 0) from happening", Long.class);
        return last == null ? 0 : last;
    }

    void forgetOld() {
        database.update("delete from happening where at < current_timestamp(6) - interval 10 minute limit 20000");
    }

    private RowMapper<Item> row() {
        return (row, index) -> new Item(
                row.getLong(1),
                UUID.fromString(row.getString(2)),
                Kind.valueOf(row.getString(3)),
                row.getString(4),
                row.getLong(5),
                node.name().equals(row.getString(6)));
    }
}
