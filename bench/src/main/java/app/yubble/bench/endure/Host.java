package app.yubble.bench.endure;

import java.io.File;
import java.io.IOException;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** A server as a process of its own. */
final class Host implements AutoCloseable {
    private static final int SECONDS_TO_START = 120;
    private static final int OK = 200;

    private final List<String> program;
    private final Path data;
    private final List<String> settings;
    private final int port = freePort();
    private final int operators = freePort();
    private final HttpClient http = HttpClient.newHttpClient();
    private Process process;

    /**
     * One that is alone.
     *
     * @param program Java with its options up to what is to be run
     * @param data is made and filled
     */
    Host(List<String> program, Path data) throws IOException {
        this(program, data, List.of("--yubble.database=managed"));
    }

    /** @param settings say where its database is */
    Host(List<String> program, Path data, List<String> settings) throws IOException {
        this.program = program;
        this.settings = settings;
        this.data = data;
        Files.createDirectories(data.resolve("models"));
        process = launched();
        awaitReady();
    }

    int port() {
        return port;
    }

    private Process launched() throws IOException {
        List<String> command = new ArrayList<>(program);
        command.addAll(List.of(
                "--server.port=" + port,
                "--management.server.port=" + operators,
                "--yubble.data=" + data,
                // Without networks: a trial of the server, with the plainest estimate.
                "--yubble.models=" + data.resolve("models"),
                "--yubble.accounts-per-hour=10000"));
        command.addAll(settings);
        return new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.appendTo(log()))
                .start();
    }

    File log() {
        return data.resolve("log-" + port).toFile();
    }

    static int freePort() {
        try (ServerSocket socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Until the server, its database and its workers are all there. */
    void awaitReady() throws IOException {
        long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(SECONDS_TO_START);
        while (!isReady()) {
            if (!process.isAlive() || System.nanoTime() > deadline) {
                throw new IOException("the server did not come up; see " + log());
            }
            Waiting.millis(100);
        }
    }

    private boolean isReady() {
        try {
            return http.send(
                                    HttpRequest.newBuilder(URI.create(
                                                    "http://127.0.0.1:" + operators + "/actuator/health/readiness"))
                                            .build(),
                                    HttpResponse.BodyHandlers.discarding())
                            .statusCode()
                    == OK;
        } catch (IOException notYet) {
            return false;
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(stopped);
        }
    }

    /** Bytes of the heap that are alive, after the collector has been through. */
    long liveBytes() throws IOException {
        new ProcessBuilder("jcmd", String.valueOf(process.pid()), "GC.run")
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start()
                .onExit()
                .join();
        double sum = 0;
        Matcher each = Pattern.compile("jvm_memory_used_bytes\\{area=\"heap\"[^}]*} ([0-9.E+]+)")
                .matcher(figures());
        while (each.find()) {
            sum += Double.parseDouble(each.group(1));
        }
        return Math.round(sum);
    }

    private String figures() throws IOException {
        try {
            return http.send(
                            HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + operators + "/actuator/prometheus"))
                                    .build(),
                            HttpResponse.BodyHandlers.ofString())
                    .body();
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new IOException(stopped);
        }
    }

    boolean isAlive() {
        return process.isAlive();
    }

    /** Ends the application as a loss of power would. */
    void kill() {
        process.destroyForcibly();
        process.onExit().join();
    }

    void startAgain() throws IOException {
        process = launched();
        awaitReady();
    }

    /** Ends the database as a loss of power would; the server has to bring it back. */
    void killDatabase() throws IOException {
        long pid = Long.parseLong(
                Files.readString(data.resolve("database").resolve("pid")).strip());
        ProcessHandle.of(pid).ifPresent(handle -> {
            handle.destroyForcibly();
            handle.onExit().join();
        });
        // What it was is not what is answered by now.
        Waiting.millis(500);
    }

    /** Stops the server and compares all stored files with the database; what it found when something is wrong. */
    String verified() throws IOException {
        close();
        List<String> command = new ArrayList<>(program);
        command.addAll(List.of(
                "--yubble.verify=true",
                "--yubble.data=" + data,
                "--server.port=0",
                "--management.server.port=0",
                "--jobrunr.background-job-server.enabled=false",
                "--spring.main.banner-mode=off"));
        command.addAll(settings);
        Path said = data.resolve("verified");
        Process check = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(said.toFile())
                .start();
        return check.onExit().join().exitValue() == 0 ? "" : Files.readString(said);
    }

    @Override
    public void close() {
        process.destroy();
        process.onExit().join();
    }
}
