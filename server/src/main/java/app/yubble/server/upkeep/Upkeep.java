package app.yubble.server.upkeep;

import app.yubble.server.database.DatabaseAccess;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/**
 * Makes backups of a data folder and restores them, also while a server uses it. A backup is a folder with a dump of the database and the stored
 * files; the next one into the same folder copies only what has been added. The database comes first: whatever it names is in the
 * store then, and stays there for a day at least.
 */
public final class Upkeep {
    private static final String DUMP = "database.sql";
    private static final String FILES = "files";
    private static final int WRONG_USE = 2;

    private Upkeep() {}

    public static void main(String[] arguments) {
        try {
            if (arguments.length == 3 && arguments[0].equals("backup")) {
                System.out.println(backup(Path.of(arguments[1]), Path.of(arguments[2])));
            } else if (arguments.length == 3 && arguments[0].equals("restore")) {
                System.out.println(restore(Path.of(arguments[1]), Path.of(arguments[2])));
            } else {
                System.err.println("backup DATA FOLDER, or restore FOLDER DATA");
                System.exit(WRONG_USE);
            }
        } catch (IOException | UncheckedIOException fault) {
            System.err.println("yubble: " + fault.getMessage());
            System.exit(1);
        }
    }

    /** Says what was done. */
    public static String backup(Path data, Path folder) throws IOException {
        if (!Files.isDirectory(data.resolve("database"))) {
            throw new IOException(data + " is no data folder: it has no database");
        }
        Files.createDirectories(folder);
        Path dump = folder.resolve(DUMP + ".part");
        DatabaseAccess.with(data.resolve("database"), access -> Dump.write(access, dump));
        int copied = copy(data.resolve(FILES), folder.resolve(FILES));
        Files.move(dump, folder.resolve(DUMP), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        return "backed up: the database, and " + copied + " files that were not there yet";
    }

    /** Into a data folder that is new or empty. */
    public static String restore(Path folder, Path data) throws IOException {
        Path dump = folder.resolve(DUMP);
        if (!Files.isRegularFile(dump)) {
            throw new IOException(folder + " is no backup: it has no " + DUMP);
        }
        if (Files.exists(data.resolve("database")) || Files.exists(data.resolve(FILES))) {
            throw new IOException(data + " holds data already; restore into a new folder");
        }
        int copied = copy(folder.resolve(FILES), data.resolve(FILES));
        DatabaseAccess.with(data.resolve("database"), access -> Dump.read(access, dump));
        return "restored: the database and " + copied + " files";
    }

    /** Files of the store that are not there yet, or are cut off there; gives how many. */
    private static int copy(Path from, Path to) throws IOException {
        Files.createDirectories(to);
        int copied = 0;
        for (Path folder : below(from)) {
            if (!Files.isDirectory(folder)) {
                continue;
            }
            Path home = to.resolve(folder.getFileName());
            Files.createDirectories(home);
            for (Path file : below(folder)) {
                Path target = home.resolve(file.getFileName());
                if (Files.isRegularFile(file) && (Files.notExists(target) || Files.size(target) != Files.size(file))) {
                    Path partial = home.resolve(file.getFileName() + ".part");
                    Files.copy(file, partial, StandardCopyOption.REPLACE_EXISTING);
                    Files.move(partial, target, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
                    copied++;
                }
            }
        }
        return copied;
    }

    private static List<Path> below(Path folder) throws IOException {
        if (Files.notExists(folder)) {
            return List.of();
        }
        try (Stream<Path> all = Files.list(folder)) {
            return new ArrayList<>(all.sorted().toList());
        }
    }
}
