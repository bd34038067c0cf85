package app.yubble.server.upkeep;

import app.yubble.server.YubbleProperties;
import app.yubble.server.database.DatabaseAccess;
import app.yubble.server.problem.CannotStartException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.MigrationInfo;
import org.flywaydb.core.api.MigrationInfoService;
import org.flywaydb.core.api.MigrationState;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.flyway.autoconfigure.FlywayMigrationStrategy;
import org.springframework.stereotype.Component;

/**
 * Writes the database to a file before its tables are changed: MariaDB cannot take such a change back. Without the file nothing
 * is changed and the server does not start. A database that is managed elsewhere is backed up there.
 */
@Component
class BeforeMigrating implements FlywayMigrationStrategy {
    private static final Logger LOG = LoggerFactory.getLogger(BeforeMigrating.class);
    private static final String START = "before-";
    private static final int KEPT = 3;

    private final Path data;

    BeforeMigrating(YubbleProperties properties) {
        data = properties.data();
    }

    @Override
    public void migrate(Flyway flyway) {
        requireNoNewer(flyway.info());
        MigrationInfo current = flyway.info().current();
        MigrationInfo[] pending = flyway.info().pending();
        if (current != null && pending.length > 0) {
            Path database = data.resolve("database");
            if (DatabaseAccess.isManaged(database)) {
                backUp(database, String.valueOf(pending[0].getVersion()));
            } else {
                LOG.warn(
                        "the tables are changed from version {}; this database is backed up elsewhere",
                        current.getVersion());
            }
        }
        flyway.migrate();
    }

    /** An older version knows nothing of what newer tables are for; nodes of it that run already may go on. */
    private static void requireNoNewer(MigrationInfoService info) {
        Optional<MigrationInfo> newer = Arrays.stream(info.applied())
                .filter(each -> each.getState() == MigrationState.FUTURE_SUCCESS)
                .findFirst();
        if (newer.isPresent()) {
            throw new CannotStartException(
                    "The database is of a newer version than this program: it has tables of step "
                            + newer.get().getVersion() + ".",
                    "Start the newer version, or restore the backup that was made before its first start.");
        }
    }

    private void backUp(Path database, String version) {
        Path folder = data.resolve("backups");
        Path partial = folder.resolve("database.sql.part");
        try {
            Files.createDirectories(folder);
            Dump.write(DatabaseAccess.ofRunning(database), partial);
            Path file = folder.resolve(START + version + ".sql");
            Files.move(partial, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            LOG.info("the tables are about to change; as they were they are in {}", file);
            removeOld(folder);
        } catch (IOException fault) {
            throw new UncheckedIOException(
                    "The tables would have to be changed, but they cannot be backed up: " + fault.getMessage(), fault);
        }
    }

    private static void removeOld(Path folder) throws IOException {
        List<Path> all;
        try (Stream<Path> files = Files.list(folder)) {
            all = files.filter(file -> file.getFileName().toString().startsWith(START))
                    .sorted(Comparator.comparing((Path file) -> file.toFile().lastModified())
                            .reversed())
                    .toList();
        }
        for (Path old : all.subList(Math.min(KEPT, all.size()), all.size())) {
            Files.delete(old);
        }
    }
}
