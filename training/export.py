"""Writes heads, readout, certainty and kin as one ONNX network with half-precision weights.

python3 export.py FOLDER ../vision/src/main/resources/app/yubble/vision/depth-head.onnx [--heads head ...] [--share S]
"""

import argparse
import pathlib

import numpy as np
import onnx
import torch
from head import CHANNELS, SIDES, Both, Head, Kin, Readout, Sure
from onnx import helper, numpy_helper
from torch import nn

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


class Taught(nn.Module):
    """All that is shipped: nearness at 128x128, how sure it is at 32x32, and what places are like at 64x64."""

    def __init__(self, both, sure, kin):
        super().__init__()
        self.both, self.sure, self.kin = both, sure, kin

    def forward(self, *inputs):
        return self.both(*inputs), self.sure(*inputs), self.kin(*inputs)


def main():
    asked = argparse.ArgumentParser()
    asked.add_argument("folder", type=pathlib.Path)
    asked.add_argument("target")
    asked.add_argument("--heads", nargs="+", default=["head"])
    asked.add_argument("--share", type=float, default=0.35)
    asked = asked.parse_args()
    readout = Readout()
    readout.load_state_dict(torch.load(asked.folder / "readout.pt"))
    sure = Sure(readout)
    sure.weights.data.copy_(torch.load(asked.folder / "sure.pt")["weights"])
    kin, like = Kin(readout), torch.load(asked.folder / "kin.pt")
    for mine, found in zip(kin.weights, like["weights"], strict=True):
        mine.data.copy_(found)
    kin.middle.data.copy_(like["middle"])
    taught = Taught(Both(Head.read(asked.folder, asked.heads), readout, asked.share), sure, kin).eval()
    inputs = [torch.zeros(1, c, s, s) for c, s in zip(CHANNELS, SIDES, strict=True)] + [torch.zeros(1, 1, 128, 128)]
    names = ["f%d" % s for s in SIDES] + ["matte"]
    torch.onnx.export(
        taught, tuple(inputs), asked.target, input_names=names, output_names=["disp", "sure", "kin"], opset_version=15
    )
    model = halved(onnx.load(asked.target))
    onnx.checker.check_model(model)
    onnx.save(model, asked.target)


if __name__ == "__main__":
    main()
