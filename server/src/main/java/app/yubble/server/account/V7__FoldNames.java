package app.yubble.server.account;

import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.Statement;
import org.flywaydb.core.api.migration.BaseJavaMigration;
import org.flywaydb.core.api.migration.Context;
import org.springframework.stereotype.Component;

/** The folded names of accounts from before there were any. */
@Component
class V7__FoldNames extends BaseJavaMigration {
    @Override
    public void migrate(Context context) throws Exception {
        try (Statement select = context.getConnection().createStatement();
                ResultSet accounts = select.executeQuery("select id, name from account");
                PreparedStatement update =
                        context.getConnection().prepareStatement("update account set folded_name = ? where id = ?")) {
            while (accounts.next()) {
                update.setString(1, AccountName.folded(accounts.getString(2)));
                update.setString(2, accounts.getString(1));
                update.executeUpdate();
            }
        }
    }
}
