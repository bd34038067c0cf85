"""What places are like, for the ladder: what is alike there moves together. Principal components of the features,
without any teaching.

python3 kin.py FOLDER      writes FOLDER/kin.pt
"""

import argparse
import pathlib

import data
import numpy as np
import torch
from head import Kin, Readout

SCENES, PLACES = 160, 60


def rows(kin, folder, name, dice):
    given = [torch.from_numpy(np.array(each, np.float32))[None] for each in data.features(folder, name)]
    planes = torch.cat([kin.fitted(each) for each in kin.known(*given)], 1)[0].flatten(1).T
    return planes[torch.from_numpy(dice.permutation(len(planes))[:PLACES])]


def main():
    asked = argparse.ArgumentParser()
    asked.add_argument("folder", type=pathlib.Path)
    asked = asked.parse_args()
    readout = Readout()
    readout.load_state_dict(torch.load(asked.folder / "readout.pt"))
    kin = Kin(readout)
    dice = np.random.default_rng(0)
    names, _ = data.names(asked.folder)
    some = torch.cat([rows(kin, asked.folder, name, dice) for name in names[:: max(1, len(names) // SCENES)]])
    middle = some.mean(0)
    _, _, along = torch.linalg.svd(some - middle, full_matrices=False)
    axes = along[: Kin.PARTS]
    found = (some - middle) @ axes.T
    other = found[torch.from_numpy(dice.permutation(len(found)))]
    axes = axes / (found - other).norm(dim=1).median()
    parts = torch.split(axes, [w.shape[1] for w in kin.weights], 1)
    taught = {"weights": [part[:, :, None, None] for part in parts], "middle": (axes @ middle)[None, :, None, None]}
    torch.save(taught, asked.folder / "kin.pt")
    beyond = (((some - middle) @ axes.T).abs() > Kin.REACH / 2).float().mean()
    print("%d places, %.2f %% beyond what is told" % (len(some), 100 * beyond))


if __name__ == "__main__":
    main()
