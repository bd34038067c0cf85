package app.yubble.media.process;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/**
 * Starts programs that read files which anybody may have made: with limits of memory, time and what they write, without our
 * environment and, where the system allows it, without a network; they end when this program does, however it ends.
 */
public final class Confined {
    /** Exit code when the program is not installed. */
    public static final int NOT_FOUND = 127;

    // The shell only sets limits; arguments go through it untouched.
    private static final String LIMITED =
            "ulimit -c 0; ulimit -v %d; %s command -v \"$0\" >/dev/null || exit 127; exec %s \"$0\" \"$@\"";
    /** What {@code ulimit} counts files in. */
    private static final int BLOCK = 512;

    private static final int SECONDS_TO_TRY = 5;

    /**
     * The kernel ends a child when the thread that started it ends, so this one must live as long as we do. Threads that answer
     * requests do not.
     */
    private static final ExecutorService STARTER = Executors.newSingleThreadExecutor(work -> {
        Thread thread = new Thread(work, "program-starter");
        thread.setDaemon(true);
        return thread;
    });

    private static final String WITHOUT_NETWORK = "unshare --map-root-user --net ";
    private static final String ENDS_WITH_US = "setpriv --no-new-privs --pdeathsig KILL ";

    /** After it what holds for the program that is started through it; in this order, because a new network clears the signal. */
    private static final String THROUGH = ifItWorks(WITHOUT_NETWORK) + ifItWorks(ENDS_WITH_US);

    private Confined() {}

    /**
     * What a program may take.
     *
     * @param kilobytes of address space
     * @param seconds of all cores together; null for any
     * @param fileBytes of each file that it writes; null for any
     */
    public record Limits(
            long kilobytes,
            @Nullable Long seconds,
            @Nullable Long fileBytes) {
        public static Limits ofMemory(long kilobytes) {
            return new Limits(kilobytes, null, null);
        }

        private String script() {
            String more = (seconds == null ? "" : "ulimit -t " + seconds + ";")
                    + (fileBytes == null ? "" : "ulimit -f " + fileBytes / BLOCK + ";");
            return LIMITED.formatted(kilobytes, more, THROUGH);
        }
    }

    private static String ifItWorks(String through) {
        List<String> command = new ArrayList<>(List.of(through.strip().split(" ")));
        command.add("true");
        try {
            Process process = new ProcessBuilder(command)
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            boolean ended = process.waitFor(SECONDS_TO_TRY, TimeUnit.SECONDS);
            process.destroyForcibly();
            return ended && process.exitValue() == 0 ? through : "";
        } catch (IOException notThere) {
            return "";
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            return "";
        }
    }

    /** Whether programs are kept from the network here. */
    public static boolean isWithoutNetwork() {
        return THROUGH.contains(WITHOUT_NETWORK);
    }

    /** With pipes to its streams. */
    public static Process start(Limits limits, List<String> program) throws IOException {
        return start(limits, program, null, null);
    }

    /**
     * @param folder where it works; null for ours
     * @param said file for all that it says; null for pipes
     */
    public static Process start(Limits limits, List<String> program, @Nullable Path folder, @Nullable Path said)
            throws IOException {
        List<String> command = new ArrayList<>(List.of("sh", "-c", limits.script()));
        command.addAll(program);
        ProcessBuilder builder = new ProcessBuilder(command);
        Map<String, String> environment = builder.environment();
        String path = environment.getOrDefault("PATH", "/usr/local/bin:/usr/bin:/bin");
        environment.clear();
        environment.put("PATH", path);
        environment.put("LANG", "C.UTF-8");
        if (folder != null) {
            environment.put("HOME", folder.toString());
            environment.put("TMPDIR", folder.toString());
            builder.directory(folder.toFile());
        }
        if (said != null) {
            builder.redirectErrorStream(true).redirectOutput(said.toFile());
        }
        try {
            return STARTER.submit(builder::start).get();
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new IOException(program.get(0) + " was not started", stopped);
        } catch (ExecutionException fault) {
            throw new IOException(program.get(0) + " could not be started: " + fault.getMessage(), fault);
        }
    }
}
