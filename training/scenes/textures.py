"""Procedural texture pictures: cloth, boards, plaster, mosaics, prints, pages, posters. No photograph is used."""

import pathlib
import sys

import cv2
import numpy as np

SIZE = 384
COUNT = 240


def noise(r, size, rough):
    """A seamless cloud in [0,1] whose spectrum falls with frequency to the power of `rough`."""
    fy, fx = np.fft.fftfreq(size)[:, None], np.fft.fftfreq(size)[None]
    f = np.hypot(fy, fx)
    f[0, 0] = 1
    cloud = np.fft.ifft2(np.fft.fft2(r.normal(size=(size, size))) / f**rough).real
    low, high = np.percentile(cloud, (1, 99))
    return np.clip((cloud - low) / (high - low), 0, 1)


def palette(r, colours):
    """Colours that go together: one hue and its neighbours, now and then its opposite."""
    hue = r.uniform(0.03, 0.15) if r.random() < 0.5 else r.random()
    spread = r.choice([0.03, 0.08, 0.5])
    hsv = np.stack(
        [
            (hue + r.normal(0, spread, colours)) % 1 * 179,
            np.clip(r.beta(1.5, 2.5, colours) * 255, 0, 255),
            np.clip(r.beta(2, 1.5, colours) * 255, 10, 255),
        ],
        1,
    )
    return cv2.cvtColor(hsv[None].astype(np.uint8), cv2.COLOR_HSV2BGR)[0].astype(np.float32)


def ramp(colours, t):
    x = t * (len(colours) - 1)
    i = np.clip(x.astype(int), 0, len(colours) - 2)
    f = (x - i)[..., None]
    return colours[i] * (1 - f) + colours[i + 1] * f


def clouds(r):
    return ramp(palette(r, 4), noise(r, SIZE, r.uniform(0.8, 2.4)))


def speckle(r):
    colours = palette(r, 5)
    return ramp(colours, 0.6 * noise(r, SIZE, 0.4) + 0.4 * noise(r, SIZE, 1.8))


def boards(r):
    boards_across = r.integers(2, 9)
    y, x = np.mgrid[0:SIZE, 0:SIZE] / SIZE
    board = np.floor(x * boards_across).astype(int)
    shift = r.random(boards_across)[board]
    grain = np.sin(x * r.uniform(40, 120) + 6 * noise(r, SIZE, 2.2) + 20 * shift) * 0.5 + 0.5
    picture = ramp(palette(r, 3), np.clip(0.7 * grain * r.uniform(0.3, 1) + 0.3 * shift, 0, 1))
    gap = np.abs(x * boards_across - np.round(x * boards_across)) < 0.02
    picture[gap] *= 0.4
    return picture


