"""Pictures in which nothing is near or far: pages, charts, screens, drawings, patterns. They teach where depth is not
to be known.

python3 -m scenes.flat FOLDER COUNT      writes FOLDER/scenes/NNNNNN.jpg (512x512)
"""

import pathlib
import sys

import cv2
import numpy as np

SIDE = 512
FONTS = (cv2.FONT_HERSHEY_SIMPLEX, cv2.FONT_HERSHEY_COMPLEX, cv2.FONT_HERSHEY_DUPLEX, cv2.FONT_HERSHEY_TRIPLEX)
LETTERS = "abcdefghijklmnoprstuvwz"


def colour(r, light=None):
    low, high = (0, 255) if light is None else ((170, 255) if light else (0, 90))
    return tuple(int(c) for c in r.integers(low, high + 1, 3))


def words(r, most):
    return " ".join("".join(r.choice(list(LETTERS), r.integers(2, 9))) for _ in range(r.integers(1, most)))


def paper(r, light=True):
    return np.full((SIDE, SIDE, 3), colour(r, light), np.uint8)


def write(picture, r, box, ink):
    left, top, right, bottom = box
    size = r.uniform(0.35, 1.1)
    font, step = FONTS[r.integers(len(FONTS))], int(30 * size) + 4
    for y in range(top + step, bottom, step):
        text = words(r, 10)
        while text and cv2.getTextSize(text, font, size, 1)[0][0] > right - left:
            text = text[:-1]
        cv2.putText(picture, text, (left, y), font, size, ink, 1 + (size > 0.8), cv2.LINE_AA)


def page(r):
    picture = paper(r)
    ink, columns = colour(r, False), int(r.integers(1, 4))
    width = (SIDE - 40) // columns
    for k in range(columns):
        write(picture, r, (20 + k * width, 20, 10 + (k + 1) * width, SIDE - 20), ink)
    return picture


def chart(r):
    light = r.random() < 0.7
    picture = paper(r, light)
    ink = colour(r, not light)
    cv2.line(picture, (60, 450), (480, 450), ink, 2)
    cv2.line(picture, (60, 40), (60, 450), ink, 2)
    for _ in range(r.integers(1, 5)):
        paint, values = colour(r), r.uniform(50, 440, r.integers(4, 20))
        xs = np.linspace(70, 470, len(values)).astype(int)
        if r.random() < 0.5:
            for x, y in zip(xs, values, strict=True):
                cv2.rectangle(picture, (x - 8, int(y)), (x + 8, 449), paint, -1)
        else:
            course = np.stack([xs, values.astype(int)], 1)
            cv2.polylines(picture, [course], False, paint, int(r.integers(1, 5)), cv2.LINE_AA)
    write(picture, r, (70, 455, 480, 505), ink)
    return picture


def screen(r):
    picture = paper(r, r.random() < 0.6)
    for _ in range(r.integers(2, 8)):
        x, y = r.integers(0, 400, 2)
        w, h = r.integers(80, 320, 2)
        light = r.random() < 0.6
        cv2.rectangle(picture, (x, y), (x + w, y + h), colour(r, light), -1)
        cv2.rectangle(picture, (x, y), (x + w, y + 22), colour(r), -1)
        cv2.rectangle(picture, (x, y), (x + w, y + h), colour(r), 1)
        write(picture, r, (x + 8, y + 26, min(SIDE, x + w) - 6, min(SIDE, y + h) - 6), colour(r, not light))
    return picture


def drawing(r):
    picture = paper(r)
    for _ in range(r.integers(5, 60)):
        at, ink, thick = r.integers(0, SIDE, (r.integers(2, 7), 2)), colour(r, False), int(r.integers(1, 5))
        kind = r.integers(4)
        if kind == 0:
            cv2.polylines(picture, [at], bool(r.random() < 0.5), ink, thick, cv2.LINE_AA)
        elif kind == 1:
            cv2.circle(picture, tuple(at[0]), int(r.integers(5, 150)), ink, thick, cv2.LINE_AA)
        elif kind == 2:
            axes, turn, end = tuple(r.integers(5, 150, 2)), r.uniform(0, 360), r.uniform(90, 360)
            cv2.ellipse(picture, tuple(at[0]), axes, turn, 0, end, ink, thick)
        else:
            cv2.fillPoly(picture, [at], colour(r))
    return picture


def pattern(r):
    step = int(r.integers(12, 90))
    y, x = np.mgrid[0:SIDE, 0:SIDE]
    which = (x // step + (y // step if r.random() < 0.7 else 0)) % int(r.integers(2, 4))
    paints = np.array([colour(r) for _ in range(3)], np.uint8)
    return paints[which].copy()


def emblem(r):
    picture = paper(r, r.random() < 0.6)
    for k in range(r.integers(2, 7)):
        cv2.circle(picture, (SIDE // 2, SIDE // 2), int(230 - 35 * k * r.uniform(0.6, 1.2)), colour(r), -1, cv2.LINE_AA)
    text = words(r, 3)[:8]
    cv2.putText(picture, text, (90, 290), FONTS[r.integers(len(FONTS))], 2.2, colour(r), 4, cv2.LINE_AA)
    return picture


KINDS = (page, chart, screen, drawing, pattern, emblem)


def taken(picture, r):
    """Some are pictures of pictures: a little noise, a gradient of light, softness."""
    f = picture.astype(np.float32)
    if r.random() < 0.4:
        slope = np.linspace(r.uniform(0.7, 1), r.uniform(0.7, 1), SIDE, dtype=np.float32)
        f *= slope[None, :, None] if r.random() < 0.5 else slope[:, None, None]
    if r.random() < 0.4:
        f += r.normal(0, r.uniform(1, 8), f.shape)
    if r.random() < 0.3:
        f = cv2.GaussianBlur(f, (0, 0), r.uniform(0.4, 1.2))
    return np.clip(f, 0, 255).astype(np.uint8)


def main(folder, count):
    target = pathlib.Path(folder) / "scenes"
    target.mkdir(parents=True, exist_ok=True)
    for seed in range(int(count)):
        r = np.random.default_rng(seed)
        picture = taken(KINDS[seed % len(KINDS)](r), r)
        cv2.imwrite(str(target / ("%06d.jpg" % seed)), picture, [cv2.IMWRITE_JPEG_QUALITY, int(r.integers(70, 97))])
        (target / ("%06d.done" % seed)).write_text("flat\n")


if __name__ == "__main__":
    main(*sys.argv[1:])
