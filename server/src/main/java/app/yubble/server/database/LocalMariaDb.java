package app.yubble.server.database;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.SecureRandom;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.util.FileSystemUtils;

/**
 * A MariaDB server in a folder of ours: on loopback and a free port, with a password of its own. One program at a time has the folder.
 *
 * <p>It runs in a session of its own, so that Ctrl-C reaches this process alone and the database is stopped after the
 * last connection is closed. A server that an earlier, killed run left behind is ended first. One that dies is started
 * again, on the same port.
 */
public final class LocalMariaDb {
    private static final Logger LOG = LoggerFactory.getLogger(LocalMariaDb.class);

    private static final int SECONDS_TO_START = 60;
    /** Milliseconds. A database that hangs must become a fault that can be told, not a page that waits for ever. */
    static final int SOCKET_TIMEOUT = 6000;

    static final String USER = "yubble";
    static final String NAME = "yubble";
    /** Tells programs beside the server where the database listens. */
    static final String PORT_FILE = "port";
    /** Between two tries to start it again, at most; the first comes after one second. */
    private static final int MOST_SECONDS_BETWEEN = 30;

    private final Path home;
    private final FolderLock lock;
    private final int port;
    private final String password;
    private volatile Process process;
    private volatile boolean stopping;

    private LocalMariaDb(Path home, FolderLock lock) throws IOException {
        this.home = home;
        this.lock = lock;
        port = freePort();
        password = SecretFile.read(home.resolve("password"), LocalMariaDb::password);
        install();
        process = launched();
        waitUntilItAnswers();
        Thread watch = new Thread(this::watch, "database-watch");
        watch.setDaemon(true);
        watch.start();
    }

    /**
     * Makes the folder when it is not there, starts the server and waits until it answers.
     *
     * @throws FolderInUseException when another program has it
     */
    public static LocalMariaDb start(Path folder) {
        try {
            Path home = folder.toAbsolutePath();
            Files.createDirectories(home);
            FolderLock lock = FolderLock.on(home);
            try {
                endLeftOver(home.resolve("pid"));
                return new LocalMariaDb(home, lock);
            } catch (IOException | RuntimeException fault) {
                lock.release();
                throw fault;
            }
        } catch (IOException e) {
            throw new UncheckedIOException("MariaDB could not be started; is mariadb-server installed?", e);
        }
    }

    /** What is half made when the power goes is made anew. */
    private void install() throws IOException {
        Path data = home.resolve("data");
        if (Files.isDirectory(data.resolve("mysql"))) {
            return;
        }
        Path made = home.resolve("data.new");
        FileSystemUtils.deleteRecursively(made);
        run(
                log(),
                "mariadb-install-db",
                "--no-defaults",
                "--datadir=" + made,
                "--skip-test-db",
                "--auth-root-authentication-method=socket",
                "--user=" + System.getProperty("user.name"));
        FileSystemUtils.deleteRecursively(data);
        Files.move(made, data, StandardCopyOption.ATOMIC_MOVE);
    }

    private Path log() {
        return home.resolve("log");
    }

    private Process launched() throws IOException {
        SecretFile.write(home.resolve(PORT_FILE), String.valueOf(port));
        Path init = home.resolve("init.sql");
        SecretFile.write(
                init,
                "create database if not exists yubble character set utf8mb4;\n"
                        + "create or replace user 'yubble'@'127.0.0.1' identified by '" + password + "';\n"
                        + "grant all on yubble.* to 'yubble'@'127.0.0.1';\n");
        return new ProcessBuilder(
                        "setsid",
                        "mariadbd",
                        "--no-defaults",
                        "--datadir=" + home.resolve("data"),
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
                        // The longest request that is taken, and what is written around it.
                        "--max-allowed-packet=64M",
                        "--max-connections=150")
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.appendTo(log().toFile()))
                .start();
    }

    /** Starts a server again that has died; while there is no room on the disk, for one, it tries for ever. */
    private void watch() {
        long seconds = 1;
        try {
            while (!stopping) {
                if (process.waitFor(1, TimeUnit.SECONDS) && !stopping) {
                    LOG.error("the database has ended with code {}; it is started again", process.exitValue());
                    TimeUnit.SECONDS.sleep(seconds);
                    seconds = startedAgain() ? 1 : Math.min(MOST_SECONDS_BETWEEN, 2 * seconds);
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private synchronized boolean startedAgain() {
        if (stopping) {
            return false;
        }
        try {
            process = launched();
            waitUntilItAnswers();
            LOG.info("the database answers again");
            return true;
        } catch (IOException fault) {
            LOG.error("the database does not start: {}", fault.getMessage());
            return false;
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

    private static String password() {
        byte[] random = new byte[24];
        new SecureRandom().nextBytes(random);
        return HexFormat.of().formatHex(random);
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

    private void waitUntilItAnswers() throws IOException {
        long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(SECONDS_TO_START);
        while (true) {
            try {
                DriverManager.getConnection(access().url(SOCKET_TIMEOUT), USER, password)
                        .close();
                return;
            } catch (SQLException notYet) {
                if (!process.isAlive() || System.nanoTime() > deadline) {
                    process.destroyForcibly();
                    throw new IOException("MariaDB did not start: " + tail(log()), notYet);
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

    DatabaseAccess access() {
        return DatabaseAccess.local(port, USER, password);
    }

    /** Where it is, as Spring Boot's settings. */
    public Map<String, Object> properties() {
        return access().properties();
    }

    /** Asks the server to stop and waits until it has written everything. */
    public synchronized void stop() {
        stopping = true;
        process.destroy();
        try {
            if (!process.waitFor(SECONDS_TO_START, TimeUnit.SECONDS)) {
                process.destroyForcibly();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } finally {
            lock.release();
        }
    }
}
