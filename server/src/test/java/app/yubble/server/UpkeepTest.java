package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.server.database.LocalMariaDb;
import app.yubble.server.storage.FileStore;
import app.yubble.server.storage.Verification;
import app.yubble.server.upkeep.Upkeep;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;

/** Backups made while the server runs, restored into an empty place; and the look whether all is there. */
class UpkeepTest extends ServerTest {
    @Autowired
    private JdbcTemplate database;

    @Autowired
    private FileStore files;

    @Autowired
    private Verification verification;

    @TempDir
    Path folder;

    private static String one(LocalMariaDb from, String question) throws SQLException {
        Map<String, Object> where = from.properties();
        try (Connection connection = DriverManager.getConnection(
                        String.valueOf(where.get("spring.datasource.url")),
                        String.valueOf(where.get("spring.datasource.username")),
                        String.valueOf(where.get("spring.datasource.password")));
                ResultSet row = connection.createStatement().executeQuery(question)) {
            row.next();
            return row.getString(1);
        }
    }

    @Test
    void aBackupOfARunningServerIsRestoredInAnEmptyPlace() throws IOException, SQLException {
        Browser browser = browser().signedUp("keeper");
        String shot = readyShot(browser, photo(480, 310, "jpg"));
        String hash = database.queryForObject("select content_hash from shot where id = ?", String.class, shot);
        Path backup = folder.resolve("backup");
        assertThat(Upkeep.backup(DATA, backup)).startsWith("backed up");
        // Again, only what is new.
        String second = readyShot(browser, photo(490, 310, "jpg"));
        assertThat(Upkeep.backup(DATA, backup)).matches(".* [1-9] files that were not there yet");
        browser.send("DELETE", "/api/shots/" + second, "");

        Path fresh = folder.resolve("fresh");
        Upkeep.restore(backup, fresh);

        LocalMariaDb restored = LocalMariaDb.start(fresh.resolve("database"));
        try {
            assertThat(one(restored, "select content_hash from shot where id = '" + shot + "'"))
                    .isEqualTo(hash);
            assertThat(one(restored, "select count(*) from shot where id = '" + second + "'"))
                    .isEqualTo("1");
            assertThat(one(restored, "select count(*) from account where folded_name = 'keeper'"))
                    .isEqualTo("1");
            assertThat(one(restored, "select count(*) from SPRING_SESSION")).isEqualTo("0");
        } finally {
            restored.stop();
        }
        assertThat(Files.readAllBytes(
                        fresh.resolve("files").resolve(hash.substring(0, 2)).resolve(hash)))
                .isEqualTo(files.bytes(hash));
        assertThat(browser.get("/api/shots/" + shot).status()).isEqualTo(200);
    }

    @Test
    void whatIsNoBackupAndWhatHoldsDataAlreadyAreRefused() {
        assertThat(catching(() -> Upkeep.restore(folder, folder.resolve("new"))))
                .contains("is no backup");
        assertThat(catching(() -> Upkeep.backup(folder, folder.resolve("new")))).contains("is no data folder");
        assertThat(catching(() -> {
                    Files.writeString(folder.resolve("database.sql"), "select 1;");
                    Upkeep.restore(folder, DATA);
                }))
                .contains("holds data already");
    }

    private interface Work {
        void run() throws IOException;
    }

    private static String catching(Work work) {
        try {
            work.run();
            return "nothing was wrong";
        } catch (IOException fault) {
            return String.valueOf(fault.getMessage());
        }
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
