"""Pairs of ranked points on photos that come out in the right order, for heads, the readout and what is between them.

python3 judge.py FOLDER PHOTOS ../bench/pairs/ranks.json [--apart]

PHOTOS holds features/NAME.f16 of the photos, NAME the first 12 digits of the hash. A third of them is kept apart:
--apart looks at it.
"""

import argparse
import json
import pathlib
from collections import defaultdict

import data
import numpy as np
import torch
from head import Both, Head, Readout
from torch.nn import functional as F

APART, DIGITS, NAME = 3, 8, 12
LEAST = 0.002  # of the map's range: a smaller difference is no order


def pairs_right(plane, photo):
    """Of every pair whether the nearer one is nearer."""
    points = photo["points"]
    at = torch.tensor([[[[p["x"] * 2 - 1, p["y"] * 2 - 1] for p in points]]], dtype=torch.float32)
    values = F.grid_sample(plane, at, align_corners=False, padding_mode="border")[0, 0, 0]
    least = LEAST * (plane.max() - plane.min())
    return [
        bool(values[i] - values[j] > least)
        for i, near in enumerate(points)
        for j, far in enumerate(points)
        if near["rank"] < far["rank"]
    ]


def judged(photos, ranks, apart):
    for photo in json.loads(pathlib.Path(ranks).read_text())["photos"]:
        name = photo["sha256"][:NAME]
        is_apart = int(photo["sha256"][:DIGITS], 16) % APART == 0
        if is_apart == apart and (pathlib.Path(photos) / "features" / (name + ".f16")).exists():
            yield photo, [torch.from_numpy(np.array(f, np.float32))[None] for f in data.features(photos, name)]


def main():
    asked = argparse.ArgumentParser()
    asked.add_argument("folder", type=pathlib.Path)
    asked.add_argument("photos", type=pathlib.Path)
    asked.add_argument("ranks")
    asked.add_argument("--apart", action="store_true")
    asked.add_argument("--heads", nargs="+", default=["head"])
    asked = asked.parse_args()
    heads, readout = Head.read(asked.folder, asked.heads), Readout()
    readout.load_state_dict(torch.load(asked.folder / "readout.pt"))
    heads.eval()
    shares = (0, 0.2, 0.35, 0.5, 0.65, 1)
    right = defaultdict(lambda: defaultdict(list))
    with torch.no_grad():
        for photo, inputs in judged(asked.photos, asked.ranks, asked.apart):
            for share in shares:
                found = pairs_right(Both(heads, readout, share)(*inputs), photo)
                right["all"][share] += found
                right[photo["kind"]][share] += found
    print("%-20s%8s" % ("", "pairs"), *("%7.2f" % share for share in shares))
    for kind, by_share in right.items():
        print("%-20s%8d" % (kind, len(by_share[0])), *("%7.1f" % (100 * np.mean(by_share[s])) for s in shares))


if __name__ == "__main__":
    main()
