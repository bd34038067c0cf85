package app.yubble.vision.onnx;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Progress;
import app.yubble.onnx.format.ModelProto;
import app.yubble.onnx.format.TensorProto;
import app.yubble.vision.Network;
import app.yubble.vision.TinyModel;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.FloatBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ModelEditorTest {
    /** IEEE 754 half precision of 0.5 and -2. */
    private static final int HALF = 0x3800;

    private static final int MINUS_TWO = 0xc000;

    @TempDir
    Path folder;

    /** Halves a picture of 8x8 and enlarges it again to its own fixed size, in half precision inside. */
    private static ModelProto model() {
        return TinyModel.taking("input", 1, 1, 8, 8)
                .halfWeights("w", new long[] {2, 1, 1, 1}, HALF, MINUS_TWO)
                .node("Cast", "input", "half", TinyModel.number("to", TensorProto.DataType.FLOAT16_VALUE))
                .node("Conv", "half w", "two")
                .node(
                        "MaxPool",
                        "two",
                        "small",
                        TinyModel.numbers("kernel_shape", 2, 2),
                        TinyModel.numbers("strides", 2, 2))
                .node("Constant", "-", "first", TinyModel.sizes(1, 2))
                .node("Constant", "-", "last", TinyModel.sizes(8, 8))
                .node("Concat", "first last", "size", TinyModel.number("axis", 0))
                .node("Cast", "small", "wide", TinyModel.number("to", TensorProto.DataType.FLOAT_VALUE))
                .node("Resize", "wide - - size", "large")
                .node("Cast", "two", "unused", TinyModel.number("to", TensorProto.DataType.FLOAT_VALUE))
                .answering("large", 1, 2, 8, 8)
                .answering("unused", 1, 2, 8, 8)
                .build();
    }

    private Network.Tensor run(ModelProto model, int side, float value) throws IOException {
        Path file = Files.createTempFile(folder, "model", ".onnx");
        Files.write(file, model.toByteArray());
        FloatBuffer samples = ByteBuffer.allocateDirect(4 * side * side)
                .order(ByteOrder.nativeOrder())
                .asFloatBuffer();
        while (samples.hasRemaining()) {
            samples.put(value);
        }
        Network.Tensor input = new Network.Tensor(new long[] {1, 1, side, side}, samples);
        return Network.ofFile(file, 1)
                .run(Map.of("input", input), List.of("large"), Progress.NONE)
                .get(0);
    }

    @Test
    void singlePrecisionAnswersTheSame() throws IOException {
        ModelProto single = ModelEditor.toSinglePrecision(model());
        assertThat(single.getGraph().getInitializerList())
                .allMatch(tensor -> tensor.getDataType() == TensorProto.DataType.FLOAT_VALUE);
        Network.Tensor answer = run(single, 8, 3);
        assertThat(answer.samples().get(0)).isCloseTo(1.5f, within(1e-6f));
        assertThat(answer.samples().get(64)).isCloseTo(-6, within(1e-6f));
        assertThat(run(model(), 8, 3).samples().get(64)).isCloseTo(-6, within(1e-3f));
    }

    @Test
    void anotherInputSizeScalesWhatTheModelEnlargesTo() throws IOException {
        ModelProto single = ModelEditor.toSinglePrecision(model());
        for (int side : new int[] {4, 16}) {
            Network.Tensor answer = run(ModelEditor.withInputSide(single, side), side, 1);
            assertThat(answer.shape()).containsExactly(1, 2, side, side);
        }
    }

    @Test
    void onlyWhatTheWantedOutputsNeedIsKept() throws IOException {
        ModelProto less = ModelEditor.withOutputs(ModelEditor.toSinglePrecision(model()), List.of("large"));
        assertThat(less.getGraph().getNodeCount()).isEqualTo(model().getGraph().getNodeCount() - 1);
        assertThat(run(less, 8, 1).shape()).containsExactly(1, 2, 8, 8);
        assertThatThrownBy(() -> ModelEditor.withOutputs(model(), List.of("nothing")))
                .hasMessageContaining("nothing");
    }
}
