package app.yubble.vision.onnx;

import app.yubble.core.raster.HalfFloat;
import app.yubble.onnx.format.AttributeProto;
import app.yubble.onnx.format.GraphProto;
import app.yubble.onnx.format.ModelProto;
import app.yubble.onnx.format.NodeProto;
import app.yubble.onnx.format.TensorProto;
import app.yubble.onnx.format.TensorShapeProto;
import app.yubble.onnx.format.TensorShapeProto.Dimension;
import app.yubble.onnx.format.ValueInfoProto;
import com.google.protobuf.ByteString;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Edits of an ONNX model that change its number type, its input size and what it answers, but nothing it has learnt.
 *
 * <p>All of them work on the open format itself (onnx.proto); a model that lacks what an edit needs is refused with an
 * {@link IllegalArgumentException} that names it.
 */
public final class ModelEditor {
    private static final int FLOAT = TensorProto.DataType.FLOAT_VALUE;
    private static final int HALF = TensorProto.DataType.FLOAT16_VALUE;

    private ModelEditor() {}

    /** The model with every half-precision weight, constant and cast in single precision. */
    public static ModelProto toSinglePrecision(ModelProto model) {
        GraphProto graph = model.getGraph();
        GraphProto.Builder edited =
                graph.toBuilder().clearInitializer().clearNode().clearValueInfo();
        graph.getInitializerList().forEach(tensor -> edited.addInitializer(single(tensor)));
        for (NodeProto node : graph.getNodeList()) {
            NodeProto.Builder changed = node.toBuilder();
            for (AttributeProto.Builder attribute : changed.getAttributeBuilderList()) {
                if (node.getOpType().equals("Cast") && attribute.getName().equals("to") && attribute.getI() == HALF) {
                    attribute.setI(FLOAT);
                } else if (attribute.hasT() && attribute.getT().getDataType() == HALF) {
                    attribute.setT(single(attribute.getT()));
                }
            }
            edited.addNode(changed);
        }
        for (ValueInfoProto.Builder value : ends(edited)) {
            if (value.getType().getTensorType().getElemType() == HALF) {
                value.getTypeBuilder().getTensorTypeBuilder().setElemType(FLOAT);
            }
        }
        return model.toBuilder().setGraph(edited).build();
    }

    private static List<ValueInfoProto.Builder> ends(GraphProto.Builder graph) {
        List<ValueInfoProto.Builder> all = new ArrayList<>(graph.getInputBuilderList());
        all.addAll(graph.getOutputBuilderList());
        return all;
    }

