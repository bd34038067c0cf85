package app.yubble.vision;

import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ModelHashesTest {
    @Test
    void whatSetUpHasMadeIsTaken() {
        assertThatCode(() -> ModelHashes.require(new ModelFolder(Path.of("../var/models"))))
                .doesNotThrowAnyException();
    }

    @Test
    void aNetworkThatWasChangedIsNotLoaded(@TempDir Path folder) throws IOException {
        Files.writeString(folder.resolve("faces-128.onnx"), "another network");
        assertThatThrownBy(() -> ModelHashes.require(new ModelFolder(folder)))
                .isInstanceOf(ModelHashes.ChangedModelException.class)
                .hasMessageContaining("faces-128.onnx");
    }
}
