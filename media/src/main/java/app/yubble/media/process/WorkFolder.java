package app.yubble.media.process;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;

/** A folder for one run of a program, gone afterwards. */
public record WorkFolder(Path path) implements AutoCloseable {
    private static final String NAME = "yubble-work-";

    public static WorkFolder create() throws IOException {
        return new WorkFolder(Files.createTempDirectory(NAME));
    }

    @Override
    public void close() throws IOException {
        remove(path);
    }

    private static void remove(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path each : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(each);
            }
        }
    }

    /** Removes those that programs like this one left when they died. */
    public static void removeLeftOver(Instant moment) throws IOException {
        List<Path> found;
        try (Stream<Path> all = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
            found = all.filter(each -> each.getFileName().toString().startsWith(NAME)
                            && Files.isDirectory(each)
                            && Files.isWritable(each))
                    .toList();
        }
        for (Path each : found) {
            if (Files.getLastModifiedTime(each).toInstant().isBefore(moment)) {
                remove(each);
            }
        }
    }
}
