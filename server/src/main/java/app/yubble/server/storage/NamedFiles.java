package app.yubble.server.storage;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** Which stored files anything names: whatever column of the database is made for a hash, so that a new one cannot be forgotten. */
@Component
class NamedFiles {
    private static final String COLUMNS =
            "select c.table_name, c.column_name, max(a.column_name = 'account_id'), max(a.column_name = 'shot_id')"
                    + " from information_schema.columns c join information_schema.columns a"
                    + " on a.table_schema = c.table_schema and a.table_name = c.table_name"
                    + " where c.table_schema = database() and c.data_type = 'char'"
                    + " and c.character_maximum_length = 64 and c.column_name like '%\\_hash'"
                    + " group by c.table_name, c.column_name";

    private final JdbcTemplate database;
    private final ObjectProvider<NamesFiles> others;

    NamedFiles(JdbcTemplate database, ObjectProvider<NamesFiles> others) {
        this.database = database;
        this.others = others;
    }

    private record Column(String table, String name, boolean hasAccount, boolean hasShot) {
        String ofAll() {
            return "select distinct " + name + " from " + table + " where " + name + " is not null";
        }

        @Nullable
        String ofAccount() {
            if (hasAccount) {
                return ofAll() + " and account_id = ?";
            }
            return hasShot ? ofAll() + " and shot_id in (select id from shot where account_id = ?)" : null;
        }
    }

    private List<Column> columns() {
        return database.query(
                COLUMNS,
                (row, index) -> new Column(row.getString(1), row.getString(2), row.getBoolean(3), row.getBoolean(4)));
    }

    Set<String> all() {
        return where().keySet();
    }

    /** By hash, what names it. */
    Map<String, String> where() {
        Map<String, String> out = new HashMap<>();
        for (Column each : columns()) {
            String place = each.table() + "." + each.name();
            database.queryForList(each.ofAll(), String.class).forEach(hash -> out.put(hash, place));
        }
        others.forEach(each -> each.named(null).forEach(hash -> out.put(hash, each.what())));
        return out;
    }

    Set<String> of(UUID account) {
        Set<String> out = new HashSet<>();
        for (Column each : columns()) {
            String question = each.ofAccount();
            if (question != null) {
                out.addAll(database.queryForList(question, String.class, account));
            }
        }
        others.forEach(each -> out.addAll(each.named(account)));
        return out;
    }
}
