package app.yubble.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;
import java.util.TreeSet;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.Test;

/** The libraries that the server runs on are those that were looked at, to the byte. */
class LibrariesTest {
    private static final Path PINNED = Path.of("../server/libraries.sha256");
    private static final Path SERVER = Path.of("../server/target/server-0.1.0-SNAPSHOT-exec.jar");

    /** After an update: run with {@code -Dyubble.renew=true} and look at the difference. */
    @Test
    void everyLibraryOfTheServerIsThePinnedOne() throws IOException, NoSuchAlgorithmException {
        TreeSet<String> lines = new TreeSet<>();
        try (InputStream file = Files.newInputStream(SERVER);
                ZipInputStream jar = new ZipInputStream(file)) {
            for (ZipEntry each = jar.getNextEntry(); each != null; each = jar.getNextEntry()) {
                String name = each.getName().substring(each.getName().lastIndexOf('/') + 1);
                if (name.endsWith(".jar") && !name.contains("SNAPSHOT")) {
                    byte[] hash = MessageDigest.getInstance("SHA-256").digest(jar.readAllBytes());
                    lines.add(name + "  " + HexFormat.of().formatHex(hash));
                }
            }
        }
        List<String> found = lines.stream()
                .map(line -> line.split(" {2}")[1] + "  " + line.split(" {2}")[0])
                .toList();
        if (Boolean.getBoolean("yubble.renew")) {
            Files.write(PINNED, found);
        }
        assertThat(found).hasSizeGreaterThan(80).isEqualTo(Files.readAllLines(PINNED));
    }
}
