"""A scene being built: its camera, its light, its ground, and the list of what stands in it."""

import math
import pathlib
import re
from itertools import pairwise

import cv2
import numpy as np
from scenes.dice import LINEAR, Dice
from scenes.surface import CLOSE, OPEN, Surfaces, rgb
from scenes.things import Things, placed, rod, vec
from scipy import ndimage

HALF_LONG_SIDE = 18  # millimetres: focal lengths are for a frame with a long side of 36
ASPECTS = (1.5, 1.5, 1.333, 1.778, 0.667, 0.75, 1.0, 0.5625)
BLACK = "texture{pigment{rgb 0}finish{ambient 0 diffuse 0}}"


class Scene:
    def __init__(self, seed, folder):
        folder = pathlib.Path(folder)
        self.folder, self.seed = folder, seed
        self.dice = Dice(seed)
        pictures = sorted((folder / "tex").glob("t*.png"))
        self.backdrops = sorted((folder / "tex").glob("back*.png"))
        self.surfaces = Surfaces(self.dice, [str(p) for p in pictures + self.backdrops])
        self.things = Things(self.dice, self.surfaces)
        self.items = []
        self.ground = None
        self.aspect = self.dice.pick(*ASPECTS)
        self.blur_share, self.ambient = 0.2, 1.0
        self.sky_text = self.fog_text = self.light_text = ""
        self.horizon = (1, 1, 1)

    # putting things in

    def add(self, text):
        self.items.append(text)

    def put(self, thing, x, z, turn=None, scale=1.0, y=None, tilt=0):
        body, height = thing
        y = self.height(x, z) if y is None else y
        turn = self.dice.span(0, 360) if turn is None else turn
        lean = (tilt * self.dice.span(-1, 1), tilt * self.dice.span(-1, 1))
        self.add(placed(body, scale, lean, turn, (x, y, z)))
        return height

    def scatter(self, make, count, reach, wide=1.1, avoid=None):
        d = self.dice
        for _ in range(count):
            away = d.log_span(*reach)
            x = self.position[0] + d.span(-wide, wide) * self.half_width * away * 1.1 + self.forward[0] * away
            z = self.position[2] + away * max(0.3, self.forward[2])
            if avoid and math.hypot(x - avoid[0], z - avoid[1]) < avoid[2]:
                continue
            self.put(make(), x, z, scale=d.span(0.75, 1.3))

    def grass(self, count, reach):
        d = self.dice
        green = [
            self.surfaces.any(0.2, ("green" if d.chance(0.7) else "earth",), picture=0, finish="matt") for _ in range(3)
        ]
        size = d.log_span(0.08, 0.7)
        for _ in range(count):
            away = d.log_span(*reach)
            x = d.span(-1.2, 1.2) * self.half_width * away + self.forward[0] * away
            z = self.position[2] + away
            self.add(
                "object{GRASS%d scale %.3f rotate y*%.0f translate %s %s}"
                % (d.count(0, 2), size * d.span(0.5, 1.5), d.span(0, 360), vec(x, self.height(x, z), z), d.pick(*green))
            )

    def mountains(self):
        d = self.dice
        surface = self.surfaces.any(40, ("grey", "green", "earth", "dark"), picture=0, finish="matt")
        for _ in range(d.count(2, 9)):
            z = d.log_span(150, 500)
            h, w, x = z * d.span(0.05, 0.35), z * d.span(0.2, 0.8), d.span(-1, 1) * z * max(0.3, self.half_width)
            if d.chance(0.5):
                self.add(
                    "sphere{0,1 scale %s translate %s %s}" % (vec(w, h, w / 2), vec(x, -h * 0.05, z + w / 2), surface)
                )
            else:
                self.add(
                    "cone{<0,-5,0>,%.1f,<0,%.1f,0>,%.1f translate %s %s}" % (w, h, w * 0.02, vec(x, 0, z + w), surface)
                )

    def fence(self, start, end):
        d = self.dice
        (x0, z0), (x1, z1) = start, end
        surface, high, r = (
            self.surfaces.any(0.3, ("earth", "pale", "grey", "dark")),
            d.span(0.7, 1.6),
            d.span(0.015, 0.06),
        )
        posts = max(3, min(80, int(math.hypot(x1 - x0, z1 - z0) / d.span(0.15, 2))))
        feet = []
        for i in range(posts + 1):
            x, z = x0 + (x1 - x0) * i / posts, z0 + (z1 - z0) * i / posts
            y = self.height(x, z)
            feet.append((x, y, z))
            self.add(rod((x, y - 0.3, z), (x, y + high, z), r, surface))
        for _ in range(d.count(1, 3)):
            rail = d.span(0.3, 1) * high
            for a, b in pairwise(feet):
                self.add(rod((a[0], a[1] + rail, a[2]), (b[0], b[1] + rail, b[2]), r * 0.6, surface))

    # ground

    def flat_ground(self, scale, y=0.0):
        self.add("plane{y,%.3f %s}" % (y, self.surfaces.ground(scale)))

    def terrain(self, size, rise, rough, near_edge=-10.0, calm_in_front=True):
        d, n = self.dice, 192
        r = np.random.default_rng(self.seed)
        f = np.hypot(np.fft.fftfreq(n)[:, None], np.fft.fftfreq(n)[None])
        f[0, 0] = 1
        land = np.fft.ifft2(np.fft.fft2(r.normal(size=(n, n))) / f**rough).real
        land = (land - land.min()) / (land.max() - land.min())
        if d.chance(0.3):
            land = 1 - np.abs(2 * land - 1)
        if calm_in_front:
            z = np.linspace(1, 0, n)[:, None] * size + near_edge
            wild = 1 / (1 + np.exp(-(z - d.span(0.1, 0.5) * size) / (0.07 * size)))
            land = land * wild + (1 - wild) * (land * 0.06 + 0.02)
        steps = (land * 65535).astype(np.uint16)
        cv2.imwrite(str(self.scratch("land.png")), steps)
        self.ground = (steps / 65536.0, size, rise, near_edge)
        self.add(
            'height_field{png "%s" smooth scale %s translate %s %s}'
            % (
                self.scratch("land.png"),
                vec(size, rise, size),
                vec(-size / 2, 0, near_edge),
                self.surfaces.ground(d.log_span(1, 12)),
            )
        )

    def height(self, x, z):
        if self.ground is None:
            return 0.0
        land, size, rise, near_edge = self.ground
        n = land.shape[0] - 1
        column = (x + size / 2) / size * n
        row = n - (z - near_edge) / size * n
        return rise * float(
            ndimage.map_coordinates(land, [[min(max(row, 0), n)], [min(max(column, 0), n)]], order=1)[0]
        )

    # camera and light

    def camera(self, position, target, focal, roll=None):
        self.position = np.array(position, float)
        forward = np.array(target, float) - self.position
        forward /= np.linalg.norm(forward)
        right = np.cross([0, 1, 0], forward)
        right /= np.linalg.norm(right)
        up = np.cross(forward, right)
        a = math.radians(self.dice.near(0, 1.5) if roll is None else roll)
        right, up = right * math.cos(a) + up * math.sin(a), up * math.cos(a) - right * math.sin(a)
        self.half_width = HALF_LONG_SIDE / focal * min(1, self.aspect)
        self.half_height = self.half_width / self.aspect
        self.forward, self.right, self.up = forward, right, up
        self.camera_text = "camera{perspective location %s direction %s right %s up %s}" % tuple(
            "<%.9f,%.9f,%.9f>" % tuple(v)
            for v in (self.position, forward, right * 2 * self.half_width, up * 2 * self.half_height)
        )

    def ray(self, across, upwards, away):
        """The point at distance `away` along the axis, across and upwards in [-1,1] of the frame."""
        p = self.position + self.forward * away
        return p + self.right * (across * self.half_width * away) + self.up * (upwards * self.half_height * away)

    def sky(self, kind=None):
        d = self.dice
        import colorsys

        kind = kind or d.pick("clear", "clouds", "clouds", "grey", "sunset", "dark")
        hue = d.span(0.55, 0.65)
        top, low = {
            "clear": ((hue, d.span(0.4, 0.8), d.span(0.4, 0.9)), (hue, d.span(0.05, 0.3), d.span(0.7, 1))),
            "clouds": ((hue, d.span(0.3, 0.7), d.span(0.4, 0.9)), (hue, d.span(0.02, 0.3), d.span(0.7, 1))),
            "grey": ((hue, 0.02, d.span(0.4, 0.8)), (hue, 0.01, d.span(0.6, 0.95))),
            "sunset": (
                (d.span(0.55, 0.8), d.span(0.2, 0.6), d.span(0.2, 0.6)),
                (d.span(0, 0.12), d.span(0.3, 0.8), d.span(0.6, 1)),
            ),
            "dark": ((hue, d.span(0.2, 0.7), d.span(0.03, 0.25)), (hue, d.span(0.2, 0.5), d.span(0.1, 0.5))),
        }[kind]
        top, low = (tuple(c**LINEAR for c in colorsys.hsv_to_rgb(*hsv)) for hsv in (top, low))
        text = "pigment{gradient y color_map{[0 %s][%.2f %s][1 %s]}}" % (rgb(low), d.span(0.3, 0.8), rgb(top), rgb(top))
        if kind in ("clouds", "sunset", "grey") and d.chance(0.85):
            v, stretch = d.span(0.5, 1), d.span(0.4, 1.5)
            text += (
                "pigment{%s turbulence %.2f octaves 6 color_map{[0 rgbt 1][%.2f rgbt 1][%.2f rgbt<%.2f,%.2f,%.2f,%.2f>]"
                "[1 rgbt<%.2f,%.2f,%.2f,.1>]} scale %s}"
            ) % (
                d.pick("bozo", "wrinkles", "bumps"),
                d.span(0.4, 1),
                d.span(0.3, 0.5),
                d.span(0.6, 0.8),
                v,
                v,
                v * 0.98,
                d.span(0.1, 0.5),
                v * 0.7,
                v * 0.7,
                v * 0.72,
                vec(0.6 * stretch, d.span(0.08, 0.3), 0.6),
            )
        self.sky_text, self.horizon = "sky_sphere{%s}" % text, low
        rise = math.radians(d.span(4, 20) if kind == "sunset" else d.span(8, 75))
        turn = math.radians(d.span(-180, 180))
        sun = np.array([math.sin(turn) * math.cos(rise), math.sin(rise), math.cos(turn) * math.cos(rise)]) * 1e4
        warm = (1, d.span(0.6, 0.85), d.span(0.3, 0.6)) if kind == "sunset" else (1, d.span(0.92, 1), d.span(0.8, 1))
        level = d.span(0.8, 1.3) * {"grey": 0.35, "dark": 0.25}.get(kind, 1.0)
        self.light_text = "light_source{%s %s}" % (vec(*sun), rgb([level * c for c in warm]))
        fill = d.span(0.15, 0.45)
        self.light_text += "light_source{<%.1f,8000,-3000> %s shadowless}" % (
            d.span(-5000, 5000),
            rgb((fill * 0.9, fill * 0.95, fill)),
        )
        self.ambient = d.span(0.5, 1.3) * (0.6 if kind == "dark" else 1)
        if d.chance(0.45):
            self.fog_text = "fog{distance %.1f color %s}" % (d.log_span(25, 600), rgb(low))

    # POV-Ray text

    def scratch(self, name):
        return self.folder / "scratch" / ("%06d-%s" % (self.seed, name))

    def meshes(self):
        names = sorted(set(re.findall(r"\b((?:LEAF|GRASS|FAN|BARE)\d)\b", "\n".join(self.items))))
        return "".join('#include "%s"\n' % (self.folder / "mesh" / (name + ".inc")) for name in names)

    def colour_text(self):
        head = (
            "#version 3.7;global_settings{assumed_gamma 1.0 max_trace_level 3 ambient_light rgb %.2f}\n" % self.ambient
        )
        body = "\n".join([self.camera_text, self.light_text, self.sky_text, self.fog_text, *self.items])
        return head + self.meshes() + body.replace(OPEN, "").replace(CLOSE, "")

    def depth_text(self, density):
        """Everything black in a white fog: the share of black that is left is exp(-distance / density)."""
        head = (
            "#version 3.7;global_settings{assumed_gamma 1.0 ambient_light 0}"
            "background{rgb 1}fog{distance %.4f color rgb 1}\n" % density
        )
        body = "\n".join([self.camera_text, *self.items])
        return head + self.meshes() + re.sub(OPEN + ".*?" + CLOSE, BLACK, body, flags=re.S)
