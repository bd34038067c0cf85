package app.yubble.server.upkeep;

import app.yubble.server.database.DatabaseAccess;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;

/** The tables of the database in a file, and back. */
final class Dump {
    private Dump() {}

    /** As they are at one moment. Whoever has the file is not to be signed in by it: it holds no sessions. */
    static void write(DatabaseAccess access, Path file) throws IOException {
        run(access.client(
                "mariadb-dump",
                List.of(
                        "--single-transaction",
                        "--quick",
                        "--hex-blob",
                        "--no-tablespaces",
                        "--ignore-table-data=" + access.name() + ".SPRING_SESSION",
                        "--ignore-table-data=" + access.name() + ".SPRING_SESSION_ATTRIBUTES",
                        // What is true of this moment only.
                        "--ignore-table-data=" + access.name() + ".node",
                        "--ignore-table-data=" + access.name() + ".happening",
                        "--result-file=" + file.toAbsolutePath(),
                        access.name())));
    }

    static void read(DatabaseAccess access, Path file) throws IOException {
        run(access.client("mariadb", List.of(access.name())).redirectInput(file.toFile()));
    }

    private static void run(ProcessBuilder program) throws IOException {
        Process process = program.redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        try {
            if (process.waitFor() != 0) {
                throw new IOException(program.command().get(0) + " failed: " + said.strip());
            }
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", stopped);
        }
    }
}
