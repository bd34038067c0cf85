"""Features and depth of the training scenes, read from the folder that scenes.render and features fill."""

import pathlib

import numpy as np
import torch
from head import CHANNELS, LEVELS, SIDES

SHAPES = [(c, s, s) for c, s in zip(CHANNELS, SIDES, strict=True)] + [(1, 128, 128)]
SIZES = [int(np.prod(shape)) for shape in SHAPES]
# every so many seeds one scene is held out: never trained on, by its number, so that adding scenes keeps the split
HELD_OUT = 25
OUT_SIDE = 128
# of the scene's range: logarithms begin here
SKY = 0.03


def names(folder):
    done = sorted(p.stem for p in (pathlib.Path(folder) / "features").glob("*.f16"))
    return [n for n in done if int(n) % HELD_OUT], [n for n in done if int(n) % HELD_OUT == 0]


def features(folder, name):
    """What the head takes: features from fine to coarse, and the matte."""
    flat = np.memmap(pathlib.Path(folder) / "features" / (name + ".f16"), np.float16, mode="r")
    parts, at = [], 0
    for shape, size in zip(SHAPES, SIZES, strict=True):
        parts.append(flat[at : at + size].reshape(shape))
        at += size
    return parts


def depth(folder, name):
    """Inverse distance at the head's size, 1/m."""
    exact = np.load(pathlib.Path(folder) / "scenes" / (name + ".npy"))
    step = exact.shape[0] // OUT_SIDE
    return exact.reshape(OUT_SIDE, step, OUT_SIDE, step).mean((1, 3)).astype(np.float32)


def target(inverse, tone="plain"):
    """What the head is asked for: the scene's range is about [0,1], a few specks beyond it stay beyond. With the tone
    "log" what is far is told apart as well as what is near."""
    low, high = np.percentile(inverse, [1, 98])
    plain = np.clip((inverse - low) / max(high - low, 1e-9), -0.05, 1.4).astype(np.float32)
    if tone == "plain":
        return plain
    return np.log(np.maximum(plain, 0) / SKY + 1).astype(np.float32) / np.float32(np.log(1 / SKY + 1))


class Scenes:
    def __init__(self, folder, which, tone="plain"):
        self.folder, self.which = folder, which
        self.exact = [depth(folder, name) for name in which]
        self.targets = torch.from_numpy(np.stack([target(d, tone) for d in self.exact]))

    def __len__(self):
        return len(self.which)

    def batch(self, indices, mirrored=None):
        """Tensors for the head and their target; `mirrored` says which of them are turned left to right."""
        read = [features(self.folder, self.which[i]) for i in indices]
        tensors = [torch.from_numpy(np.stack([r[k] for r in read]).astype(np.float32)) for k in range(LEVELS + 1)]
        goal = self.targets[torch.as_tensor(np.asarray(indices))]
        if mirrored is not None:
            turn = torch.as_tensor(mirrored)[:, None, None, None]
            tensors = [torch.where(turn, t.flip(3), t) for t in tensors]
            goal = torch.where(turn[:, 0], goal.flip(2), goal)
        return tensors, goal
