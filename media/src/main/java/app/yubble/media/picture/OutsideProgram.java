package app.yubble.media.picture;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.TimeUnit;

/**
 * A program that reads and writes files in a folder of its own, which is removed afterwards: a separate process with limits of time and
 * memory.
 */
final class OutsideProgram {
    /** Of address space: enough for 120 megapixels. */
    private static final long MOST_KILOBYTES = 4_000_000;

    // The shell only sets limits; arguments go through it untouched.
    private static final String LIMITED =
            "ulimit -v %d; ulimit -c 0; command -v \"$0\" >/dev/null || exit 127; exec \"$0\" \"$@\"";
    private static final int NOT_FOUND = 127;
    private static final int LONGEST_REASON = 120;

    private final String what;
    private final String trouble;
    private final String debianPackage;
    private final Duration most;

    /**
     * @param what it works on, for complaints: "the HEIF file"
     * @param trouble what a failure means: "is cut off or damaged"
     */
    OutsideProgram(String what, String trouble, String debianPackage, Duration most) {
        this.what = what;
        this.trouble = trouble;
        this.debianPackage = debianPackage;
        this.most = most;
    }

    /** Works in a folder. */
    @FunctionalInterface
    interface Work<T> {
        T in(Path folder) throws IOException;
    }

    /** Runs {@code work} in a new folder that is gone afterwards. */
    static <T> T inFolder(Work<T> work) throws IOException {
        try (Folder own = new Folder(Files.createTempDirectory("yubble-"))) {
            return work.in(own.path);
        }
    }

    private record Folder(Path path) implements AutoCloseable {
        @Override
        public void close() throws IOException {
            try (var all = Files.walk(path)) {
                for (Path each : all.sorted(Comparator.reverseOrder()).toList()) {
                    Files.delete(each);
                }
            }
        }
    }

    /** @throws UnreadablePictureException when it is not installed, takes too long or is not content */
    void run(Path folder, List<String> program) throws IOException {
        List<String> command = new ArrayList<>(List.of("sh", "-c", LIMITED.formatted(MOST_KILOBYTES)));
        command.addAll(program);
        Path said = folder.resolve("said");
        Process process = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .redirectOutput(said.toFile())
                .start();
        try {
            if (!process.waitFor(most.toMillis(), TimeUnit.MILLISECONDS)) {
                throw new UnreadablePictureException(what + " took longer than " + most.toSeconds() + " s");
            }
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
            throw new UnreadablePictureException("work on " + what + " was interrupted", interrupted);
        } finally {
            process.destroyForcibly();
        }
        if (process.exitValue() == NOT_FOUND) {
            throw new UnreadablePictureException(
                    what + " needs " + program.get(0) + "; on Debian: apt-get install " + debianPackage);
        }
        if (process.exitValue() != 0) {
            throw new UnreadablePictureException(what + " " + trouble + " (" + reason(said) + ")");
        }
    }

    private static String reason(Path said) throws IOException {
        return Files.readString(said, StandardCharsets.ISO_8859_1)
                .lines()
                .map(String::strip)
                .filter(line -> !line.isEmpty())
                .findFirst()
                .map(line -> line.length() > LONGEST_REASON ? line.substring(0, LONGEST_REASON) : line)
                .orElse("no reason given");
    }
}
