package app.yubble.server;

import app.yubble.onnx.format.AttributeProto;
import app.yubble.onnx.format.GraphProto;
import app.yubble.onnx.format.ModelProto;
import app.yubble.onnx.format.NodeProto;
import app.yubble.onnx.format.OperatorSetIdProto;
import app.yubble.onnx.format.TensorProto;
import app.yubble.onnx.format.TensorShapeProto;
import app.yubble.onnx.format.TypeProto;
import app.yubble.onnx.format.ValueInfoProto;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** A models folder with one depth network that takes its time, and one descriptor that does not fit. */
final class TestNetworks {
    private static final int SIDE = 512;
    private static final int WIDTH = 48;
    private static final int DEEP = 40;

    private TestNetworks() {}

    static Path folder(Path data) {
        try {
            Path folder = Files.createDirectories(data.resolve("models/depth"));
            byte[] slow = slow().toByteArray();
            Files.write(folder.resolve("slow.onnx"), slow);
            describe(folder.resolve("slow.json"), "slow", hash(slow));
            describe(folder.resolve("torn.json"), "torn", "0".repeat(64));
            return data.resolve("models");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void describe(Path file, String name, String hash) throws IOException {
        Files.writeString(file, """
                {"format": "yubble-depth-network", "version": 1, "name": "%s", "about": "slow", "licence": "MIT",
                 "file": "slow.onnx", "sha256": "%s", "input": {"name": "picture", "width": 512, "height": 512},
                 "output": {"name": "depth", "meaning": "nearness"}}
                """.formatted(name, hash));
    }

    private static String hash(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Forty convolutions with the same weights. */
    private static ModelProto slow() {
        GraphProto.Builder graph = GraphProto.newBuilder().setName("slow");
        graph.addInput(value("picture", 3)).addOutput(value("depth", 1));
        graph.addInitializer(weights("first", WIDTH, 3)).addInitializer(weights("same", WIDTH, WIDTH));
        graph.addInitializer(weights("last", 1, WIDTH));
        graph.addNode(convolution("picture", "first", "x0"));
        for (int i = 0; i < DEEP; i++) {
            graph.addNode(convolution("x" + i, "same", "x" + (i + 1)));
        }
        graph.addNode(convolution("x" + DEEP, "last", "depth"));
        return ModelProto.newBuilder()
                .setIrVersion(8)
                .addOpsetImport(OperatorSetIdProto.newBuilder().setVersion(15))
                .setGraph(graph)
                .build();
    }

    private static ValueInfoProto value(String name, long channels) {
        TensorShapeProto.Builder shape = TensorShapeProto.newBuilder();
        for (long side : new long[] {1, channels, SIDE, SIDE}) {
            shape.addDim(TensorShapeProto.Dimension.newBuilder().setDimValue(side));
        }
        TypeProto.Tensor tensor = TypeProto.Tensor.newBuilder()
                .setElemType(TensorProto.DataType.FLOAT_VALUE)
                .setShape(shape)
                .build();
        return ValueInfoProto.newBuilder()
                .setName(name)
                .setType(TypeProto.newBuilder().setTensorType(tensor))
                .build();
    }

    private static TensorProto weights(String name, int outputs, int inputs) {
        TensorProto.Builder tensor =
                TensorProto.newBuilder().setName(name).setDataType(TensorProto.DataType.FLOAT_VALUE);
        tensor.addDims(outputs).addDims(inputs).addDims(3).addDims(3);
        for (int i = 0; i < outputs * inputs * 9; i++) {
            tensor.addFloatData(1f / (inputs * 9));
        }
        return tensor.build();
    }

    private static NodeProto convolution(String input, String weights, String output) {
        AttributeProto.Builder pads =
                AttributeProto.newBuilder().setName("pads").setType(AttributeProto.AttributeType.INTS);
        for (int i = 0; i < 4; i++) {
            pads.addInts(1);
        }
        return NodeProto.newBuilder()
                .setOpType("Conv")
                .addInput(input)
                .addInput(weights)
                .addOutput(output)
                .addAttribute(pads)
                .build();
    }
}
