"""Lets the features move: adapters of low rank in the subject network's deep half, taught together with a head that is
there already. Restartable: goes on from the last checkpoint unless --fresh.

python3 adapt.py FOLDER SUBJECT --steps N [--start head] [--name adapted] [--rank 8]

SUBJECT is the network at 512 pixels. With --rank 0 nothing but the head is taught, to compare with.
"""

import argparse
import pathlib
import time

import data
import numpy as np
import score
import torch
from head import Head
from stages import Stages
from torch import nn
from train import MATTE_DROPPED, loss

BATCH, RATE, HEAD_RATE, DECAY, WARM = 6, 1e-3, 4e-4, 1e-2, 20
CHECK_EVERY = 100


class Adapted(nn.Module):
    def __init__(self, subject, rank):
        super().__init__()
        self.head = Head()
        self.stages = Stages(subject, rank) if rank else None

    def features(self, encoded, given):
        return given if self.stages is None else [given[0], *self.stages(encoded), given[-1]]

    def forward(self, encoded, given):
        return self.head(*self.features(encoded, given))

    def taught(self):
        """All but the weights of the subject network, which its file has."""
        return {
            k: v
            for k, v in self.state_dict().items()
            if k.startswith("head") or k.split(".")[-1] in ("up", "down", "more")
        }


def encoded(folder, name):
    """Where the deep half begins."""
    return np.memmap(folder / "encoded" / (name + ".f16"), np.float16, mode="r").reshape(256, 64, 64)


class Batches:
    def __init__(self, folder, names):
        self.folder, self.names = folder, names
        self.exact = [data.depth(folder, name) for name in names]
        self.targets = torch.from_numpy(np.stack([data.target(d) for d in self.exact]))

    def read(self, indices, mirrored=None):
        read = [[encoded(self.folder, self.names[i]), *data.features(self.folder, self.names[i])] for i in indices]
        tensors = [torch.from_numpy(np.stack(each).astype(np.float32)) for each in zip(*read, strict=True)]
        goal = self.targets[torch.as_tensor(np.asarray(indices))]
        if mirrored is not None:
            turn = torch.as_tensor(mirrored)[:, None, None, None]
            tensors = [torch.where(turn, t.flip(3), t) for t in tensors]
            goal = torch.where(turn[:, 0], goal.flip(2), goal)
        return tensors[0], tensors[1:], goal


def held_out_score(net, scenes):
    net.eval()
    found = []
    with torch.no_grad():
        for i in range(0, len(scenes.names), BATCH):
            encoded, given, _ = scenes.read(range(i, min(i + BATCH, len(scenes.names))))
            found += list(net(encoded, given)[:, 0].numpy())
    return score.mean([score.scores(f, exact) for f, exact in zip(found, scenes.exact, strict=True)])


def main():
    asked = argparse.ArgumentParser()
    asked.add_argument("folder", type=pathlib.Path)
    asked.add_argument("subject")
    asked.add_argument("--steps", type=int, required=True)
    asked.add_argument("--start", default="head")
    asked.add_argument("--name", default="adapted")
    asked.add_argument("--rank", type=int, default=8)
    asked.add_argument("--seed", type=int, default=0)
    asked.add_argument("--fresh", action="store_true")
    asked = asked.parse_args()
    torch.manual_seed(asked.seed)
    torch.set_num_threads(2)
    checkpoint = asked.folder / (asked.name + ".pt")
    training, held_out = data.names(asked.folder)
    scenes, apart = Batches(asked.folder, training), Batches(asked.folder, held_out)
    net = Adapted(asked.subject, asked.rank)
    net.head.load_state_dict(torch.load(asked.folder / (asked.start + ".pt"))["head"])
    stages = [] if net.stages is None else list(net.stages.parameters())
    groups = [{"params": net.head.parameters(), "rate": HEAD_RATE}, {"params": stages, "rate": RATE}]
    optimiser = torch.optim.AdamW(groups, lr=RATE, weight_decay=DECAY)
    first = 0
    if checkpoint.exists() and not asked.fresh:
        saved = torch.load(checkpoint)
        net.load_state_dict(saved["net"], strict=False)
        optimiser.load_state_dict(saved["optimiser"])
        first = saved["step"]
    print("%d scenes, %d held out, from step %d" % (len(scenes.names), len(apart.names), first), flush=True)
    if first == 0:
        print("before", score.told(held_out_score(net, apart)), flush=True)
    random, order, smoothed, started = np.random.default_rng(asked.seed + first), [], None, time.time()
    for step in range(first, asked.steps):
        if len(order) < BATCH:
            order = list(order) + list(random.permutation(len(scenes.names)))
        indices, order = order[:BATCH], order[BATCH:]
        slow = min(1, (step - first + 1) / WARM) * (0.5 + 0.5 * np.cos(np.pi * step / asked.steps))
        for group in optimiser.param_groups:
            group["lr"] = group["rate"] * slow + 1e-6
        encoded, given, wanted = scenes.read(indices, random.random(BATCH) < 0.5)
        given[-1] = given[-1] * (torch.rand(BATCH, 1, 1, 1) > MATTE_DROPPED)
        net.train()
        error = loss(net(encoded, given)[:, 0], wanted)
        optimiser.zero_grad()
        error.backward()
        nn.utils.clip_grad_norm_(net.parameters(), 2.0)
        optimiser.step()
        smoothed = error.item() if smoothed is None else 0.95 * smoothed + 0.05 * error.item()
        if (step + 1) % CHECK_EVERY == 0 or step + 1 == asked.steps:
            kept = {"net": net.taught(), "optimiser": optimiser.state_dict(), "step": step + 1, "rank": asked.rank}
            torch.save(kept, checkpoint)
            said = score.told(held_out_score(net, apart))
            print(
                "step %d loss %.3f %.0f s | held out %s" % (step + 1, smoothed, time.time() - started, said), flush=True
            )


if __name__ == "__main__":
    main()
