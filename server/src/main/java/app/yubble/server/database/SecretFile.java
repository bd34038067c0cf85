package app.yubble.server.database;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Set;
import java.util.function.Supplier;

/** Files with a password that was made here: at no time for others to read, and never half written. */
public final class SecretFile {
    private static final FileAttribute<Set<PosixFilePermission>> OWNER_ONLY =
            PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------"));

    private SecretFile() {}

    public static boolean isThere(Path file) throws IOException {
        return Files.exists(file) && Files.size(file) > 0;
    }

    /** What the file holds; {@code made}, when it is not there. */
    public static String read(Path file, Supplier<String> made) throws IOException {
        if (!isThere(file)) {
            write(file, made.get());
        }
        return Files.readString(file).strip();
    }

    static void write(Path file, String content) throws IOException {
        Path fresh = file.resolveSibling(file.getFileName() + ".new");
        Files.deleteIfExists(fresh);
        Files.createFile(fresh, OWNER_ONLY);
        Files.writeString(fresh, content);
        Files.move(fresh, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    }
}
