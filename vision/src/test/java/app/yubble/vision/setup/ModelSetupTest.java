package app.yubble.vision.setup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.yubble.onnx.format.TensorProto;
import app.yubble.vision.ModelFolder;
import app.yubble.vision.TinyModel;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ModelSetupTest {
    @TempDir
    Path folder;

    private final List<String> hashes = List.of("a".repeat(64), "b".repeat(64));
    private byte[] whole;
    private Path installed;
    private ModelFolder models;

    /** A stand-in with the network's outputs, cut into two chunks as the package has it. */
    @BeforeEach
    void pack() throws IOException {
        TinyModel model = TinyModel.taking("input", 1, 3, 1024, 1024)
                .halfWeights("w", new long[] {1, 3, 1, 1}, 0x3c00, 0x3c00, 0x3c00)
                .node("Cast", "input", "half", TinyModel.number("to", TensorProto.DataType.FLOAT16_VALUE))
                .node("Conv", "half w", "sum");
        for (String output : ModelFolder.MATTE_AND_FEATURES) {
            model.node("Cast", "sum", output, TinyModel.number("to", TensorProto.DataType.FLOAT_VALUE))
                    .answering(output, 1, 1, 1024, 1024);
        }
        whole = model.build().toByteArray();
        installed = folder.resolve("package");
        Path dist = Files.createDirectories(installed.resolve("dist"));
        Files.write(dist.resolve(hashes.get(0)), Arrays.copyOf(whole, 100));
        Files.write(dist.resolve(hashes.get(1)), Arrays.copyOfRange(whole, 100, whole.length));
        Files.writeString(
                dist.resolve("resources.json"),
                "{\"/models/medium\":{\"chunks\":[{\"hash\":\"" + hashes.get(0) + "\"},{\"hash\":\"" + hashes.get(1)
                        + "\"}]}}");
        models = new ModelFolder(folder.resolve("models"));
    }

    private String sha256() throws Exception {
        return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(whole));
    }

    @Test
    void joinedChunksBecomeBothNetworks() throws Exception {
        assertThat(models.hasSubjectNetwork()).isFalse();
        ModelSetup.run(installed, models, whole.length, sha256());
        assertThat(models.hasSubjectNetwork()).isTrue();
        assertThat(Files.list(models.path())).hasSize(2);
    }

    @Test
    void aDownloadThatFailsItsHashLeavesNothingAndSaysWhatToDo() throws Exception {
        String right = sha256();
        Path second = installed.resolve("dist").resolve(hashes.get(1));
        byte[] bytes = Files.readAllBytes(second);
        bytes[7] ^= 1;
        Files.write(second, bytes);
        assertThatThrownBy(() -> ModelSetup.run(installed, models, whole.length, right))
                .isInstanceOf(ModelSetup.BadDownloadException.class)
                .hasMessageContaining(right)
                .hasMessageContaining("start again");
        assertThat(Files.list(models.path())).isEmpty();
    }

    @Test
    void aFaceNetworkIsTakenOnlyWhenItIsWhatWasPinned() throws Exception {
        Path given = Files.write(folder.resolve("faces"), whole);
        assertThatThrownBy(() -> ModelSetup.copy(given, "0".repeat(64), models.farFaces()))
                .isInstanceOf(ModelSetup.BadDownloadException.class)
                .hasMessageContaining(sha256());
        assertThat(models.farFaces()).doesNotExist();
        ModelSetup.copy(given, sha256(), models.farFaces());
        assertThat(models.farFaces()).hasBinaryContent(whole);
        assertThat(models.hasFaceNetworks()).isFalse();
        ModelSetup.copy(given, sha256(), models.nearFaces());
        assertThat(models.hasFaceNetworks()).isTrue();
    }

    @Test
    void aChunkNameThatIsAPathIsRefused() throws IOException {
        Files.writeString(
                installed.resolve("dist/resources.json"),
                "{\"/models/medium\":{\"chunks\":[{\"hash\":\"../../secret\"}]}}");
        assertThatThrownBy(() -> ModelSetup.run(installed, models, 1, "x")).hasMessageContaining("proper name");
    }
}
