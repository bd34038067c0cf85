"""How sure the depth is: where it came out right on rendered scenes, and nowhere on pictures that have no depth.

python3 sure.py FOLDER APART FLAT [--heads head ...]      writes FOLDER/sure.pt

FOLDER has the scenes that the heads were taught, APART some that none has seen, FLAT pictures of `scenes.flat`; all
with their features.
"""

import argparse
import pathlib

import data
import numpy as np
import score
import torch
from head import Both, Head, Readout, Sure, standard
from torch.nn import functional as F

SIDE = Readout.SIDE
RIGHT = 0.12  # of the scene's range: a larger error shows as another blur
OF_TAUGHT, OF_APART, OF_FLAT = 100, 200, 80  # places of each picture
WEAK = 0.03  # weight decay


def all_of(folder):
    return sorted(each.stem for each in (folder / "features").glob("*.f16"))


def inputs(folder, name):
    return [torch.from_numpy(np.array(each, np.float32))[None] for each in data.features(folder, name)]


def is_right(folder, name, found):
    wanted = data.target(data.depth(folder, name))
    error = np.abs(score.aligned(found, wanted) - wanted)
    right = torch.from_numpy((error < RIGHT).astype(np.float32))
    return F.adaptive_avg_pool2d(right[None, None], SIDE).flatten()


def examples(network, readout, folder, names, count, dice, flat=False):
    rows, answers = [], []
    with torch.no_grad():
        for name in names:
            given = inputs(folder, name)
            found = standard(network(*given))
            right = torch.zeros(SIDE * SIDE) if flat else is_right(folder, name, found[0, 0].numpy())
            picked = torch.from_numpy(dice.permutation(SIDE * SIDE)[:count])
            rows.append(readout.known(*given)[0].flatten(1).T[picked])
            answers.append(right[picked])
    return torch.cat(rows), torch.cat(answers)


def area_under(answers, said):
    """How often something right is surer than something wrong."""
    order = said.argsort()
    ranks = torch.empty(len(said))
    ranks[order] = torch.arange(len(said), dtype=torch.float32)
    right = answers > 0.5
    count, others = right.sum(), (~right).sum()
    return float((ranks[right].sum() - count * (count - 1) / 2) / (count * others))


def taught(rows, answers):
    weights = torch.zeros(rows.shape[1], requires_grad=True)
    solver = torch.optim.LBFGS([weights], max_iter=80, line_search_fn="strong_wolfe")

    def step():
        solver.zero_grad()
        lost = F.binary_cross_entropy_with_logits(rows @ weights, answers) + WEAK * weights.pow(2).sum()
        lost.backward()
        return lost

    solver.step(step)
    return weights.detach()


def main():
    asked = argparse.ArgumentParser()
    asked.add_argument("folder", type=pathlib.Path)
    asked.add_argument("apart", type=pathlib.Path)
    asked.add_argument("flat", type=pathlib.Path)
    asked.add_argument("--heads", nargs="+", default=["head"])
    asked.add_argument("--share", type=float, default=0.35)
    asked = asked.parse_args()
    torch.set_num_threads(2)
    readout = Readout()
    readout.load_state_dict(torch.load(asked.folder / "readout.pt"))
    network = Both(Head.read(asked.folder, asked.heads), readout, asked.share).eval()
    dice = np.random.default_rng(0)
    scenes, flats = all_of(asked.apart), all_of(asked.flat)
    kept = [n for i, n in enumerate(scenes) if i % 5], [n for i, n in enumerate(flats) if i % 5]
    parts = [
        examples(network, readout, asked.folder, data.names(asked.folder)[0], OF_TAUGHT, dice),
        examples(network, readout, asked.apart, kept[0], OF_APART, dice),
        examples(network, readout, asked.flat, kept[1], OF_FLAT, dice, flat=True),
    ]
    weights = taught(torch.cat([rows for rows, _ in parts]), torch.cat([answers for _, answers in parts]))
    # Every fifth picture tells how good it is.
    x, y = examples(network, readout, asked.apart, scenes[::5], OF_APART, dice)
    said = torch.sigmoid(x @ weights)
    print("scenes: right %.3f, said %.3f, right surer than wrong %.3f" % (y.mean(), said.mean(), area_under(y, said)))
    x, _ = examples(network, readout, asked.flat, flats[::5], OF_FLAT, dice, flat=True)
    print("flat: said %.3f" % torch.sigmoid(x @ weights).mean())
    sure = Sure(readout)
    sure.weights.data.copy_(weights[None, :, None, None])
    torch.save({"weights": sure.weights.data}, asked.folder / "sure.pt")


if __name__ == "__main__":
    main()
