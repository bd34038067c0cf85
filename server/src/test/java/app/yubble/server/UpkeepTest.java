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
        String hash = content(shot);
        Path to = folder.resolve("backup");
        assertThat(backup.to(to).told()).startsWith("backed up");
        String second = readyShot(browser, photo(490, 310, "jpg"));
        assertThat(backup.to(to).told())
                .as("again, only what is new")
                .matches(".* [1-9] files that were not there yet");

        assertThat(copy(to, hash)).hasBinaryContent(files.bytes(hash));
        assertThat(Files.readString(to.resolve("database.sql")))
                .contains("safekeeper", shot, second)
                .doesNotContain(database.queryForObject(
                        "select session_id from SPRING_SESSION where principal_name = 'safekeeper'", String.class));
    }

    @Test
    void aDamagedFileIsNamedAndKeepsNothingElseFromBeingBackedUp() throws IOException {
        Browser browser = browser().signedUp("unlucky");
        Path to = folder.resolve("backup");
        String kept = content(readyShot(browser, photo(481, 310, "jpg")));
        backup.to(to);
        String lost = content(readyShot(browser, photo(482, 310, "jpg")));
        String whole = content(readyShot(browser, photo(483, 310, "jpg")));
        byte[] good = files.bytes(kept);
        Files.write(files.local(kept), new byte[3]);
        Files.write(files.local(lost), new byte[3]);

        assertThat(backup.to(to).damaged()).contains(kept, lost).doesNotContain(whole);

        assertThat(copy(to, kept)).as("the whole copy of before stays").hasBinaryContent(good);
        assertThat(copy(to, lost)).doesNotExist();
        assertThat(copy(to, whole)).hasBinaryContent(files.bytes(whole));
        assertThat(Files.readString(to.resolve("database.sql"))).contains(whole);
    }

    private String content(String shot) {
        return database.queryForObject("select content_hash from shot where id = ?", String.class, shot);
    }

    private static Path copy(Path backup, String hash) {
        return backup.resolve("files").resolve(hash.substring(0, 2)).resolve(hash);
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
        String hash = content(shot);
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
