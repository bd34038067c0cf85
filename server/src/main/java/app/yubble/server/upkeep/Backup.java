package app.yubble.server.upkeep;

import app.yubble.server.database.DatabaseAccess;
import app.yubble.server.problem.DamagedFileException;
import app.yubble.server.storage.FileStore;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import org.flywaydb.core.Flyway;
import org.springframework.boot.jdbc.autoconfigure.DataSourceProperties;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/**
 * Copies all that an installation holds, wherever its database and its files lie, and brings it into one that holds nothing. The
 * database comes first: whatever it names is in the store then, and stays there for a day at least.
 */
@Component
public class Backup {
    private static final String DUMP = "database.sql";
    private static final String FILES = "files";
    private static final String PARTIAL = ".part";

    private final DataSourceProperties settings;
    private final JdbcTemplate database;
    private final FileStore files;
    private final Flyway tables;

    Backup(DataSourceProperties settings, JdbcTemplate database, FileStore files, Flyway tables) {
        this.tables = tables;
        this.settings = settings;
        this.database = database;
        this.files = files;
    }

    /** Looked up when it is wanted: a server also runs with an address that only its driver understands. */
    private DatabaseAccess access() {
        return DatabaseAccess.of(
                settings.determineUrl(),
                Objects.requireNonNullElse(settings.getUsername(), ""),
                Objects.requireNonNullElse(settings.getPassword(), ""));
    }

    /**
     * What came of it.
     *
     * @param told what was done, for a reader
     * @param damaged hashes of files that are not what they were, so they could not be taken along
     */
    public record Outcome(String told, List<String> damaged) {}

    /** A damaged file keeps nothing else from being backed up, and a whole copy of it that the folder has is left as it is. */
    public Outcome to(Path folder) throws IOException {
        Files.createDirectories(folder.resolve(FILES));
        Path dump = folder.resolve(DUMP + PARTIAL);
        Dump.write(access(), dump);
        int copied = 0;
        List<String> damaged = new ArrayList<>();
        for (String hash : files.storedBefore(Instant.now())) {
            Path target = folder.resolve(FILES).resolve(hash.substring(0, 2)).resolve(hash);
            if (Files.notExists(target) || Files.size(target) != files.length(hash)) {
                try {
                    copy(hash, target);
                    copied++;
                } catch (DamagedFileException fault) {
                    damaged.add(hash);
                }
            }
        }
        Files.move(dump, folder.resolve(DUMP), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        return new Outcome("backed up: the database, and " + copied + " files that were not there yet", damaged);
    }

    private void copy(String hash, Path target) throws IOException {
        Files.createDirectories(target.getParent());
        Path partial = target.resolveSibling(target.getFileName() + PARTIAL);
        try {
            try (InputStream in = files.open(hash)) {
                Files.copy(in, partial, StandardCopyOption.REPLACE_EXISTING);
            }
            Files.move(partial, target, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } finally {
            Files.deleteIfExists(partial);
        }
    }

    /** Into an installation without any account. What the backup holds damaged keeps nothing else from coming back. */
    public Outcome from(Path folder) throws IOException {
        Path dump = folder.resolve(DUMP);
        if (!Files.isRegularFile(dump)) {
            throw new IOException(folder + " is no backup: it has no " + DUMP);
        }
        Long accounts = database.queryForObject("select count(*) from account", Long.class);
        if (accounts == null || accounts > 0) {
            throw new IOException("this installation holds data already; restore into an empty database");
        }
        List<Path> all;
        try (Stream<Path> below = Files.walk(folder.resolve(FILES))) {
            all = below.filter(Files::isRegularFile)
                    .filter(file -> !file.toString().endsWith(PARTIAL))
                    .toList();
        }
        List<String> damaged = new ArrayList<>();
        for (Path file : all) {
            try (InputStream in = Files.newInputStream(file)) {
                if (!file.endsWith(files.put(in).hash())) {
                    damaged.add(file.getFileName().toString());
                }
            }
        }
        // A backup of an older version would leave newer tables, which could not be made again when it is brought up to
        // date.
        Flyway.configure()
                .configuration(tables.getConfiguration())
                .cleanDisabled(false)
                .load()
                .clean();
        Dump.read(access(), dump);
        return new Outcome("restored: the database and " + (all.size() - damaged.size()) + " files", damaged);
    }
}
