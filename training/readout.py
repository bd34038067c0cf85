"""A linear readout of the encoder's features beside the head, in closed form: ridge regression of the logarithm of
inverse distance.

python3 readout.py FOLDER [--ridge R]      writes FOLDER/readout.pt
"""

import argparse
import pathlib

import data
import numpy as np
import torch
from head import CHANNELS, Readout
from torch.nn import functional as F

SIDE = Readout.SIDE
PLACES = 160  # of each scene, drawn at random: neighbours say the same


def known(folder, name, mirrored=False):
    parts = [torch.from_numpy(np.array(each, np.float32))[None] for each in data.features(folder, name)]
    planes = Readout.planes(*parts)
    return planes.flip(3) if mirrored else planes


def wanted(folder, name):
    near = F.adaptive_avg_pool2d(torch.from_numpy(data.target(data.depth(folder, name)))[None, None], SIDE)
    tone = (near.clamp(min=0) + data.SKY).log().flatten()
    return (tone - tone.mean()) / (tone.std() + 1e-4)


def statistics(folder, names):
    some = torch.cat([known(folder, name)[0].flatten(1).T[::16] for name in names[::8]])
    return some.mean(0), some.std(0) + 0.02


def main():
    asked = argparse.ArgumentParser()
    asked.add_argument("folder", type=pathlib.Path)
    asked.add_argument("--ridge", type=float, default=3)
    asked = asked.parse_args()
    torch.set_num_threads(2)
    names, _ = data.names(asked.folder)
    mean, deviation = statistics(asked.folder, names)
    count = sum(CHANNELS) + 1 + Readout.PLACES
    assert len(mean) == count - Readout.PLACES
    both, right, seen = torch.zeros(count, count).double(), torch.zeros(count).double(), 0
    dice = np.random.default_rng(0)
    place = Readout.place()[0].flatten(1).T
    for name in names:
        picked = torch.from_numpy(dice.permutation(SIDE * SIDE)[:PLACES])
        planes = ((known(asked.folder, name)[0].flatten(1).T - mean) / deviation).clamp(-6, 6)
        x = torch.cat([place, planes], 1)[picked].double()
        y = wanted(asked.folder, name)[picked].double()
        both += x.T @ x
        right += x.T @ y
        seen += len(picked)
    both, right = both / seen, right / seen
    weights = torch.linalg.solve(both + asked.ridge * torch.eye(count).double(), right)
    readout = Readout()
    readout.mean.copy_(mean[None, :, None, None])
    readout.deviation.copy_(deviation[None, :, None, None])
    readout.weights.data.copy_(weights.float()[None, :, None, None])
    torch.save(readout.state_dict(), asked.folder / "readout.pt")
    print("%d scenes, %d weights" % (len(names), count))


if __name__ == "__main__":
    main()
