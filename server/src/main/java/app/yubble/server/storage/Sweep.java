package app.yubble.server.storage;

import app.yubble.media.process.WorkFolder;
import app.yubble.server.YubbleProperties;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Timestamp;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.CannotCreateTransactionException;
import org.springframework.util.FileSystemUtils;

/** Removes stored files that nothing names any more: what was deleted, and what a server that died had not finished. */
@Component
public class Sweep {
    private static final Logger LOG = LoggerFactory.getLogger(Sweep.class);

    /** So long a file must have had no name: work under way names its files only when it is done. */
    private static final Duration GRACE = Duration.ofDays(1);
    /** A file that was stored within it may be just about to be named, also when somebody's files go at once. */
    private static final Duration JUST_STORED = Duration.ofMinutes(5);

    private final FileStore files;
    private final StageFolder stages;
    private final NamedFiles names;
    private final JdbcTemplate database;
    private final Path work;

    Sweep(FileStore files, StageFolder stages, NamedFiles names, JdbcTemplate database, YubbleProperties properties) {
        this.stages = stages;
        work = properties.data().resolve("work");
        this.files = files;
        this.names = names;
        this.database = database;
    }

    @Scheduled(initialDelay = 600_000, fixedDelay = 6 * 3_600_000)
    void sweep() {
        try {
            WorkFolder.removeLeftOver(Instant.now().minus(GRACE));
            removeOldWork(Instant.now().minus(GRACE));
            int removed = sweep(Instant.now().minus(GRACE));
            if (removed > 0) {
                LOG.info("{} stored files that nothing names any more are removed", removed);
            }
        } catch (DataAccessException | CannotCreateTransactionException noDatabase) {
            LOG.debug("nothing is swept while the database is away");
        } catch (IOException | RuntimeException fault) {
            LOG.error("the store could not be swept", fault);
        }
    }

    /** Removes what runs that were broken off before {@code moment} have left to go on from. */
    public void removeOldWork(Instant moment) throws IOException {
        if (Files.notExists(work)) {
            return;
        }
        List<Path> folders;
        try (Stream<Path> all = Files.list(work)) {
            folders = all.toList();
        }
        for (Path folder : folders) {
            if (newest(folder).isBefore(moment)) {
                FileSystemUtils.deleteRecursively(folder);
            }
        }
    }

    private static Instant newest(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            return all.map(each -> Instant.ofEpochMilli(each.toFile().lastModified()))
                    .max(Comparator.naturalOrder())
                    .orElse(Instant.MAX);
        }
    }

    /** Removes files that have had no name since {@code moment} at least, and notes those without one now. */
    public int sweep(Instant moment) throws IOException {
        Set<String> unnamed = new HashSet<>(files.storedBefore(moment));
        unnamed.removeAll(names.all());
        Instant now = Instant.now();
        Map<String, Instant> known = new HashMap<>();
        database.query("select hash, since from unnamed_file", row -> {
            known.put(row.getString(1), row.getTimestamp(2).toInstant());
        });
        int removed = 0;
        for (String hash : unnamed) {
            Instant since = known.remove(hash);
            if (since == null) {
                database.update(
                        "insert ignore into unnamed_file (hash, since) values (?, ?)", hash, Timestamp.from(now));
            } else if (since.isBefore(moment)) {
                removed += files.remove(hash, moment) ? 1 : 0;
                database.update("delete from unnamed_file where hash = ?", hash);
            }
        }
        // They have a name again, or are gone.
        known.keySet().forEach(hash -> database.update("delete from unnamed_file where hash = ?", hash));
        files.removeLeftOver(moment);
        stages.removeGone(files);
        return removed;
    }

    /** Files that an account names; asked before its rows go. */
    public Set<String> of(UUID account) {
        return names.of(account);
    }

    /** Removes those of {@code hashes} at once that nothing names any more; what was stored just now is left to the next sweep. */
    public int removeNow(Set<String> hashes) throws IOException {
        Instant moment = Instant.now().minus(JUST_STORED);
        Set<String> unnamed = new HashSet<>(hashes);
        unnamed.removeAll(names.all());
        int removed = 0;
        for (String hash : unnamed) {
            removed += files.remove(hash, moment) ? 1 : 0;
        }
        stages.removeGone(files);
        return removed;
    }
}
