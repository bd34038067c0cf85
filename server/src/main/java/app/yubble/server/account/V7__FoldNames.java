package app.yubble.server.account;

import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.Statement;
import java.util.HashSet;
import java.util.Set;
import org.flywaydb.core.api.migration.BaseJavaMigration;
import org.flywaydb.core.api.migration.Context;
import org.springframework.stereotype.Component;

/**
 * The folded names of accounts from before there were any. Of two names that have become one the older account keeps it; the other
 * gets a number behind it, in the name that is shown too, so that one signs in as one is called.
 */
@Component
class V7__FoldNames extends BaseJavaMigration {
    /** Of the column, and room for a number behind it. */
    private static final int LONGEST = 80;

    private static final int NUMBER = 8;

    @Override
    public void migrate(Context context) throws Exception {
        Set<String> taken = new HashSet<>();
        try (Statement select = context.getConnection().createStatement();
                ResultSet accounts = select.executeQuery("select id, name from account order by created, id");
                PreparedStatement update = context.getConnection()
                        .prepareStatement("update account set name = ?, folded_name = ? where id = ?")) {
            while (accounts.next()) {
                String old = accounts.getString(2);
                String name = old;
                for (int i = 2; !taken.add(AccountName.folded(name)); i++) {
                    name = old.substring(0, Math.min(old.length(), LONGEST - NUMBER)) + " " + i;
                }
                update.setString(1, name);
                update.setString(2, AccountName.folded(name));
                update.setString(3, accounts.getString(1));
                update.executeUpdate();
            }
        }
    }
}
