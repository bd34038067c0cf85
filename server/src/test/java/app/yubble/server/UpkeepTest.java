package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.yubble.server.storage.FileStore;
import app.yubble.server.storage.Verification;
import app.yubble.server.upkeep.Backup;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;

/** Backups made while the server runs, which {@link NodesTest} restores; and the look whether all is there. */
class UpkeepTest extends ServerTest {
    @Autowired
    private JdbcTemplate database;

    @Autowired
    private FileStore files;

    @Autowired
    private Verification verification;

    @Autowired
    private Backup backup;

    @TempDir
    Path folder;

    @Test
    void aBackupOfARunningServerHoldsDatabaseAndFilesButNobodysSession() throws IOException {
        Browser browser = browser().signedUp("safekeeper");
        String shot = readyShot(browser, photo(480, 310, "jpg"));
        String hash = database.queryForObject("select content_hash from shot where id = ?", String.class, shot);
        Path to = folder.resolve("backup");
        assertThat(backup.to(to)).startsWith("backed up");
        String second = readyShot(browser, photo(490, 310, "jpg"));
        assertThat(backup.to(to)).as("again, only what is new").matches(".* [1-9] files that were not there yet");

        assertThat(Files.readAllBytes(
                        to.resolve("files").resolve(hash.substring(0, 2)).resolve(hash)))
                .isEqualTo(files.bytes(hash));
        assertThat(Files.readString(to.resolve("database.sql")))
                .contains("safekeeper", shot, second)
                .doesNotContain(database.queryForObject(
                        "select session_id from SPRING_SESSION where principal_name = 'safekeeper'", String.class));
    }

    @Test
    void whatIsNoBackupAndWhatHoldsDataAlreadyAreRefused() throws IOException {
        assertThatThrownBy(() -> backup.from(folder))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("is no backup");
        browser().signedUp("holder");
        Files.writeString(folder.resolve("database.sql"), "select 1;");
        assertThatThrownBy(() -> backup.from(folder))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("holds data already");
    }

    @Test
    void aFileThatIsDamagedOrMissingIsFoundByItsName() throws IOException {
        Browser browser = browser().signedUp("verifier");
        String shot = readyShot(browser, photo(500, 310, "jpg"));
        String hash = database.queryForObject("select content_hash from shot where id = ?", String.class, shot);
        int before = verification.look().damaged().size();
        byte[] good = files.bytes(hash);

        Files.delete(files.local(hash));
        assertThat(verification.look().damaged())
                .hasSize(before + 1)
                .anyMatch(line -> line.startsWith(hash) && line.contains("content_hash"));
        Files.write(files.local(hash), new byte[good.length]);
        assertThat(verification.look().damaged()).hasSize(before + 1);
        Files.write(files.local(hash), good);
        Verification.Report whole = verification.look();
        assertThat(whole.damaged()).hasSize(before);
        assertThat(whole.good()).isPositive();
    }
}
