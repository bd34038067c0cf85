package app.yubble.media.picture;

import app.yubble.media.process.Confined;
import app.yubble.media.process.WorkFolder;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;

/**
 * A program that reads and writes files in a folder of its own, which is removed afterwards: a separate process with limits of time and
 * memory.
 */
final class OutsideProgram {
    /** Of address space: enough for 120 megapixels. */
    private static final long MOST_KILOBYTES = 4_000_000;

    /** Of a file: 120 megapixels of sixteen bits take 720 MB. */
    private static final long MOST_WRITTEN = 2_000_000_000;
    /** That a program may use all of its time. */
    private static final long CORES = 4;
    /** Each may take as much memory as this program itself. */
    private static final Semaphore AT_ONCE = new Semaphore(2, true);

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
        try (WorkFolder own = WorkFolder.create()) {
            return work.in(own.path());
        }
    }

    /** @throws UnreadablePictureException when it is not installed, takes too long or is not content */
    void run(Path folder, List<String> program) throws IOException {
        Path said = folder.resolve("said");
        AT_ONCE.acquireUninterruptibly();
        try {
            run(Confined.start(limits(), program, folder, said), program, said);
        } finally {
            AT_ONCE.release();
        }
    }

    private Confined.Limits limits() {
        return new Confined.Limits(MOST_KILOBYTES, CORES * most.toSeconds(), MOST_WRITTEN);
    }

    private void run(Process process, List<String> program, Path said) throws IOException {
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
        if (process.exitValue() == Confined.NOT_FOUND) {
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
