"""Leaf clouds, grass clumps, fans of long leaves, bare branches: written once, used by every scene."""

import pathlib
import sys
from itertools import pairwise

import numpy as np

# leaves, length, width of a leaf cloud of radius one
LEAF_CLOUDS = ((450, 0.14, 0.05), (700, 0.1, 0.035), (250, 0.25, 0.07), (350, 0.2, 0.1), (900, 0.07, 0.03))
GRASS_CLUMPS = ((70, 0.6), (110, 1.0), (50, 0.9))
FANS = ((14, 0.1), (22, 0.06), (30, 0.03))
BARE_TREES = 5


def point(p):
    return "<%.3f,%.3f,%.3f>" % tuple(p)


def triangle(a, b, c):
    return "triangle{%s,%s,%s}" % (point(a), point(b), point(c))


class Meshes:
    def __init__(self, seed):
        self.random = np.random.default_rng(seed)

    def direction(self):
        v = self.random.normal(size=3)
        return v / np.linalg.norm(v)

    def leaf(self, start, along, facing, length, width):
        along = along / np.linalg.norm(along)
        side = np.cross(along, facing)
        side /= np.linalg.norm(side) + 1e-6
        middle, tip = start + along * length * 0.5, start + along * length
        return [triangle(start, middle + side * width, tip), triangle(start, tip, middle - side * width)]

    def leaf_cloud(self, leaves, length, width):
        r = self.random
        centres = [self.direction() * r.uniform(0.3, 0.75) for _ in range(14)]
        triangles = []
        for _ in range(leaves):
            start = centres[r.integers(14)] + self.direction() * r.uniform(0.1, 0.33)
            along = self.direction() + np.array([0, -0.3, 0])
            triangles += self.leaf(
                start, along, self.direction(), length * r.uniform(0.6, 1.4), width * r.uniform(0.6, 1.3)
            )
        return "mesh{%s}" % "\n".join(triangles)

    def grass_clump(self, blades, height):
        r = self.random
        triangles = []
        for _ in range(blades):
            foot = np.array([r.normal() * 0.3, 0, r.normal() * 0.3])
            lean = r.normal(size=2) * 0.25
            h = height * r.uniform(0.4, 1.0)
            turn = r.uniform(0, 2 * np.pi)
            side = np.array([np.cos(turn), 0, np.sin(turn)]) * r.uniform(0.012, 0.024)
            middle = foot + np.array([lean[0] * 0.3, h * 0.6, lean[1] * 0.3])
            tip = foot + np.array([lean[0], h, lean[1]])
            triangles += [
                triangle(foot - side, foot + side, middle + side * 0.7),
                triangle(foot - side, middle + side * 0.7, middle - side * 0.7),
                triangle(middle - side * 0.7, middle + side * 0.7, tip),
            ]
        return "mesh{%s}" % "\n".join(triangles)

    def fan(self, leaves, width):
        r = self.random
        triangles = []
        steps = 7
        for _ in range(leaves):
            turn, rise = r.uniform(0, 2 * np.pi), r.uniform(0.5, 1.4)
            length, w = r.uniform(0.6, 1.0), width * r.uniform(0.6, 1.4)
            side = np.array([-np.sin(turn), 0, np.cos(turn)])
            p = np.zeros(3)
            rim = []
            for j in range(steps):
                half = w * np.sin(np.pi * (j + 0.4) / steps)
                rim.append((p - side * half, p + side * half))
                step = np.array([np.cos(turn) * np.cos(rise), np.sin(rise), np.sin(turn) * np.cos(rise)])
                p = p + step * length / steps
                rise -= r.uniform(0.1, 0.35)
            for a, b in pairwise(rim):
                triangles += [triangle(a[0], a[1], b[1]), triangle(a[0], b[1], b[0])]
        return "mesh{%s}" % "\n".join(triangles)

    def bare_tree(self):
        cones = []
        self.branch(cones, np.zeros(3), np.array([0, 1.0, 0]), 0.3, 0.035, 4)
        return "union{%s}" % "\n".join(cones)

    def branch(self, cones, foot, along, length, radius, forks):
        r = self.random
        end = foot + along * length
        cones.append("cone{%s,%.4f,%s,%.4f}" % (point(foot), radius, point(end), radius * 0.7))
        for _ in range(r.integers(2, 4) if forks else 0):
            start = end if r.random() < 0.7 else foot + along * length * 0.7
            next_along = along + self.direction() * 0.65 + np.array([0, 0.12, 0])
            next_along /= np.linalg.norm(next_along)
            self.branch(cones, start, next_along, length * r.uniform(0.6, 0.85), radius * 0.65, forks - 1)


def write(folder):
    """Writes one include file per mesh, LEAF0.inc and so on, into the folder."""
    folder = pathlib.Path(folder)
    folder.mkdir(parents=True, exist_ok=True)
    meshes = Meshes(0)
    bodies = {}
    for i, cloud in enumerate(LEAF_CLOUDS):
        bodies["LEAF%d" % i] = meshes.leaf_cloud(*cloud)
    for i, clump in enumerate(GRASS_CLUMPS):
        bodies["GRASS%d" % i] = meshes.grass_clump(*clump)
    for i, fan in enumerate(FANS):
        bodies["FAN%d" % i] = meshes.fan(*fan)
    for i in range(BARE_TREES):
        bodies["BARE%d" % i] = meshes.bare_tree()
    for name, body in bodies.items():
        (folder / (name + ".inc")).write_text("#declare %s=%s\n" % (name, body))


if __name__ == "__main__":
    write(sys.argv[1])
