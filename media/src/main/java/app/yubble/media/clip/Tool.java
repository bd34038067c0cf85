package app.yubble.media.clip;

import app.yubble.media.process.Confined;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;

/**
 * One run of ffmpeg or ffprobe. It is stopped when it is closed, when it takes too long, and with this program.
 *
 * <p>What a program says on standard error is collected by a thread of its own, so that it never waits for somebody to listen.
 */
final class Tool implements AutoCloseable {
    /** Containers that are read; none of them names other files. */
    private static final String CONTAINERS = "mov,matroska,nut";

    /** Of address space: reading and going through 4K H.265 and AV1 on two threads takes less than 1.5 GB; encoders take more. */
    private static final long MOST_KILOBYTES = 6_000_000;

    private static final int KILLED = 128;
    /** Bytes kept of what a program says; it can say a line for every frame. */
    private static final int MOST_SAID = 20_000;

    private static final int LONGEST_REASON = 200;
    private static final Duration ENDING = Duration.ofSeconds(5);

    /** A program that somebody waits for so long for one frame hangs. */
    private static final Duration STALLED = Duration.ofMinutes(3);

    private static final long NOBODY = Long.MAX_VALUE;
    /** How often the guard looks, in milliseconds. */
    private static final long LOOKS_EVERY = 1000;

    private final String program;
    private final Process process;
    private final Thread listener;
    private final Thread guard;
    private final ByteArrayOutputStream said = new ByteArrayOutputStream();
    private volatile boolean tooLong;
    /** Since when somebody waits for it. */
    private volatile long waited = NOBODY;

    private Tool(String program, List<String> arguments, Duration most) {
        this(program, arguments, most, most);
    }

    /** @param stalled most time that somebody waits for it */
    Tool(String program, List<String> arguments, Duration most, Duration stalled) {
        this.program = program;
        List<String> command = new ArrayList<>(List.of(program));
        command.addAll(arguments);
        try {
            process = Confined.start(Confined.Limits.ofMemory(MOST_KILOBYTES), command);
        } catch (IOException fault) {
            throw new ClipToolException("a program could not be started: " + fault.getMessage(), fault);
        }
        listener = daemon("clip-tool-listener", this::listen);
        guard = daemon("clip-tool-guard", () -> stopAfter(most, stalled));
    }

    /** Starts ffmpeg with arguments that come after the general ones. */
    static Tool ffmpeg(Duration most, List<String> arguments) {
        return new Tool("ffmpeg", general(arguments), most);
    }

    /** The same for frames over pipes; whoever waits for one says so with {@link #waitingFor}. */
    static Tool ffmpegByFrames(Duration most, List<String> arguments) {
        return new Tool("ffmpeg", general(arguments), most, STALLED);
    }

    private static List<String> general(List<String> arguments) {
        List<String> all = new ArrayList<>(List.of("-hide_banner", "-nostdin", "-y", "-loglevel", "error"));
        all.addAll(arguments);
        return all;
    }

    static Tool ffprobe(Duration most, List<String> arguments) {
        List<String> all = new ArrayList<>(List.of("-hide_banner", "-loglevel", "error"));
        all.addAll(arguments);
        return new Tool("ffprobe", all, most);
    }

    /** How an input file is named: it can only be a local file of a known container. */
    static List<String> input(Path file) {
        return List.of(
                "-protocol_whitelist",
                "file,pipe",
                "-format_whitelist",
                CONTAINERS,
                "-i",
                "file:" + file.toAbsolutePath());
    }

    private static Thread daemon(String name, Runnable work) {
        Thread thread = new Thread(work, name);
        thread.setDaemon(true);
        thread.start();
        return thread;
    }

    private void listen() {
        byte[] buffer = new byte[4096];
        try (InputStream errors = process.getErrorStream()) {
            for (int n = errors.read(buffer); n >= 0; n = errors.read(buffer)) {
                synchronized (said) {
                    said.write(buffer, 0, Math.max(0, Math.min(n, MOST_SAID - said.size())));
                }
            }
        } catch (IOException closed) {
            Thread.currentThread().interrupt();
        }
    }

    private void stopAfter(Duration most, Duration stalled) {
        long began = System.nanoTime();
        long look = Math.min(LOOKS_EVERY, Math.min(most.toMillis(), stalled.toMillis()));
        try {
            while (!process.waitFor(look, TimeUnit.MILLISECONDS)) {
                long now = System.nanoTime();
                long since = waited;
                if (now - began > most.toNanos() || since != NOBODY && now - since > stalled.toNanos()) {
                    tooLong = true;
                    process.destroyForcibly();
                    return;
                }
            }
        } catch (InterruptedException over) {
            Thread.currentThread().interrupt();
        }
    }

    /** Something that waits until the program has read or written. */
    interface Exchange<T> {
        T run() throws IOException;
    }

    /** Runs it; the program is stopped when it takes too long. */
    <T> T waitingFor(Exchange<T> exchange) throws IOException {
        waited = System.nanoTime();
        try {
            return exchange.run();
        } finally {
            waited = NOBODY;
        }
    }

    /** What it writes. */
    InputStream out() {
        return process.getInputStream();
    }

    /** What it reads. */
    OutputStream in() {
        return process.getOutputStream();
    }

    /** The first line that it said about what went wrong; empty when it said nothing. */
    String reason() {
        try {
            listener.join(ENDING.toMillis());
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
        synchronized (said) {
            return said.toString(StandardCharsets.UTF_8)
                    .lines()
                    // The program names the place in its memory that complains, and our own path to the file.
                    .map(line -> line.replaceAll("\\[[^\\]]* @ 0x[0-9a-f]+\\] ?", "")
                            .replaceAll("file:/\\S*?(: |$)", "")
                            .strip())
                    .filter(line -> !line.isEmpty())
                    .findFirst()
                    .map(line -> line.length() > LONGEST_REASON ? line.substring(0, LONGEST_REASON) : line)
                    .orElse("");
        }
    }

    /**
     * Waits for the end.
     *
     * @return whether it was content
     * @throws ClipToolException when it is not installed, took too long or was killed
     */
    boolean ended() {
        int code;
        try {
            code = process.waitFor();
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            process.destroyForcibly();
            throw new ClipToolException(program + " was interrupted", stopped);
        }
        if (tooLong) {
            throw new ClipToolException(program + " took too long and was stopped");
        }
        if (code == Confined.NOT_FOUND) {
            throw new ClipToolException("clips need " + program + "; on Debian: apt-get install ffmpeg");
        }
        if (code > KILLED) {
            throw new ClipToolException(program + " was killed (signal " + (code - KILLED) + ")");
        }
        return code == 0;
    }

    @Override
    public void close() {
        process.destroyForcibly();
        guard.interrupt();
    }
}
