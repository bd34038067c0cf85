package app.yubble.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ApiExampleTest {
    private static final Path DOCS = Path.of("../docs/api.md");
    private static final String FENCE = "```";

    @TempDir
    private Path folder;

    /** What docs/api.md shows works as it stands there. */
    @Test
    void theExampleOfTheDocsRefocusesAPhoto() throws IOException, InterruptedException {
        String docs = Files.readString(DOCS);
        int from = docs.indexOf(FENCE + "bash\n") + FENCE.length() + "bash\n".length();
        Path photo = Path.of("../demo/photos/figurine.jpg").toAbsolutePath();
        ProcessBuilder example = new ProcessBuilder("bash", "-c", docs.substring(from, docs.indexOf(FENCE, from)))
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("said").toFile());
        example.environment()
                .putAll(Map.of(
                        "ADDRESS",
                        App.shared().address,
                        "NAME",
                        "demo",
                        "PASSWORD",
                        App.shared().demoPassword(),
                        "PHOTO",
                        photo.toString()));
        Process running = example.start();
        boolean ended = running.waitFor(2, TimeUnit.MINUTES);
        running.destroyForcibly();
        assertThat(ended && running.exitValue() == 0)
                .as(Files.readString(folder.resolve("said")))
                .isTrue();
        assertThat(ImageIO.read(folder.resolve("refocused.jpg").toFile()).getWidth())
                .isEqualTo(ImageIO.read(photo.toFile()).getWidth());
    }
}