    private static TensorProto single(TensorProto tensor) {
        if (tensor.getDataType() != HALF) {
            return tensor;
        }
        int count = tensor.getRawData().isEmpty()
                ? tensor.getInt32DataCount()
                : tensor.getRawData().size() / Short.BYTES;
        ByteBuffer out = ByteBuffer.allocate(count * Float.BYTES).order(ByteOrder.LITTLE_ENDIAN);
        ByteBuffer raw = tensor.getRawData().asReadOnlyByteBuffer().order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < count; i++) {
            out.putFloat(HalfFloat.toFloat(raw.hasRemaining() ? raw.getShort() : (short) tensor.getInt32Data(i)));
        }
        return tensor.toBuilder()
                .setDataType(FLOAT)
                .clearInt32Data()
                .setRawData(ByteString.copyFrom(out.array()))
                .build();
    }

    /**
     * The model for a square input of another size: the input's height and width are set, and the fixed sizes that its
     * Resize nodes enlarge to are scaled along. The model must be one whose other nodes take any size.
     *
     * @param side of the new input, a divisor or multiple of the old one
     */
    public static ModelProto withInputSide(ModelProto model, int side) {
        GraphProto.Builder graph = model.getGraph().toBuilder().clearValueInfo();
        TensorShapeProto.Builder shape =
                graph.getInputBuilder(0).getTypeBuilder().getTensorTypeBuilder().getShapeBuilder();
        if (shape.getDimCount() != 4 || shape.getDim(2).getDimValue() < 1) {
            throw new IllegalArgumentException("the model's input is no picture of a fixed size");
        }
        long old = shape.getDim(2).getDimValue();
        for (int d = 2; d < 4; d++) {
            shape.setDim(d, Dimension.newBuilder().setDimValue(side));
        }
        for (ValueInfoProto.Builder output : graph.getOutputBuilderList()) {
            TensorShapeProto.Builder out =
                    output.getTypeBuilder().getTensorTypeBuilder().getShapeBuilder();
            for (int d = 2; d < out.getDimCount(); d++) {
                out.setDim(d, Dimension.newBuilder().setDimValue(out.getDim(d).getDimValue() * side / old));
            }
        }
        Map<String, NodeProto.Builder> producers = new HashMap<>();
        graph.getNodeBuilderList().forEach(node -> node.getOutputList().forEach(output -> producers.put(output, node)));
        Set<String> scaled = new HashSet<>();
        for (NodeProto.Builder node : graph.getNodeBuilderList()) {
            if (node.getOpType().equals("Resize") && node.getInputCount() > 3) {
                NodeProto.Builder constant = constantBehind(producers, node.getInput(3));
                if (scaled.add(constant.getOutput(0))) {
                    scaleLastTwo(constant, side, old);
                }
            }
        }
        return model.toBuilder().setGraph(graph).build();
    }

    /** Height and width stand last: in the constant itself, or in the last one that is joined to the size. */
    private static NodeProto.Builder constantBehind(Map<String, NodeProto.Builder> producers, String name) {
        NodeProto.Builder producer = producers.get(name);
        if (producer != null && producer.getOpType().equals("Concat")) {
            producer = producers.get(producer.getInput(producer.getInputCount() - 1));
        }
        if (producer == null || !producer.getOpType().equals("Constant")) {
            throw new IllegalArgumentException("the size " + name + " that the model enlarges to is not fixed in it");
        }
        return producer;
    }

    private static void scaleLastTwo(NodeProto.Builder constant, long side, long old) {
        for (AttributeProto.Builder attribute : constant.getAttributeBuilderList()) {
            if (!attribute.getName().equals("value")) {
                continue;
            }
            TensorProto.Builder tensor = attribute.getTBuilder();
            int count = tensor.getRawData().size() / Long.BYTES;
            if (tensor.getDataType() != TensorProto.DataType.INT64_VALUE || count < 2) {
                throw new IllegalArgumentException(
                        "the size constant " + constant.getOutput(0) + " is not a list of whole numbers");
            }
            ByteBuffer sizes =
                    ByteBuffer.wrap(tensor.getRawData().toByteArray()).order(ByteOrder.LITTLE_ENDIAN);
            for (int i = count - 2; i < count; i++) {
                sizes.putLong(i * Long.BYTES, sizes.getLong(i * Long.BYTES) * side / old);
            }
            tensor.setRawData(ByteString.copyFrom(sizes.array()));
        }
    }

    /** The model with only these outputs, in this order, and only the nodes and weights that they need. */
    public static ModelProto withOutputs(ModelProto model, List<String> wanted) {
        GraphProto graph = model.getGraph();
        Map<String, NodeProto> producers = new HashMap<>();
        graph.getNodeList().forEach(node -> node.getOutputList().forEach(output -> producers.put(output, node)));
        Set<NodeProto> needed = java.util.Collections.newSetFromMap(new java.util.IdentityHashMap<>());
        Set<String> read = new HashSet<>();
        Deque<String> open = new ArrayDeque<>(wanted);
        while (!open.isEmpty()) {
            String name = open.pop();
            NodeProto node = producers.get(name);
            if (read.add(name) && node != null && needed.add(node)) {
                open.addAll(node.getInputList());
            }
        }
        GraphProto.Builder edited =
                graph.toBuilder().clearNode().clearInitializer().clearOutput();
        graph.getNodeList().stream().filter(needed::contains).forEach(edited::addNode);
        graph.getInitializerList().stream()
                .filter(tensor -> read.contains(tensor.getName()))
                .forEach(edited::addInitializer);
        for (String name : wanted) {
            edited.addOutput(graph.getOutputList().stream()
                    .filter(output -> output.getName().equals(name))
                    .findFirst()
                    .orElseThrow(() -> new IllegalArgumentException("the model has no output named " + name)));
        }
        return model.toBuilder().setGraph(edited).build();
    }
}
