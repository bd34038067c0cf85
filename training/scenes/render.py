"""Renders scenes: NNNNNN.jpg (512x512, stretched like every input of the network), NNNNNN.npy (256x256 float32, exact
inverse distance along the axis, 1/m, 0 = sky). Restartable: what is there is not made again.

    python3 -m scenes.render FOLDER FIRST COUNT [--workers N]
    python3 -m scenes.render FOLDER --backdrops N    (pictures of places, used as prints and backdrops)
"""

import argparse
import math
import multiprocessing
import os
import pathlib
import subprocess
from itertools import pairwise

import cv2
import numpy as np
from scenes import places
from scenes.dice import LINEAR

# a little more than what is kept: enough that edges are not jagged, where every ray costs
SIDE, DEPTH_SIDE, COLOUR_RENDER = 512, 256, 544
# the renderer sleeps for most of a second as it starts
WORKERS_A_CORE = 2
DEPTH_SECONDS, COLOUR_SECONDS = 10, 16
BACKDROP_SEEDS = 900_000


def povray(scene, name, text, side, *options, seconds):
    source, target = scene.scratch(name + ".pov"), scene.scratch(name + ".png")
    source.write_text(text)
    command = ["povray", "-D", "-GA", "+WT1", "+I%s" % source, "+O%s" % target, "+W%d" % side, "+H%d" % side, *options]
    subprocess.run(command, capture_output=True, timeout=seconds, check=True)
    return cv2.imread(str(target), cv2.IMREAD_UNCHANGED)


def inverse_distance(scene):
    text = scene.depth_text(scene.density)
    white = povray(scene, "depth", text, DEPTH_SIDE, "+FN16", "-A", "File_Gamma=1.0", seconds=DEPTH_SECONDS)
    white = white[..., 0] if white.ndim == 3 else white
    left = 1 - white.astype(np.float64) / 65535
    t = (np.arange(DEPTH_SIDE) + 0.5) / DEPTH_SIDE * 2 - 1
    slant = np.sqrt(1 + (t[None] * scene.half_width) ** 2 + (t[:, None] * scene.half_height) ** 2)
    distance = -np.log(np.maximum(left, 1e-9)) * scene.density
    return np.where(left < 2e-4, 0, slant / np.maximum(distance, 1e-3)).astype(np.float32), distance


def usable(inverse, distance):
    spread = np.percentile(inverse, 98) - np.percentile(inverse, 2)
    lone_near_speck = np.percentile(inverse, 99) > 60 * max(1e-9, np.percentile(inverse, 90))
    return spread > 1e-5 and (distance < 0.02).mean() < 0.02 and np.mean(inverse == 0) < 0.93 and not lone_near_speck


def out_of_focus(picture, inverse, r):
    """A plain depth of field, good enough to teach that blur says something about depth: slices, far to near."""
    near = inverse / max(1e-9, np.percentile(inverse, 99.5))
    sharp = near[int(DEPTH_SIDE * r.uniform(0.35, 0.75)), int(DEPTH_SIDE * r.uniform(0.35, 0.65))]
    if r.random() < 0.5:
        sharp = np.percentile(near, r.uniform(85, 99))
    largest = SIDE * r.uniform(0.004, 0.03)
    near = cv2.resize(near, (SIDE, SIDE), interpolation=cv2.INTER_LINEAR)
    linear = (picture.astype(np.float32) / 255) ** LINEAR
    cuts = np.unique(np.concatenate([[-0.01], np.quantile(near, np.linspace(0, 1, 7))[1:-1], [1e3]]))
    result = None
    for low, high in pairwise(cuts):
        slice_ = ((near > low) & (near <= high)).astype(np.float32)
        if not slice_.any():
            continue
        level = float(near[slice_ > 0].mean())
        radius = largest * min(1.5, abs(level - sharp) / max(sharp, 0.05))
        part = slice_ if level >= sharp else (near <= high).astype(np.float32)
        colour, cover = disc_blur(linear * part[..., None], radius), disc_blur(part, radius)
        own = colour / np.maximum(cover, 1e-3)[..., None]
        if result is None:
            result = own
        elif level < sharp:
            soft = cv2.GaussianBlur(slice_, (0, 0), max(0.5, radius))
            weight = np.where(slice_ > 0, 1, np.clip(cover, 0, 1) * soft)[..., None]
            result = result * (1 - weight) + weight * own
        else:
            result = result * (1 - cover[..., None]) + colour
    return np.clip(result, 0, 1) ** (1 / LINEAR) * 255


def disc_blur(picture, radius):
    if radius <= 0.7:
        return picture
    size = int(radius) * 2 + 1
    disc = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (size, size)).astype(np.float32)
    return cv2.filter2D(picture, -1, disc / disc.sum())


