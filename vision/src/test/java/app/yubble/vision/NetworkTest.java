package app.yubble.vision;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.raster.Progress;
import java.nio.FloatBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class NetworkTest {
    @TempDir
    private Path folder;

    private static float first(Network network) {
        Network.Tensor red = new Network.Tensor(
                new long[] {1, 3, 24, 32}, FloatBuffer.allocate(3 * 24 * 32).put(0, 0.7f));
        return network.run(Map.of("picture", red), List.of("depth"), Progress.NONE)
                .get(0)
                .samples()
                .get(0);
    }

    @Test
    void whatHasNotRunForAWhileGivesItsMemoryBackAndRunsAgain() throws Exception {
        Path file = Files.write(
                folder.resolve("red.onnx"), TinyModel.redIsNear().build().toByteArray());
        Network network = Network.ofFile(file, 1);
        assertThat(first(network)).isEqualTo(0.7f);
        Network.releaseUnused(Duration.ofMinutes(1));
        assertThat(network.isLoaded()).isTrue();
        Network.releaseUnused(Duration.ZERO);
        assertThat(network.isLoaded()).isFalse();
        assertThat(first(network)).isEqualTo(0.7f);
    }
}
