package app.yubble.server.storage;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.TimeUnit;

/** A store that speaks S3, in a process of its own on loopback, with one bucket named {@code photos}. */
public final class TestStore implements AutoCloseable {
    static final String KEY = "yubble";
    static final String SECRET = "secret-of-tests";
    private static final int SECONDS_TO_START = 60;

    private final Path folder;
    private final int port;
    private Process process;

    /** In an empty folder. */
    public TestStore(Path folder) throws IOException {
        this.folder = folder;
        Files.createDirectories(folder.resolve("data/photos"));
        try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = socket.getLocalPort();
        }
        Files.writeString(
                folder.resolve("store.conf"),
                "s3proxy.authorization=aws-v4\ns3proxy.endpoint=http://127.0.0.1:" + port + "\ns3proxy.identity=" + KEY
                        + "\ns3proxy.credential=" + SECRET
                        + "\njclouds.provider=filesystem\njclouds.filesystem.basedir="
                        + folder.resolve("data").toAbsolutePath() + "\n");
        process = started();
    }

    private Process started() throws IOException {
        Process fresh = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Xmx200m",
                        "-jar",
                        "target/store-for-tests.jar",
                        "--properties",
                        folder.resolve("store.conf").toString())
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("log").toFile())
                .start();
        long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(SECONDS_TO_START);
        while (true) {
            try (Socket socket = new Socket()) {
                socket.connect(new InetSocketAddress("127.0.0.1", port), 1000);
                return fresh;
            } catch (IOException notYet) {
                if (System.nanoTime() > deadline || !fresh.isAlive()) {
                    throw new IOException(Files.readString(folder.resolve("log")), notYet);
                }
            }
            try {
                Thread.sleep(100);
            } catch (InterruptedException stopped) {
                throw new IOException(stopped);
            }
        }
    }

    /** It goes away as if its cable were pulled. */
    public void stop() {
        process.destroyForcibly().onExit().join();
    }

    /** It is there again with all that it had. */
    public void start() throws IOException {
        process = started();
    }

    /** Of Spring Boot. */
    public Map<String, Object> settings() {
        return Map.of(
                "yubble.store.bucket",
                "photos",
                "yubble.store.endpoint",
                "http://127.0.0.1:" + port,
                "yubble.store.path-style",
                "true",
                "yubble.store.access-key",
                KEY,
                "yubble.store.secret-key",
                SECRET,
                "yubble.store.prefix",
                "club/");
    }

    /** Where the store keeps an object. */
    Path file(String hash) {
        return folder.resolve("data/photos/club").resolve(hash.substring(0, 2)).resolve(hash);
    }

    String endpoint() {
        return "http://127.0.0.1:" + port;
    }

    @Override
    public void close() {
        stop();
    }
}
