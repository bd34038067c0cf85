package app.yubble.vision;

import app.yubble.onnx.format.AttributeProto;
import app.yubble.onnx.format.GraphProto;
import app.yubble.onnx.format.ModelProto;
import app.yubble.onnx.format.NodeProto;
import app.yubble.onnx.format.OperatorSetIdProto;
import app.yubble.onnx.format.TensorProto;
import app.yubble.onnx.format.TensorShapeProto;
import app.yubble.onnx.format.TypeProto;
import app.yubble.onnx.format.ValueInfoProto;
import com.google.protobuf.ByteString;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;

/** Small ONNX models made on the spot, so that the real loading and running is tested. */
public final class TinyModel {
    private static final int FLOAT = TensorProto.DataType.FLOAT_VALUE;

    private final GraphProto.Builder graph = GraphProto.newBuilder().setName("tiny");

    public static TinyModel taking(String name, long... shape) {
        TinyModel model = new TinyModel();
        model.graph.addInput(value(name, shape));
        return model;
    }

    private static ValueInfoProto value(String name, long... shape) {
        TensorShapeProto.Builder dimensions = TensorShapeProto.newBuilder();
        for (long side : shape) {
            TensorShapeProto.Dimension.Builder dimension = TensorShapeProto.Dimension.newBuilder();
            dimensions.addDim(side < 0 ? dimension.setDimParam("open") : dimension.setDimValue(side));
        }
        return ValueInfoProto.newBuilder()
                .setName(name)
                .setType(TypeProto.newBuilder()
                        .setTensorType(
                                TypeProto.Tensor.newBuilder().setElemType(FLOAT).setShape(dimensions)))
                .build();
    }

    public TinyModel answering(String name, long... shape) {
        graph.addOutput(value(name, shape));
        return this;
    }

    public TinyModel node(String type, String inputs, String output, AttributeProto... attributes) {
        NodeProto.Builder node = NodeProto.newBuilder().setOpType(type).addOutput(output);
        for (String input : inputs.split(" ")) {
            node.addInput(input.equals("-") ? "" : input);
        }
        for (AttributeProto attribute : attributes) {
            node.addAttribute(attribute);
        }
        graph.addNode(node);
        return this;
    }

    public static AttributeProto number(String name, long value) {
        return AttributeProto.newBuilder()
                .setName(name)
                .setType(AttributeProto.AttributeType.INT)
                .setI(value)
                .build();
    }

    public static AttributeProto numbers(String name, long... values) {
        AttributeProto.Builder attribute =
                AttributeProto.newBuilder().setName(name).setType(AttributeProto.AttributeType.INTS);
        for (long value : values) {
            attribute.addInts(value);
        }
        return attribute.build();
    }

    public static AttributeProto sizes(long... values) {
        ByteBuffer raw = ByteBuffer.allocate(8 * values.length).order(ByteOrder.LITTLE_ENDIAN);
        for (long value : values) {
            raw.putLong(value);
        }
        TensorProto tensor = TensorProto.newBuilder()
                .setDataType(TensorProto.DataType.INT64_VALUE)
                .addDims(values.length)
                .setRawData(ByteString.copyFrom(raw.array()))
                .build();
        return AttributeProto.newBuilder()
                .setName("value")
                .setType(AttributeProto.AttributeType.TENSOR)
                .setT(tensor)
                .build();
    }

    /** Weights in single precision. */
    public TinyModel weights(String name, long[] shape, float... values) {
        ByteBuffer raw = ByteBuffer.allocate(4 * values.length).order(ByteOrder.LITTLE_ENDIAN);
        for (float value : values) {
            raw.putFloat(value);
        }
        return weights(name, FLOAT, shape, raw.array());
    }

    /** Weights in half precision, as bits. */
    public TinyModel halfWeights(String name, long[] shape, int... bits) {
        ByteBuffer raw = ByteBuffer.allocate(2 * bits.length).order(ByteOrder.LITTLE_ENDIAN);
        for (int each : bits) {
            raw.putShort((short) each);
        }
        return weights(name, TensorProto.DataType.FLOAT16_VALUE, shape, raw.array());
    }

    private TinyModel weights(String name, int type, long[] shape, byte[] raw) {
        TensorProto.Builder tensor =
                TensorProto.newBuilder().setName(name).setDataType(type).setRawData(ByteString.copyFrom(raw));
        for (long side : shape) {
            tensor.addDims(side);
        }
        graph.addInitializer(tensor);
        return this;
    }

    public ModelProto build() {
        return ModelProto.newBuilder()
                .setIrVersion(8)
                .addOpsetImport(OperatorSetIdProto.newBuilder().setVersion(15))
                .setGraph(graph)
                .build();
    }

    /** Nearness is the red channel: a 1x1 convolution over a 32x24 input. */
    public static TinyModel redIsNear() {
        return taking("picture", 1, 3, 24, 32)
                .weights("w", new long[] {1, 3, 1, 1}, 1, 0, 0)
                .node("Conv", "picture w", "depth")
                .answering("depth", 1, 1, 24, 32);
    }
}
