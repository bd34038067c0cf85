"""The subject network, or a part of it, read from its ONNX file, with adapters of low rank beside every convolution
(after Hu et al., "LoRA: Low-Rank Adaptation of Large Language Models", 2021): what they add is taught, the weights
themselves stay.

python3 stages.py FOLDER SUBJECT      writes FOLDER/encoded/NAME.f16, where its deep half begins, of every scene
"""

import argparse
import pathlib

import cv2
import numpy as np
import onnx
import torch
from onnx import numpy_helper
from torch import nn
from torch.nn import functional as F

INPUT, START = "input", "/stage3/Add_output_0"
# what the head takes of them: the features at 64, 32, 16 and 8 pixels
ENDS = ("input.948", "input.832", "input.740", "input.656")
TWICE = 2  # every enlargement is by this


class Adapted(nn.Module):
    """A frozen convolution and what is added to its weights."""

    def __init__(self, weight, bias, rank, **how):
        super().__init__()
        self.register_buffer("weight", weight)
        self.register_buffer("bias", bias)
        self.how = how
        outputs, inputs, height, width = weight.shape
        spread = (inputs * height * width) ** -0.5
        self.up = nn.Parameter(torch.zeros(outputs, rank, 1, 1))
        self.down = nn.Parameter(torch.randn(rank, inputs, height, width) * spread)
        self.register_buffer("size", weight.flatten(1).norm(dim=1)[:, None, None, None])
        self.more = nn.Parameter(torch.zeros(outputs))

    def forward(self, x):
        added = F.conv2d(F.conv2d(x, self.down, **self.how), self.up * self.size)
        return F.conv2d(x, self.weight, self.bias, **self.how) + added + self.more[:, None, None]


class Stages(nn.Module):
    def __init__(self, path, rank, start=START, ends=ENDS):
        super().__init__()
        self.start, self.ends = start, ends
        graph = onnx.load(path).graph
        known = {w.name: torch.from_numpy(numpy_helper.to_array(w).copy()).float() for w in graph.initializer}
        self.made_by = {name: node for node in graph.node for name in node.output}
        self.plan, self.convolutions = [], nn.ModuleList()
        for end in ends:
            self.take(end, known, rank)

    def take(self, name, known, rank):
        """Plans what makes a value, after what it is made from."""
        if name == self.start or any(output == name for _, _, output, _ in self.plan):
            return
        node = self.made_by[name]
        names = list(node.input)[:1] if node.op_type in ("Conv", "Resize") else list(node.input)
        for each in names:
            self.take(each, known, rank)
        told = {a.name: list(a.ints) or a.i for a in node.attribute}
        how = None
        if node.op_type == "Conv":
            how = len(self.convolutions)
            placed = {"stride": told["strides"], "padding": told["pads"][:2], "dilation": told["dilations"]}
            self.convolutions.append(Adapted(known[node.input[1]], known[node.input[2]], rank, **placed))
        elif node.op_type == "MaxPool":
            how = (told["kernel_shape"], told["strides"], bool(told["ceil_mode"]))
        elif node.op_type not in ("Relu", "Concat", "Add", "Cast", "Resize"):
            raise ValueError("the stages have no " + node.op_type)
        self.plan.append((node.op_type, names, name, how))

    def forward(self, given):
        values = {self.start: given}
        for kind, names, output, how in self.plan:
            x = values[names[0]]
            if kind == "Conv":
                x = self.convolutions[how](x)
            elif kind == "Relu":
                x = F.relu(x)
            elif kind == "MaxPool":
                x = F.max_pool2d(x, how[0], how[1], ceil_mode=how[2])
            elif kind == "Resize":
                x = F.interpolate(x, scale_factor=float(TWICE), mode="bilinear", align_corners=False)
            elif kind == "Concat":
                x = torch.cat([values[n] for n in names], 1)
            elif kind == "Add":
                x = x + values[names[1]]
            values[output] = x
        return [values[end] for end in self.ends]


def main():
    asked = argparse.ArgumentParser()
    asked.add_argument("folder", type=pathlib.Path)
    asked.add_argument("subject")
    asked = asked.parse_args()
    torch.set_num_threads(2)
    shallow = Stages(asked.subject, 1, INPUT, (START,))
    (asked.folder / "encoded").mkdir(exist_ok=True)
    for features in sorted((asked.folder / "features").glob("*.f16")):
        target = asked.folder / "encoded" / features.name
        if not target.exists():
            picture = cv2.imread(str(asked.folder / "scenes" / (features.stem + ".jpg")))[..., ::-1]
            given = torch.from_numpy((picture.astype(np.float32) - 128) / 256).permute(2, 0, 1)[None]
            with torch.no_grad():
                target.write_bytes(shallow(given)[0].numpy().astype(np.float16).tobytes())


if __name__ == "__main__":
    main()
