package app.yubble.server.database;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.SecureRandom;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/**
 * A MariaDB server in a folder of ours: on loopback and a free port, with a password of its own.
 *
 * <p>It runs in a session of its own, so that Ctrl-C reaches this process alone and the database is stopped after the
 * last connection is closed. A server that an earlier, killed run left behind is ended first.
 */
public final class LocalMariaDb {
    private static final int SECONDS_TO_START = 60;

    private final Process process;
    private final int port;
    private final String password;

    private LocalMariaDb(Process process, int port, String password) {
        this.process = process;
        this.port = port;
        this.password = password;
    }

    /** Makes the folder when it is not there, starts the server and waits until it answers. */
    public static LocalMariaDb start(Path folder) {
        try {
            Path home = folder.toAbsolutePath();
            Files.createDirectories(home);
            endLeftOver(home.resolve("pid"));
            String password = password(home.resolve("password"));
            Path data = home.resolve("data");
            Path log = home.resolve("log");
            if (!Files.isDirectory(data.resolve("mysql"))) {
                run(
                        log,
                        "mariadb-install-db",
                        "--no-defaults",
                        "--datadir=" + data,
                        "--skip-test-db",
                        "--auth-root-authentication-method=socket",
                        "--user=" + System.getProperty("user.name"));
            }
            Path init = home.resolve("init.sql");
            Files.writeString(
                    init,
                    "create database if not exists yubble character set utf8mb4;\n"
                            + "create or replace user 'yubble'@'127.0.0.1' identified by '" + password + "';\n"
                            + "grant all on yubble.* to 'yubble'@'127.0.0.1';\n");
            ownerOnly(init);
            int port = freePort();
            Process process = new ProcessBuilder(
                            "setsid",
                            "mariadbd",
                            "--no-defaults",
                            "--datadir=" + data,
                            "--bind-address=127.0.0.1",
                            "--port=" + port,
                            "--socket=" + home.resolve("socket"),
                            "--pid-file=" + home.resolve("pid"),
                            "--init-file=" + init,
                            "--user=" + System.getProperty("user.name"),
                            "--skip-name-resolve",
                            "--character-set-server=utf8mb4",
                            "--innodb-buffer-pool-size=96M",
                            "--innodb-flush-log-at-trx-commit=1",
                            "--max-connections=60")
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.appendTo(log.toFile()))
                    .start();
            LocalMariaDb database = new LocalMariaDb(process, port, password);
            database.waitUntilItAnswers(log);
            return database;
        } catch (IOException e) {
            throw new UncheckedIOException("MariaDB could not be started; is mariadb-server installed?", e);
        }
    }

    private static void endLeftOver(Path pidFile) throws IOException {
        if (!Files.exists(pidFile)) {
            return;
        }
        Optional<ProcessHandle> left = Optional.empty();
        try {
            left = ProcessHandle.of(Long.parseLong(Files.readString(pidFile).strip()));
        } catch (NumberFormatException unreadable) {
            Files.delete(pidFile);
        }
        left.filter(handle -> handle.info().command().orElse("").contains("mariadbd"))
                .ifPresent(handle -> {
                    handle.destroy();
                    handle.onExit()
                            .orTimeout(SECONDS_TO_START, TimeUnit.SECONDS)
                            .join();
                });
    }

    private static String password(Path file) throws IOException {
        if (!Files.exists(file)) {
            byte[] random = new byte[24];
            new SecureRandom().nextBytes(random);
            Files.writeString(file, HexFormat.of().formatHex(random));
            ownerOnly(file);
        }
        return Files.readString(file).strip();
    }

    private static void ownerOnly(Path file) throws IOException {
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-------"));
    }

    private static int freePort() throws IOException {
        try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            return socket.getLocalPort();
        }
    }

    private static void run(Path log, String... command) throws IOException {
        Process process = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.appendTo(log.toFile()))
                .start();
        try {
            if (process.waitFor() != 0) {
                throw new IOException(command[0] + " failed: " + tail(log));
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted while the database was being made", e);
        }
    }

    private void waitUntilItAnswers(Path log) throws IOException {
        long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(SECONDS_TO_START);
        while (true) {
            try {
                DriverManager.getConnection(url(), "yubble", password).close();
                return;
            } catch (SQLException notYet) {
                if (!process.isAlive() || System.nanoTime() > deadline) {
                    process.destroyForcibly();
                    throw new IOException("MariaDB did not start: " + tail(log), notYet);
                }
            }
            try {
                Thread.sleep(100);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IOException("interrupted while the database was starting", e);
            }
        }
    }

    private static String tail(Path log) throws IOException {
        List<String> lines = Files.readAllLines(log);
        return String.join("\n", lines.subList(Math.max(0, lines.size() - 12), lines.size()));
    }

    private String url() {
        // A database that hangs must become a fault that can be told, not a page that waits for ever.
        return "jdbc:mariadb://127.0.0.1:" + port + "/yubble?connectTimeout=3000&socketTimeout=6000";
    }

    /** Where it is, as Spring Boot's settings. */
    public Map<String, Object> properties() {
        return Map.of(
                "spring.datasource.url",
                url(),
                "spring.datasource.username",
                "yubble",
                "spring.datasource.password",
                password);
    }

    /** Asks the server to stop and waits until it has written everything. */
    public void stop() {
        process.destroy();
        try {
            if (!process.waitFor(SECONDS_TO_START, TimeUnit.SECONDS)) {
                process.destroyForcibly();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