def weave(r):
    y, x = np.mgrid[0:SIZE, 0:SIZE]
    n = r.integers(3, 14)
    stripes = r.random((2, SIZE))
    width = r.integers(2, 40)
    stripes = np.repeat(stripes[:, ::width], width, 1)[:, :SIZE]
    over = ((x // n + y // n) % 2).astype(bool)
    t = np.where(over, stripes[0][x], stripes[1][y])
    return ramp(palette(r, 4), t) * (0.85 + 0.15 * noise(r, SIZE, 0.3)[..., None])


def stripes(r):
    y, x = np.mgrid[0:SIZE, 0:SIZE] / SIZE
    turn = r.choice([0, np.pi / 2, r.uniform(0, np.pi)])
    t = (x * np.cos(turn) + y * np.sin(turn)) * r.integers(3, 30)
    step = np.floor(t).astype(int) % 5
    return palette(r, 5)[step]


def mosaic(r):
    n = r.integers(20, 400)
    p = r.random((n, 2)) * SIZE
    y, x = np.mgrid[0:SIZE:2, 0:SIZE:2]
    near = np.full(x.shape, 1e9)
    second = near.copy()
    cell = np.zeros(x.shape, int)
    for i, (px, py) in enumerate(p):
        d = np.hypot(x - px, y - py)
        closer = d < near
        second = np.where(closer, near, np.minimum(second, d))
        cell[closer] = i
        near = np.minimum(near, d)
    picture = palette(r, n)[cell] if r.random() < 0.5 else ramp(palette(r, 3), r.random(n)[cell])
    picture[second - near < r.uniform(0.5, 5)] *= r.uniform(0.2, 0.9)
    return cv2.resize(picture.astype(np.float32), (SIZE, SIZE))


def spots(r):
    picture = np.tile(palette(r, 1)[0], (SIZE, SIZE, 1)).astype(np.float32)
    colours = palette(r, 6)
    size = r.uniform(3, 40)
    for _ in range(r.integers(20, 300)):
        centre = tuple(int(v) for v in r.integers(0, SIZE, 2))
        axes = (int(size * r.uniform(0.4, 1.4)) + 1, int(size * r.uniform(0.2, 1)) + 1)
        cv2.ellipse(
            picture, centre, axes, float(r.uniform(0, 180)), 0, 360, colours[r.integers(6)].tolist(), -1, cv2.LINE_AA
        )
    return picture


def page(r):
    paper, ink = (palette(r, 2) * [[0.2], [0.3]] + [[200], [0]]) if r.random() < 0.8 else palette(r, 2)
    picture = np.tile(paper, (SIZE, SIZE, 1)).astype(np.float32)
    line = r.integers(6, 30)
    for y in range(line, SIZE - line, int(line * 1.6)):
        x = r.integers(8, 40)
        while x < SIZE - 30:
            word = r.integers(line, line * 4)
            for cx in range(x, min(x + word, SIZE - 20), max(3, line // 2)):
                top = y - r.integers(line // 3, line)
                cv2.line(
                    picture,
                    (cx, y),
                    (cx + int(r.integers(-2, 3)), int(top)),
                    ink.tolist(),
                    max(1, line // 8),
                    cv2.LINE_AA,
                )
            x += word + line // 2
    return picture


def poster(r):
    picture = np.tile(palette(r, 1)[0], (SIZE, SIZE, 1)).astype(np.float32)
    colours = palette(r, 8)
    for _ in range(r.integers(4, 25)):
        colour = colours[r.integers(8)].tolist()
        kind = r.integers(3)
        a, b = (tuple(int(v) for v in r.integers(0, SIZE, 2)) for _ in range(2))
        if kind == 0:
            cv2.rectangle(picture, a, b, colour, -1)
        elif kind == 1:
            cv2.circle(picture, a, int(r.integers(5, 120)), colour, -1, cv2.LINE_AA)
        else:
            cv2.fillPoly(picture, [r.integers(0, SIZE, (r.integers(3, 7), 2)).astype(np.int32)], colour, cv2.LINE_AA)
    if r.random() < 0.5:
        cv2.putText(
            picture,
            "".join(chr(c) for c in r.integers(65, 91, 6)),
            (20, int(r.integers(60, 350))),
            0,
            float(r.uniform(1, 3)),
            colours[0].tolist(),
            int(r.integers(2, 12)),
            cv2.LINE_AA,
        )
    return picture


def rubble(r):
    """Pebbles, gravel, foliage from afar: overlapping shaded lumps."""
    picture = np.zeros((SIZE, SIZE, 3), np.float32)
    colours = palette(r, 7)
    size = r.uniform(4, 26)
    for _ in range(int(min(6000, 3 * (SIZE / size) ** 2))):
        centre = tuple(int(v) for v in r.integers(0, SIZE, 2))
        axes = (int(size * r.uniform(0.5, 1.2)) + 1, int(size * r.uniform(0.3, 0.9)) + 1)
        colour, turn = colours[r.integers(7)] * r.uniform(0.5, 1.1), float(r.uniform(0, 180))
        cv2.ellipse(picture, centre, axes, turn, 0, 360, (colour * 0.5).tolist(), -1, cv2.LINE_AA)
        lit = (centre[0] - 1, centre[1] - max(1, int(size / 8)))
        cv2.ellipse(
            picture,
            lit,
            (max(1, int(axes[0] * 0.8)), max(1, int(axes[1] * 0.8))),
            turn,
            0,
            360,
            colour.tolist(),
            -1,
            cv2.LINE_AA,
        )
    return picture


KINDS = (clouds, speckle, boards, weave, stripes, mosaic, spots, page, poster, rubble)


def write(folder):
    folder = pathlib.Path(folder)
    folder.mkdir(parents=True, exist_ok=True)
    for i in range(COUNT):
        r = np.random.default_rng(1000 + i)
        picture = KINDS[i % len(KINDS)](r)
        if r.random() < 0.4:
            picture = picture * (0.7 + 0.5 * noise(r, SIZE, 2)[..., None])
        cv2.imwrite(str(folder / ("t%03d.png" % i)), np.clip(picture, 0, 255).astype(np.uint8))


if __name__ == "__main__":
    write(sys.argv[1])
