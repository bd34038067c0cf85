package app.yubble.server.upkeep;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import app.yubble.server.YubbleProperties;
import app.yubble.server.database.LocalMariaDb;
import app.yubble.server.problem.CannotStartException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.Map;
import java.util.stream.Stream;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.MigrationInfo;
import org.flywaydb.core.api.MigrationInfoService;
import org.flywaydb.core.api.MigrationState;
import org.flywaydb.core.api.MigrationVersion;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class BeforeMigratingTest {
    @TempDir
    Path data;

    private final MigrationInfoService info = mock();
    private final Flyway flyway = mock();
    private MigrationInfo[] applied = {};

    private BeforeMigrating beforeMigrating() {
        YubbleProperties properties = mock();
        when(properties.data()).thenReturn(data);
        when(flyway.info()).thenReturn(info);
        when(info.applied()).thenReturn(applied);
        return new BeforeMigrating(properties);
    }

    private void pending(String version) {
        MigrationInfo current = mock();
        MigrationInfo next = mock();
        when(next.getVersion()).thenReturn(MigrationVersion.fromVersion(version));
        when(info.current()).thenReturn(current);
        when(info.pending()).thenReturn(new MigrationInfo[] {next});
    }

    @Test
    void theTablesAreInAFileBeforeTheyAreChanged() throws IOException, SQLException {
        LocalMariaDb database = LocalMariaDb.start(data.resolve("database"));
        try {
            Map<String, Object> where = database.properties();
            try (Connection connection = DriverManager.getConnection(
                    String.valueOf(where.get("spring.datasource.url")),
                    String.valueOf(where.get("spring.datasource.username")),
                    String.valueOf(where.get("spring.datasource.password")))) {
                connection.createStatement().execute("create table kept (word varchar(40))");
                connection.createStatement().execute("insert into kept values ('as it was before')");
            }
            BeforeMigrating before = beforeMigrating();
            for (String version : new String[] {"41", "42", "43", "44"}) {
                pending(version);
                before.migrate(flyway);
            }
        } finally {
            database.stop();
        }

        assertThat(data.resolve("backups/before-44.sql")).content().contains("as it was before");
        try (Stream<Path> kept = Files.list(data.resolve("backups"))) {
            assertThat(kept).as("older ones go").hasSize(3);
        }
    }

    @Test
    void withoutTheFileNothingIsChanged() throws IOException {
        Files.createDirectories(data.resolve("database"));
        Files.writeString(data.resolve("database/port"), "1");
        Files.writeString(data.resolve("database/password"), "none");
        BeforeMigrating before = beforeMigrating();
        pending("41");

        assertThatThrownBy(() -> before.migrate(flyway))
                .isInstanceOf(UncheckedIOException.class)
                .hasMessageContaining("cannot be backed up");
        verify(flyway, never()).migrate();
    }

    @Test
    void overANewerDatabaseItDoesNotStart() {
        MigrationInfo newer = mock();
        when(newer.getState()).thenReturn(MigrationState.FUTURE_SUCCESS);
        when(newer.getVersion()).thenReturn(MigrationVersion.fromVersion("99"));
        applied = new MigrationInfo[] {newer};
        assertThatThrownBy(() -> beforeMigrating().migrate(flyway))
                .isInstanceOf(CannotStartException.class)
                .hasMessageContaining("newer version")
                .hasMessageContaining("99");
        verify(flyway, never()).migrate();
    }

    @Test
    void anEmptyDatabaseAndOneThatIsUpToDateAreNotBackedUp() {
        BeforeMigrating before = beforeMigrating();
        when(info.pending()).thenReturn(new MigrationInfo[0]);
        before.migrate(flyway);
        verify(flyway).migrate();
        assertThat(data.resolve("backups")).doesNotExist();
    }
}
