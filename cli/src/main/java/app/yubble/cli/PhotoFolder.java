package app.yubble.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/** Every photo of a folder, one after the other: a bad one is told and the rest goes on. */
final class PhotoFolder {
    /** Endings of files that are tried. */
    private static final Set<String> PHOTOS = Set.of(
            "jpg", "jpeg", "png", "tif", "tiff", "webp", "heic", "heif", "avif", "dng", "nef", "cr2", "cr3", "arw",
            "raf", "orf", "rw2", "pef");
    /** Of these a result has the same; of all others it is a JPEG. */
    private static final Set<String> WRITTEN = Set.of("jpg", "jpeg", "png", "tif", "tiff", "webp", "avif");

    private final Map<Path, Path> results = new LinkedHashMap<>();
    private int others;

    /** Works on one photo. */
    @FunctionalInterface
    interface Work {
        void on(Path photo, Path out) throws Exception;
    }

    /** @param ending of all results; empty for that of each photo */
    PhotoFolder(Path folder, Path out, String ending) throws IOException {
        if (Files.exists(out) && Files.isSameFile(folder, out)) {
            throw new WrongUseException("-o: the results would take the place of the photos; name another folder");
        }
        try (var all = Files.list(folder)) {
            for (Path each : all.filter(Files::isRegularFile).sorted().toList()) {
                add(each, out, ending);
            }
        }
        if (results.isEmpty()) {
            throw new UnreadableInputException(folder + ": there is no photo in this folder", null);
        }
        Files.createDirectories(out);
    }

    private void add(Path photo, Path out, String ending) {
        String name = photo.getFileName().toString();
        int dot = name.lastIndexOf('.');
        String own = name.substring(dot + 1).toLowerCase(Locale.ROOT);
        if (dot < 1 || !PHOTOS.contains(own)) {
            others++;
            return;
        }
        String kept = WRITTEN.contains(own) ? name.substring(dot + 1) : "jpg";
        Path result = out.resolve(name.substring(0, dot) + "." + (ending.isEmpty() ? kept : ending));
        results.forEach((before, there) -> {
            if (there.toString().equalsIgnoreCase(result.toString())) {
                throw new WrongUseException("-o: " + before.getFileName() + " and " + name + " would both become "
                        + result.getFileName() + "; rename one of them");
            }
        });
        results.put(photo, result);
    }

    /** Tells every photo and a summary; returns the exit code. */
    int run(PrintWriter told, Work work) {
        int number = 0;
        int failed = 0;
        for (Map.Entry<Path, Path> each : results.entrySet()) {
            long start = System.nanoTime();
            String name =
                    ++number + " of " + results.size() + "  " + each.getKey().getFileName();
            try {
                work.on(each.getKey(), each.getValue());
                told.printf(Locale.ROOT, "%s  %.1f s%n", name, (System.nanoTime() - start) / 1e9);
            } catch (Exception | OutOfMemoryError fault) {
                failed++;
                told.println(name + "  failed: "
                        + (fault instanceof OutOfMemoryError
                                ? "it needs more memory than there is"
                                : fault.getMessage()));
            }
        }
        told.println(String.join(", ", summary(failed)));
        return failed == 0 ? 0 : Yubble.UNREADABLE;
    }

    private List<String> summary(int failed) {
        String done = (results.size() - failed) + " done";
        String left = others + (others == 1 ? " other file" : " other files") + " left alone";
        return others == 0 ? List.of(done, failed + " failed") : List.of(done, failed + " failed", left);
    }
}
