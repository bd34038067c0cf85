package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.yubble.server.database.LocalMariaDb;
import app.yubble.server.storage.FileStore;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.beans.factory.annotation.Autowired;

class StorageTest extends ServerTest {
    @Autowired
    FileStore files;

    @TempDir
    Path folder;

    @Test
    void equalContentIsStoredOnceUnderItsHash() throws IOException {
        byte[] content = "the quick brown engine".getBytes(StandardCharsets.UTF_8);
        FileStore.Stored first = files.put(new ByteArrayInputStream(content));
        FileStore.Stored second = files.put(new ByteArrayInputStream(content));
        assertThat(second).isEqualTo(first);
        assertThat(first.hash()).hasSize(64).matches("[0-9a-f]+");
        assertThat(first.bytes()).isEqualTo(content.length);
        assertThat(files.bytes(first.hash())).isEqualTo(content);
    }

    @Test
    void aWriteThatFailsLeavesNothingBehind() throws IOException {
        assertThatThrownBy(() -> files.put((FileStore.Writing) out -> {
                    out.write(1);
                    throw new IOException("the pen broke");
                }))
                .hasMessageContaining("pen");
        try (Stream<Path> all = Files.list(DATA.resolve("files"))) {
            assertThat(all.map(file -> file.getFileName().toString())).noneMatch(name -> name.endsWith(".part"));
        }
    }

    @Test
    void onlyAHashNamesAFile() {
        assertThatThrownBy(() -> files.open("../../etc/passwd")).isInstanceOf(IllegalArgumentException.class);
    }

    private static Connection connect(LocalMariaDb database) throws SQLException {
        Map<String, Object> settings = database.properties();
        return DriverManager.getConnection(
                settings.get("spring.datasource.url").toString(),
                settings.get("spring.datasource.username").toString(),
                settings.get("spring.datasource.password").toString());
    }

    @Test
    void theDatabaseKeepsItsDataOverAStopAndListensOnLoopbackOnly() throws Exception {
        LocalMariaDb first = LocalMariaDb.start(folder);
        try (Connection connection = connect(first)) {
            connection.createStatement().execute("create table kept (word varchar(20))");
            connection.createStatement().execute("insert into kept values ('ballast')");
            ResultSet address = connection.createStatement().executeQuery("select @@bind_address");
            assertThat(address.next()).isTrue();
            assertThat(address.getString(1)).isEqualTo("127.0.0.1");
        } finally {
            first.stop();
        }
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(folder.resolve("password"))))
                .isEqualTo("rw-------");
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(folder.resolve("init.sql"))))
                .isEqualTo("rw-------");
        LocalMariaDb second = LocalMariaDb.start(folder);
        try (Connection connection = connect(second)) {
            ResultSet kept = connection.createStatement().executeQuery("select word from kept");
            assertThat(kept.next()).isTrue();
            assertThat(kept.getString(1)).isEqualTo("ballast");
            assertThatThrownBy(() -> LocalMariaDb.start(folder)).hasMessageContaining("used by another");
            assertThat(connection.isValid(2)).isTrue();
            assertThatThrownBy(() -> DriverManager.getConnection(
                            second.properties().get("spring.datasource.url").toString(), "yubble", "guess"))
                    .isInstanceOf(SQLException.class);
        } finally {
            second.stop();
        }
    }
}
