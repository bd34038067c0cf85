package app.yubble.bench.endure;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/** What several nodes share: a database, and an object store or else a folder. Both run as processes of their own, which can be killed. */
final class Site implements AutoCloseable {
    private static final int SECONDS_TO_START = 60;
    private static final String PASSWORD = "club";

    private final Path folder;
    private final @Nullable Path storeProgram;
    private final int databasePort = Host.freePort();
    private final int storePort = Host.freePort();
    private Process database;
    private @Nullable Process store;

    /**
     * @param folder is empty
     * @param storeProgram a jar that speaks S3, or null for a folder of files
     */
    Site(Path folder, @Nullable Path storeProgram) throws IOException {
        this.folder = Files.createDirectories(folder);
        this.storeProgram = storeProgram;
        run(
                "mariadb-install-db",
                "--no-defaults",
                "--datadir=" + folder.resolve("database"),
                "--skip-test-db",
                "--user=" + System.getProperty("user.name"));
        Files.writeString(
                folder.resolve("init.sql"),
                "create database if not exists yubble character set utf8mb4;\n"
                        + "create or replace user 'yubble'@'127.0.0.1' identified by '" + PASSWORD + "';\n"
                        + "grant all on yubble.* to 'yubble'@'127.0.0.1';\n");
        database = database();
        if (storeProgram != null) {
            Files.createDirectories(folder.resolve("store/photos"));
            Files.writeString(
                    folder.resolve("store.conf"),
                    "s3proxy.authorization=aws-v4\ns3proxy.endpoint=http://127.0.0.1:" + storePort
                            + "\ns3proxy.identity=yubble\ns3proxy.credential=" + PASSWORD
                            + "\njclouds.provider=filesystem\njclouds.filesystem.basedir=" + folder.resolve("store")
                            + "\n");
            store = store(storeProgram);
        }
    }

    /** Of a node, which keeps what is its own in a folder; when there is no store they share it. */
    List<String> settings(String node) {
        List<String> out = new ArrayList<>(List.of(
                "--spring.datasource.url=jdbc:mariadb://127.0.0.1:" + databasePort
                        + "/yubble?connectTimeout=3000&socketTimeout=6000",
                "--spring.datasource.username=yubble",
                "--spring.datasource.password=" + PASSWORD,
                "--yubble.node.name=" + node));
        if (storeProgram != null) {
            out.addAll(List.of(
                    "--yubble.store.bucket=photos",
                    "--yubble.store.endpoint=http://127.0.0.1:" + storePort,
                    "--yubble.store.path-style=true",
                    "--yubble.store.access-key=yubble",
                    "--yubble.store.secret-key=" + PASSWORD));
        }
        return out;
    }

    boolean hasStore() {
        return storeProgram != null;
    }

    private void run(String... command) throws IOException {
        Process process = started(command);
        if (process.onExit().join().exitValue() != 0) {
            throw new IOException(command[0] + " failed; see " + log());
        }
    }

    private Path log() {
        return folder.resolve("log");
    }

    private Process started(String... command) throws IOException {
        return new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.appendTo(log().toFile()))
                .start();
    }

    private Process database() throws IOException {
        return awaited(
                databasePort,
                started(
                        "mariadbd",
                        "--no-defaults",
                        "--datadir=" + folder.resolve("database"),
                        "--bind-address=127.0.0.1",
                        "--port=" + databasePort,
                        "--socket=" + folder.resolve("socket"),
                        "--init-file=" + folder.resolve("init.sql"),
                        "--user=" + System.getProperty("user.name"),
                        "--skip-name-resolve",
                        "--character-set-server=utf8mb4",
                        "--max-allowed-packet=64M",
                        "--max-connections=200"));
    }

    private Process store(Path program) throws IOException {
        return awaited(
                storePort,
                started(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Xmx200m",
                        "-jar",
                        program.toString(),
                        "--properties",
                        folder.resolve("store.conf").toString()));
    }

    private Process awaited(int port, Process process) throws IOException {
        long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(SECONDS_TO_START);
        while (true) {
            try (Socket socket = new Socket()) {
                socket.connect(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 1000);
                return process;
            } catch (IOException notYet) {
                if (System.nanoTime() > deadline || !process.isAlive()) {
                    throw new IOException("what nodes share did not start; see " + log(), notYet);
                }
                Waiting.millis(100);
            }
        }
    }

    /** The database is gone for a while, as after a loss of power. */
    void loseDatabase(long millis) throws IOException {
        end(database);
        Waiting.millis(millis);
        database = database();
    }

    /** The same of the store. */
    void loseStore(long millis) throws IOException {
        if (store == null || storeProgram == null) {
            throw new IllegalStateException("there is no store");
        }
        end(store);
        Waiting.millis(millis);
        store = store(storeProgram);
    }

    private static void end(Process process) {
        process.destroyForcibly().onExit().join();
    }

    @Override
    public void close() {
        if (store != null) {
            end(store);
        }
        end(database);
    }
}
