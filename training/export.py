"""Writes the head as ONNX with half-precision weights.

python3 export.py FOLDER/head.pt ../vision/src/main/resources/app/yubble/vision/depth-head.onnx
"""

import sys

import numpy as np
import onnx
import torch
from head import CHANNELS, SIDES, Head
from onnx import helper, numpy_helper

SMALL = 64  # tensors under this many numbers stay in single precision


def halved(model):
    casts = []
    for tensor in model.graph.initializer:
        numbers = numpy_helper.to_array(tensor)
        if numbers.dtype == np.float32 and numbers.size >= SMALL:
            name = tensor.name
            tensor.CopyFrom(numpy_helper.from_array(numbers.astype(np.float16), name + "_half"))
            casts.append(helper.make_node("Cast", [name + "_half"], [name], to=onnx.TensorProto.FLOAT))
    nodes = casts + list(model.graph.node)
    del model.graph.node[:]
    model.graph.node.extend(nodes)
    return model


def main(checkpoint, target):
    head = Head()
    head.load_state_dict(torch.load(checkpoint)["head"])
    head.eval()
    inputs = [torch.zeros(1, c, s, s) for c, s in zip(CHANNELS, SIDES, strict=True)] + [torch.zeros(1, 1, 128, 128)]
    names = ["f%d" % s for s in SIDES] + ["matte"]
    torch.onnx.export(head, tuple(inputs), target, input_names=names, output_names=["disp"], opset_version=15)
    model = halved(onnx.load(target))
    onnx.checker.check_model(model)
    onnx.save(model, target)


if __name__ == "__main__":
    main(*sys.argv[1:])