def camera_look(picture, r):
    """What a camera and its user do to a picture: exposure, white balance, contrast, grain, dark corners."""
    f = np.asarray(picture, np.float32) / 255
    softness = r.choice([0, 0, 0, 0.4, 0.6])
    if softness:
        f = cv2.GaussianBlur(f, (0, 0), softness)
    bend = math.log(r.uniform(0.25, 0.6)) / math.log(min(0.9, max(0.05, f.mean())))
    f = np.clip(f, 0, 1) ** min(1.6, max(0.55, bend))
    f = f * r.normal(1, (0.05, 0.02, 0.05)).astype(np.float32)
    if r.random() < 0.3:
        f = (f - 0.5) * r.uniform(0.7, 1.35) + 0.5
    if r.random() < 0.06:
        f = np.repeat(f.mean(2, keepdims=True), 3, 2)
    if r.random() < 0.5:
        f = f + r.normal(size=f.shape).astype(np.float32) * r.uniform(0.003, 0.025)
    if r.random() < 0.3:
        y, x = np.mgrid[-1 : 1 : SIDE * 1j, -1 : 1 : SIDE * 1j]
        f = f * (1 - r.uniform(0.1, 0.5) * (x**2 + y**2) / 2)[..., None].astype(np.float32)
    return np.clip(f * 255, 0, 255).astype(np.uint8)


def colour_picture(scene):
    picture = povray(scene, "colour", scene.colour_text(), COLOUR_RENDER, "+FN8", "-A", seconds=COLOUR_SECONDS)
    return cv2.resize(picture[..., :3], (SIDE, SIDE), interpolation=cv2.INTER_AREA)


def make(folder, seed):
    target = folder / "scenes"
    if (target / ("%06d.done" % seed)).exists():
        return "there"
    scene = None
    said = "failed"
    try:
        scene = places.build(seed, folder)
        inverse, distance = inverse_distance(scene)
        if usable(inverse, distance):
            r = np.random.default_rng(seed)
            picture = colour_picture(scene)
            if r.random() < scene.blur_share:
                picture = out_of_focus(picture, inverse, r)
            quality = [cv2.IMWRITE_JPEG_QUALITY, int(r.integers(72, 97))]
            cv2.imwrite(str(target / ("%06d.jpg" % seed)), camera_look(picture, r), quality)
            np.save(target / ("%06d.npy" % seed), inverse)
            said = scene.kind
        else:
            said = "unusable " + scene.kind
    except subprocess.TimeoutExpired:
        said = "too slow " + scene.kind
    except subprocess.CalledProcessError as fault:
        said = "refused %s: %s" % (scene.kind, fault.stderr.decode(errors="replace")[-600:])
    finally:
        for file in (folder / "scratch").glob("%06d-*" % seed):
            file.unlink()
    (target / ("%06d.done" % seed)).write_text(said + "\n")
    return said


def backdrops(folder, count):
    made = 0
    for seed in range(BACKDROP_SEEDS, BACKDROP_SEEDS + 10 * count):
        target = folder / "tex" / ("back%03d.png" % made)
        if made == count:
            return
        try:
            if not target.exists():
                scene = places.build(seed, folder, ("outdoor", "landscape", "street", "wood", "room")[seed % 5])
                r = np.random.default_rng(seed)
                picture = camera_look(colour_picture(scene), r)
                if r.random() < 0.7:
                    picture = disc_blur(picture.astype(np.float32), r.uniform(2, 20)).astype(np.uint8)
                cv2.imwrite(str(target), cv2.resize(picture, (480, 320), interpolation=cv2.INTER_AREA))
            made += 1
        except (subprocess.TimeoutExpired, subprocess.CalledProcessError):
            continue


def work(job):
    folder, seed = job
    cv2.setNumThreads(1)
    said = make(folder, seed)
    print(seed, said, flush=True)


def main():
    asked = argparse.ArgumentParser()
    asked.add_argument("folder", type=pathlib.Path)
    asked.add_argument("first", type=int, nargs="?", default=0)
    asked.add_argument("count", type=int, nargs="?", default=0)
    asked.add_argument("--workers", type=int, default=WORKERS_A_CORE * os.cpu_count())
    asked.add_argument("--backdrops", type=int, default=0)
    asked = asked.parse_args()
    for name in ("scenes", "scratch"):
        (asked.folder / name).mkdir(parents=True, exist_ok=True)
    if asked.backdrops:
        backdrops(asked.folder, asked.backdrops)
    seeds = [(asked.folder, seed) for seed in range(asked.first, asked.first + asked.count)]
    with multiprocessing.Pool(asked.workers) as pool:
        pool.map(work, seeds, chunksize=1)


if __name__ == "__main__":
    main()
