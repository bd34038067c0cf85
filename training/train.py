"""Teaches the head. Restartable: goes on from the last checkpoint unless --fresh.

python3 train.py FOLDER [--steps N] [--minutes M] [--fresh] [--name head]
"""

import argparse
import pathlib
import time

import data
import numpy as np
import score
import torch
from head import LEVELS, Head
from torch import nn
from torch.nn import functional as F

BATCH, RATE, DECAY, WARM = 8, 2e-3, 1e-3, 50
CHECK_EVERY, STATISTICS_FROM = 250, 150
MATTE_DROPPED = 0.15  # share of the examples that see no matte, because some pictures have no subject


def scale_free(d):
    v = d.flatten(1)
    middle = v.median(1).values[:, None]
    return ((v - middle) / ((v - middle).abs().mean(1)[:, None] + 1e-4)).view_as(d)


def loss(found, wanted):
    """Scale- and shift-invariant error plus gradients at four sizes, on inverse distance, after Ranftl et al., "Towards
    Robust Monocular Depth Estimation" (2020); a little absolute error keeps the output in the range of the target."""
    error = scale_free(found) - scale_free(wanted)
    level = F.smooth_l1_loss(error, torch.zeros_like(error), beta=0.3) + 0.9 * F.smooth_l1_loss(found, wanted, beta=0.1)
    edges = 0
    for k in range(5):
        e = F.avg_pool2d(error[:, None], 2**k)[:, 0]
        edges = (
            edges
            + (e[:, 1:] - e[:, :-1]).abs().clamp(max=4).mean()
            + (e[:, :, 1:] - e[:, :, :-1]).abs().clamp(max=4).mean()
        )
    return level + 0.25 * edges


def held_out_score(head, scenes):
    head.eval()
    found = []
    with torch.no_grad():
        for i in range(0, len(scenes), BATCH):
            tensors, _ = scenes.batch(range(i, min(i + BATCH, len(scenes))))
            found += list(head(*tensors)[:, 0].numpy())
    return score.mean([score.scores(f, exact) for f, exact in zip(found, scenes.exact, strict=True)])


def set_statistics(head, scenes):
    some = range(0, len(scenes), max(1, len(scenes) // STATISTICS_FROM))
    tensors, _ = scenes.batch(list(some))
    for k in range(LEVELS):
        head.set_statistics(k, tensors[k].mean((0, 2, 3)), tensors[k].std((0, 2, 3)))


def main():
    asked = argparse.ArgumentParser()
    asked.add_argument("folder", type=pathlib.Path)
    asked.add_argument("--steps", type=int, default=3000)
    asked.add_argument("--minutes", type=float, default=1e9)
    asked.add_argument("--fresh", action="store_true")
    asked.add_argument("--name", default="head")
    asked.add_argument("--seed", type=int, default=0)
    asked.add_argument("--tone", choices=("plain", "log"), default="plain")
    asked = asked.parse_args()
    torch.manual_seed(asked.seed)
    torch.set_num_threads(2)
    checkpoint = asked.folder / (asked.name + ".pt")
    training, held_out = data.names(asked.folder)
    scenes, apart = data.Scenes(asked.folder, training, asked.tone), data.Scenes(asked.folder, held_out)
    print("training scenes", len(scenes), "held out", len(apart), flush=True)

    head, first = Head(), 0
    optimiser = torch.optim.AdamW(head.parameters(), lr=RATE, weight_decay=DECAY)
    if checkpoint.exists() and not asked.fresh:
        saved = torch.load(checkpoint)
        head.load_state_dict(saved["head"])
        optimiser.load_state_dict(saved["optimiser"])
        first = saved["step"]
        print("going on from step", first, flush=True)
    else:
        set_statistics(head, scenes)

    random = np.random.default_rng(asked.seed + first)
    started, smoothed, order = time.time(), None, []
    reached = first
    for step in range(first, asked.steps):
        done = max(step / asked.steps, (time.time() - started) / 60 / asked.minutes)
        if done >= 1:
            break
        if len(order) < BATCH:
            order = list(order) + list(random.permutation(len(scenes)))
        indices, order = order[:BATCH], order[BATCH:]
        for group in optimiser.param_groups:
            group["lr"] = RATE * min(1, (step - first + 1) / WARM) * (0.5 + 0.5 * np.cos(np.pi * done)) + 1e-6
        tensors, wanted = scenes.batch(indices, random.random(BATCH) < 0.5)
        tensors[-1] = tensors[-1] * (torch.rand(BATCH, 1, 1, 1) > MATTE_DROPPED)
        head.train()
        error = loss(head(*tensors)[:, 0], wanted)
        optimiser.zero_grad()
        error.backward()
        nn.utils.clip_grad_norm_(head.parameters(), 2.0)
        optimiser.step()
        reached = step + 1
        smoothed = error.item() if smoothed is None else 0.97 * smoothed + 0.03 * error.item()
        if (step + 1) % CHECK_EVERY == 0:
            torch.save({"head": head.state_dict(), "optimiser": optimiser.state_dict(), "step": reached}, checkpoint)
            said = score.told(held_out_score(head, apart))
            print(
                "step %d loss %.3f %.0f s | held out %s" % (step + 1, smoothed, time.time() - started, said), flush=True
            )
    torch.save({"head": head.state_dict(), "optimiser": optimiser.state_dict(), "step": reached}, checkpoint)
    print("done", score.told(held_out_score(head, apart)), flush=True)


if __name__ == "__main__":
    main()
