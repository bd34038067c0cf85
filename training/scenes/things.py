"""Things that stand on the ground at the origin: every maker answers (POV-Ray text, height in metres)."""

import math

from scenes.surface import Surfaces


def vec(*xyz):
    return "<%s>" % ",".join("%.4f" % v for v in xyz)


def ball(centre, radius, surface, stretch=None):
    if stretch is None:
        return "sphere{%s,%.4f %s}" % (vec(*centre), radius, surface)
    return "sphere{0,1 scale %s translate %s %s}" % (vec(*stretch), vec(*centre), surface)


def rod(a, b, radius, surface):
    return "cylinder{%s,%s,%.4f %s}" % (vec(*a), vec(*b), radius, surface)


def block(low, high, surface):
    return "box{%s,%s %s}" % (vec(*low), vec(*high), surface)


def limb(a, b, ra, rb, surface):
    return (
        "cone{%s,%.4f,%s,%.4f %s}" % (vec(*a), ra, vec(*b), rb, surface) + ball(a, ra, surface) + ball(b, rb, surface)
    )


def placed(body, scale=1.0, tilt=(0, 0), turn=0.0, at=(0, 0, 0)):
    return "object{union{%s} scale %.4f rotate <%.1f,0,%.1f> rotate y*%.1f translate %s}" % (
        body,
        scale,
        *tilt,
        turn,
        vec(*at),
    )


class Things:
    def __init__(self, dice, surfaces: Surfaces):
        self.d = dice
        self.s = surfaces

    # people

    def head(self, skin, hair):
        d, s = self.d, self.s
        face, dark = s.plain(skin, "satin"), s.plain((0.02, 0.02, 0.02), "gloss")
        lips = s.plain((min(1, skin[0] * 0.9), skin[1] * 0.5, skin[2] * 0.5), "satin")
        white = s.plain((0.85, 0.85, 0.85), "gloss")
        parts = [
            ball((0, 0, 0), 0, face, (0.078, 0.11, 0.095)),
            ball((0, -0.06, -0.02), 0, face, (0.06, 0.06, 0.06)),
            ball((0, -0.015, -0.097), 0, face, (0.014, 0.028, 0.022)),
            ball((0, -0.062, -0.08), 0, lips, (0.028, 0.009, 0.012)),
        ]
        for side in (-1, 1):
            parts += [
                ball((side * 0.032, 0.015, -0.08), 0.016, white),
                ball((side * 0.032, 0.014, -0.091), 0.0085, dark),
                ball((side * 0.033, 0.042, -0.086), 0, hair, (0.022, 0.005, 0.01)),
                ball((side * 0.08, 0, 0), 0, face, (0.012, 0.028, 0.02)),
            ]
        if d.chance(0.85):
            cap = "sphere{0,1 scale %s translate<0,.02,.012>}" % vec(
                d.span(0.085, 0.1), d.span(0.112, 0.13), d.span(0.098, 0.11)
            )
            cut = "box{<-.2,-.3,-.2>,<.2,%.3f,-.04> rotate x*%.0f}" % (d.span(0.03, 0.065), d.span(-15, 5))
            parts.append("difference{%s %s %s}" % (cap, cut, hair))
            if d.chance(0.45):
                parts.append(
                    "cone{<0,.05,.03>,.09,<0,%.3f,.06>,%.3f %s}" % (d.span(-0.3, -0.12), d.span(0.06, 0.13), hair)
                )
            if d.chance(0.5):
                parts += [self.strand(hair) for _ in range(40)]
        if d.chance(0.15):
            parts.append(
                rod((0, 0.06, 0), (0, 0.075, 0), 0.16, s.any(0.1)) + rod((0, 0.06, 0), (0, 0.15, 0), 0.09, s.any(0.1))
            )
        if d.chance(0.15):
            parts += ["torus{.025,.003 rotate x*90 translate<%.3f,.015,-.1> %s}" % (x, dark) for x in (-0.033, 0.033)]
        return "".join(parts)

    def strand(self, hair):
        d = self.d
        turn, rise = d.span(0, 2 * math.pi), d.span(-0.3, 1.2)
        root = (
            math.cos(turn) * math.cos(rise) * 0.085,
            0.03 + math.sin(rise) * 0.11,
            0.02 + math.sin(turn) * abs(math.cos(rise)) * 0.08,
        )
        grow = d.span(1.1, 1.45)
        end = (root[0] * grow, root[1] * grow - d.span(0, 0.08), root[2] * grow)
        return "cone{%s,.0025,%s,.0006 %s}" % (vec(*root), vec(*end), hair)

    def person(self, pose=None):
        d, s = self.d, self.s
        pose = pose or d.pick("stand", "stand", "stand", "walk", "sit", "arms")
        skin = d.colour("skin")
        bare, top = s.plain(skin, "satin"), s.any(0.4, picture=0.3)
        legs = s.any(0.4, (d.pick("dark", "grey", "any", "earth"),))
        hair, shoe = s.any(0.05, ("dark", "fur", "earth"), picture=0), s.any(0.1, ("dark",))
        width, sink = d.span(0.16, 0.24), -0.42 if pose == "sit" else 0
        hip, neck = 0.92 + sink, 1.42 + sink
        stride = d.span(0.05, 0.3) if pose == "walk" else d.span(0, 0.06)
        parts = []
        for side in (-1, 1):
            if pose == "sit":
                knee, foot = (
                    (side * d.span(0.1, 0.2), hip, -0.45),
                    (side * d.span(0.1, 0.2), 0.06, -0.45 + d.span(-0.15, 0.2)),
                )
            else:
                knee, foot = (
                    (side * d.span(0.09, 0.14), 0.5, -side * stride * 0.5 - 0.03),
                    (side * d.span(0.09, 0.16), 0.07, side * stride),
                )
            parts.append(limb((side * 0.1, hip, 0), knee, 0.095, 0.065, legs))
            parts.append(limb(knee, foot, 0.065, 0.045, legs if d.chance(0.8) else bare))
            parts.append(ball((foot[0], 0.05, foot[2] - 0.06), 0, shoe, (0.05, 0.05, 0.13)))
        parts.append(
            "blob{threshold .5 cylinder{<0,%.2f,0>,<0,%.2f,0>,%.2f,1.2 scale <1.3,1,.75>} sphere{<-.15,%.2f,0>,.16,1}"
            " sphere{<.15,%.2f,0>,.16,1} cylinder{<-.07,%.2f,0>,<.07,%.2f,0>,.22,1} %s}"
            % (hip, neck - 0.12, width * 1.35, neck - 0.08, neck - 0.08, hip, hip, top)
        )
        parts.append(limb((0, neck - 0.05, 0), (0, neck + 0.1, 0), 0.055, 0.05, bare))
        sleeve = top if d.chance(0.7) else bare
        for side in (-1, 1):
            shoulder = (side * width * 1.05, neck - 0.06, 0)
            if pose == "arms" or d.chance(0.25):
                elbow = (side * d.span(0.25, 0.5), neck + d.span(-0.3, 0.2), d.span(-0.3, 0.1))
                hand = (elbow[0] * d.span(0.5, 1.4), elbow[1] + d.span(-0.1, 0.3), elbow[2] + d.span(-0.3, 0.05))
            else:
                elbow = (side * (width + d.span(0.03, 0.1)), neck - 0.33, d.span(-0.02, 0.08))
                hand = (side * (width + d.span(-0.05, 0.1)), neck - 0.58, d.span(-0.25, 0.03))
            parts += [
                limb(shoulder, elbow, 0.058, 0.045, top),
                limb(elbow, hand, 0.045, 0.033, sleeve),
                ball(hand, 0.05, bare),
            ]
        parts.append("union{%s translate <0,%.3f,0>}" % (self.head(skin, hair), neck + 0.2))
        if d.chance(0.15):
            parts.append(self.bag(side=d.side(), at=hip))
        return "".join(parts), 1.75 + sink

    def bag(self, side, at):
        box = block((side * 0.28 - 0.06, at - 0.35, -0.15), (side * 0.28 + 0.06, at, 0.15), self.s.any(0.2))
        return box + rod((side * 0.28, at, 0), (side * 0.15, at + 0.5, 0), 0.008, self.s.any(0.1))

    def bust(self):
        d, s = self.d, self.s
        skin, hair, top = d.colour("skin"), s.any(0.05, ("dark", "fur"), picture=0), s.any(0.4, picture=0.3)
        body = (
            "blob{threshold .5 cylinder{<-.14,-.3,0>,<.14,-.3,0>,.2,1.2} "
            "cylinder{<0,-.8,0>,<0,-.3,0>,.34,1.3 scale<1.2,1,.7>}"
            " sphere{<-.2,-.33,0>,.15,1} sphere{<.2,-.33,0>,.15,1} %s}" % top
        )
        body += rod((0, -0.3, 0.01), (0, -0.05, 0), 0.055, s.plain(skin, "satin"))
        turn = vec(d.span(-15, 15), d.span(-50, 50), d.span(-12, 12))
        body += "union{%s rotate %s}" % (self.head(skin, hair), turn)
        return "union{%s translate y*1.5}" % body, 1.65

    # animals

    def animal(self):
        d, s = self.d, self.s
        coat, dark = s.any(0.3, ("fur",), picture=0.1), s.plain((0.01, 0.01, 0.01), "gloss")
        length, height, width = d.span(0.4, 0.7), d.span(0.25, 0.9), d.span(0.12, 0.24)
        body = "cylinder{<0,%.3f,%.3f>,<0,%.3f,%.3f>,%.3f,1.3}" % (
            height,
            -length / 2,
            height * d.span(0.9, 1.05),
            length / 2,
            width * 1.4,
        )
        for side in (-1, 1):
            for end in (-1, 1):
                foot = (side * width * 0.5, 0.03, end * length * 0.42 + d.span(-0.12, 0.12))
                body += "cylinder{%s,%s,%.3f,1}" % (
                    vec(side * width * 0.5, height, end * length * 0.42),
                    vec(*foot),
                    d.span(0.06, 0.12),
                )
        hy, hz, hs = height + d.span(0.05, 0.5), -length / 2 - d.span(0.1, 0.25), d.span(0.1, 0.17)
        body += "cylinder{<0,%.3f,%.3f>,<0,%.3f,%.3f>,%.3f,1}" % (height, -length / 2, hy, hz, d.span(0.1, 0.2))
        body += "sphere{<0,%.3f,%.3f>,%.3f,1.5}" % (hy, hz, hs * 1.5)
        body += "cylinder{<0,%.3f,%.3f>,<0,%.3f,%.3f>,%.3f,1}" % (
            hy - 0.02,
            hz,
            hy - 0.06,
            hz - d.span(0.08, 0.25),
            hs * 0.8,
        )
        tail = (d.span(-0.2, 0.2), height + d.span(-0.3, 0.3), length / 2 + d.span(0.15, 0.4))
        body += "cylinder{<0,%.3f,%.3f>,%s,%.3f,1}" % (height, length / 2, vec(*tail), d.span(0.04, 0.1))
        parts = ["blob{threshold .5 %s %s}" % (body, coat), ball((0, hy - 0.03, hz - hs * 1.5), hs * 0.15, dark)]
        for side in (-1, 1):
            tip = (side * hs * d.span(0.5, 1.1), hy + hs * d.span(0.9, 1.9), hz)
            parts.append(
                "cone{%s,%.3f,%s,.005 %s}" % (vec(side * hs * 0.5, hy + hs * 0.5, hz), hs * 0.35, vec(*tip), coat)
            )
            parts.append(ball((side * hs * 0.45, hy + hs * 0.2, hz - hs * 0.75), hs * 0.16, dark))
            parts += [
                rod(
                    (side * 0.02, hy - 0.05, hz - hs * 1.3),
                    (side * 0.14, hy - 0.05 + d.span(-0.04, 0.05), hz - hs * 1.2),
                    0.0012,
                    dark,
                )
                for _ in range(3)
            ]
        return "".join(parts), hy + hs

    def insect(self):
        d, s = self.d, self.s
        shell = s.any(0.02, picture=0, finish="gloss")
        parts = [
            ball((0, 0.008, 0), 0, shell, (0.012, 0.008, 0.014)),
            ball((0, 0.009, -0.014), 0.006, shell),
            ball((0, 0.009, 0.03), 0, shell, (0.006, 0.006, 0.03)),
        ]
        for side in (-1, 1):
            for k in (-1, 0, 1):
                parts.append(rod((0, 0.006, k * 0.006), (side * 0.022, 0, k * 0.014), 0.0008, shell))
            if d.chance(0.6):
                wing = "sphere{0,1 scale<.028,.0007,.016> translate<%.3f,.012,.004> rotate z*%.0f %s}"
                parts.append(wing % (side * 0.028, side * d.span(0, 60), s.any(0.02, picture=0.2)))
        return "".join(parts), 0.02

    # what grows

    def tree(self, kind=None):
        d, s = self.d, self.s
        kind = kind or d.pick("leafy", "leafy", "leafy", "conifer", "bare", "poplar", "palm")
        bark, leaves = s.any(0.3, ("bark", "dark", "grey"), picture=0.05), s.any(0.3, ("leaf",), picture=0.03)
        height = d.span(4, 12)
        if kind == "leafy":
            trunk, radius = d.span(0.25, 0.5) * height, d.span(0.28, 0.42) * height
            parts = [
                "cone{0,%.3f,%s,%.3f %s}"
                % (height * 0.035, vec(d.span(-0.3, 0.3), trunk + radius * 0.5, 0), height * 0.012, bark)
            ]
            for _ in range(d.count(3, 7)):
                q = radius * d.span(0.55, 0.85)
                at = (d.span(-0.6, 0.6) * radius, trunk + radius * d.span(0.2, 1.3), d.span(-0.6, 0.6) * radius)
                parts.append(
                    self.leaves(q, d.span(0.7, 1), at, leaves if d.chance(0.6) else s.any(0.3, ("leaf",), picture=0))
                )
            return "".join(parts), height
        if kind == "conifer":
            parts = ["cone{0,%.3f,<0,%.2f,0>,.02 %s}" % (height * 0.02, height, bark)]
            tiers, wide = d.count(4, 8), d.span(0.15, 0.28) * height
            for i in range(tiers):
                y, r = height * (0.12 + 0.82 * i / tiers), wide * (1 - i / tiers) + 0.15
                if d.chance(0.3):
                    parts.append(
                        "cone{<0,%.2f,0>,%.2f,<0,%.2f,0>,%.2f %s}" % (y, r, y + height * 0.18, r * 0.2, leaves)
                    )
                else:
                    parts.append(self.leaves(r, height * 0.12 / r, (0, y, 0), leaves))
            return "".join(parts), height
        if kind == "poplar":
            trunk = "cone{0,.2,<0,%.2f,0>,.05 %s}" % (height, bark)
            return trunk + self.leaves(height * 0.14, 3.4, (0, height * 0.52, 0), leaves), height
        if kind == "palm":
            trunk = "cone{0,.18,<0,%.2f,0>,.12 %s}" % (height * 0.8, bark)
            return trunk + "object{FAN0 scale %.2f translate y*%.2f %s}" % (height * 0.35, height * 0.8, leaves), height
        return "object{BARE%d scale %.2f rotate y*%.0f %s}" % (
            d.count(0, 4),
            height,
            d.span(0, 360),
            bark,
        ), height * 0.9

    def leaves(self, radius, flat, at, surface):
        d = self.d
        return "object{LEAF%d scale %s rotate y*%.0f translate %s %s}" % (
            d.count(0, 4),
            vec(radius, radius * flat, radius),
            d.span(0, 360),
            vec(*at),
            surface,
        )

    def trunk(self):
        """A bare trunk that leaves the frame upwards, with a few branches: the hard thing in a wood."""
        d, s = self.d, self.s
        bark = s.any(0.3, ("bark", "bark", "dark", "grey"), picture=0.1)
        height, radius = d.span(8, 20), d.log_span(0.06, 0.45)
        parts = [
            "cone{<0,-.3,0>,%.3f,%s,%.3f %s}"
            % (radius * 1.15, vec(d.span(-0.8, 0.8), height, d.span(-0.8, 0.8)), radius * 0.5, bark)
        ]
        for _ in range(d.count(0, 7)):
            y, turn, reach = d.span(1, height * 0.8), d.span(0, 2 * math.pi), d.span(0.5, 3)
            end = (math.cos(turn) * reach, y + d.span(-0.3, 1) * reach, math.sin(turn) * reach)
            parts.append("cone{<0,%.2f,0>,%.3f,%s,.006 %s}" % (y, radius * 0.25, vec(*end), bark))
        return "".join(parts), height

    def bush(self):
        d, s = self.d, self.s
        surface, parts = s.any(0.3, ("leaf",), picture=0.03), []
        for _ in range(d.count(1, 4)):
            q = d.span(0.3, 0.7)
            parts.append(self.leaves(q * 1.2, 0.85, (d.span(-0.5, 0.5), q * 0.7, d.span(-0.5, 0.5)), surface))
        return "".join(parts), 1.0

    def plant(self):
        d, s = self.d, self.s
        pot, height = self.vase() if d.chance(0.3) else ("cone{0,.07,<0,.16,0>,.1 %s}" % s.any(0.1), 0.16)
        surface = s.any(0.2, ("leaf",), picture=0)
        return pot + "object{FAN%d scale %.2f translate y*%.2f %s}" % (
            d.count(0, 2),
            d.span(0.2, 0.5),
            height * 0.95,
            surface,
        ), height + 0.4

    def flower(self):
        d, s = self.d, self.s
        height, petals, radius = d.span(0.2, 0.5), d.count(5, 14), d.span(0.03, 0.08)
        colour, green = d.colour("strong", "pale", "strong"), s.plain(d.colour("green"))
        petal = s.any(radius * 3, base=colour, picture=0, finish="matt")
        rise, width = d.span(-20, 60), d.span(0.2, 0.5)
        head = "".join(
            "sphere{0,1 scale<%.4f,.004,%.4f> translate x*%.4f rotate z*%.0f rotate y*%.1f %s}"
            % (
                radius * 0.55,
                radius * width,
                radius * 0.55,
                rise * d.span(0.7, 1.2),
                360 * i / petals + d.span(-5, 5),
                petal,
            )
            for i in range(petals)
        )
        head += ball(
            (0, 0, 0), 0, s.any(0.02, ("strong", "earth"), picture=0), (radius * 0.3, radius * 0.18, radius * 0.3)
        )
        body = rod((0, 0, 0), (0, height, 0), 0.004, green)
        body += "union{%s rotate %s translate y*%.3f}" % (head, vec(d.span(-80, 10), 0, d.span(-40, 40)), height)
        for _ in range(d.count(0, 4)):
            body += (
                "sphere{0,1 scale<.06,.003,.018> translate x*.06 rotate z*%.0f rotate y*%.0f translate y*%.3f %s}"
                % (
                    d.span(10, 60),
                    d.span(0, 360),
                    height * d.span(0.05, 0.7),
                    green,
                )
            )
        return body, height + radius * 0.5

    def rock(self):
        d = self.d
        lumps = "".join(
            "sphere{%s,%.2f,1}" % (vec(d.span(-0.5, 0.5), d.span(0, 0.4), d.span(-0.5, 0.5)), d.span(0.4, 0.9))
            for _ in range(d.count(2, 6))
        )
        return "blob{threshold .4 %s %s}" % (lumps, self.s.any(0.6, ("grey", "earth"), picture=0.2)), 0.7

    # furniture and what stands on it

    def box(self, size=(0.3, 1.5)):
        d = self.d
        w, h, depth = (d.log_span(*size) for _ in range(3))
        return block((-w / 2, 0, -depth / 2), (w / 2, h, depth / 2), self.s.any(min(w, h), picture=0.4)), h

    def table(self, width=None, depth=None, height=None):
        d = self.d
        w, z, h = width or d.span(0.6, 1.8), depth or d.span(0.5, 1.0), height or d.span(0.4, 0.8)
        wood, leg = self.s.any(0.6, ("earth", "pale", "dark", "grey")), d.span(0.015, 0.05)
        body = block((-w / 2, h - 0.04, -z / 2), (w / 2, h, z / 2), wood)
        for a in (-1, 1):
            for b in (-1, 1):
                x, y = a * (w / 2 - 0.06), b * (z / 2 - 0.06)
                body += block((x - leg, 0, y - leg), (x + leg, h - 0.02, y + leg), wood)
        return body, h

    def chair(self):
        wood = self.s.any(0.5)
        body, _ = self.table(0.45, 0.45, 0.45)
        for a in (-1, 1):
            body += rod((a * 0.2, 0.4, 0.2), (a * 0.2, 0.95, 0.24), 0.018, wood)
        return body + block((-0.21, self.d.span(0.55, 0.85), 0.2), (0.21, 0.95, 0.235), wood), 0.95

    def sofa(self):
        d, s = self.d, self.s
        cloth, w = s.any(0.5), d.span(1.0, 2.2)
        rounded = "superellipsoid{<.25,.25> scale %s translate %s %s}"
        body = rounded % (vec(w / 2, 0.2, 0.42), vec(0, 0.25, 0), cloth) + rounded % (
            vec(w / 2, 0.4, 0.14),
            vec(0, 0.5, 0.4),
            cloth,
        )
        for a in (-1, 1):
            body += rounded % (vec(0.1, 0.3, 0.45), vec(a * w / 2, 0.33, 0), cloth)
        for _ in range(d.count(0, 3)):
            body += "superellipsoid{<.6,.6> scale<.2,.18,.07> rotate x*20 translate %s %s}" % (
                vec(d.span(-w / 2 + 0.2, w / 2 - 0.2), 0.6, 0.2),
                s.any(0.3, picture=0.3),
            )
        return body, 0.9

    def shelf(self):
        d, s = self.d, self.s
        w, h, wood, rows = d.span(0.6, 1.6), d.span(0.8, 2.2), s.any(0.6, ("earth", "pale", "dark")), d.count(2, 6)
        body = "".join(block((a * w / 2 - 0.015, 0, -0.16), (a * w / 2 + 0.015, h, 0.16), wood) for a in (-1, 1))
        if d.chance(0.6):
            body += block((-w / 2, 0, 0.15), (w / 2, h, 0.16), wood)
        for i in range(rows + 1):
            y = h * i / rows
            body += block((-w / 2, y - 0.012, -0.16), (w / 2, y + 0.012, 0.16), wood)
            x = -w / 2 + 0.03
            while i < rows and x < w / 2 - 0.08:
                book = d.span(0.02, 0.06) if d.chance(0.7) else d.span(0.1, 0.25)
                if d.chance(0.85) and x + book < w / 2:
                    top = y + 0.012 + h / rows * d.span(0.5, 0.85)
                    body += block(
                        (x, y + 0.012, -d.span(0.05, 0.14)), (x + book - 0.003, top, 0.1), s.plain(d.colour())
                    )
                x += book
        return body, h

    def lamp(self):
        d, s = self.d, self.s
        h, metal = d.span(0.4, 1.7), s.any(0.1, finish="metal")
        shade = "cone{<0,%.3f,0>,%.3f,<0,%.3f,0>,%.3f open %s}" % (
            h - 0.2,
            d.span(0.12, 0.22),
            h,
            d.span(0.06, 0.14),
            s.glow(d.colour("pale"), d.span(0.4, 1.2)),
        )
        return rod((0, 0, 0), (0, h - 0.1, 0), 0.012, metal) + rod((0, 0, 0), (0, 0.02, 0), 0.12, metal) + shade, h

    def vase(self):
        d = self.d
        count, height = d.count(5, 8), d.span(0.12, 0.4)
        widest = height * d.span(0.15, 0.45)
        r, points = widest, []
        for i in range(count):
            r = max(0.12 * widest, min(widest * 1.3, r * d.span(0.6, 1.35)))
            points.append("<%.4f,%.4f>" % (r, height * i / (count - 1)))
        surface = self.s.any(0.15, picture=0.2, finish=d.pick("gloss", "satin", "matt", "metal"))
        spline = d.pick("linear_spline", "cubic_spline")
        return "lathe{%s %d,%s %s}" % (spline, count, ",".join(points), surface), height

    def bottle(self):
        d, s = self.d, self.s
        h = d.span(0.2, 0.34)
        r, shoulder, glass = h * d.span(0.1, 0.2), d.span(0.5, 0.7), s.plain(d.colour(), "gloss")
        neck = r * d.span(0.3, 0.5)
        body = rod((0, 0, 0), (0, h * shoulder, 0), r, glass)
        body += "cone{<0,%.4f,0>,%.4f,<0,%.4f,0>,%.4f %s}" % (h * shoulder, r, h * (shoulder + 0.15), neck, glass)
        body += rod((0, h * (shoulder + 0.1), 0), (0, h, 0), neck, glass)
        body += rod((0, h * 0.15, 0), (0, h * shoulder * 0.8, 0), r * 1.01, s.any(0.1, picture=0.5))
        return body + rod((0, h * 0.93, 0), (0, h, 0), neck * 1.2, s.plain(d.colour())), h

    def cup(self):
        d, s = self.d, self.s
        h = d.span(0.07, 0.14)
        r, china = h * d.span(0.4, 0.65), s.any(0.1, picture=0.15, finish=d.pick("gloss", "satin"))
        foot = r * d.span(0.6, 1)
        body = "difference{cone{0,%.4f,<0,%.4f,0>,%.4f} cone{<0,.008,0>,%.4f,<0,%.4f,0>,%.4f} %s}" % (
            foot,
            h,
            r,
            foot * 0.9,
            h + 0.002,
            r * 0.92,
            china,
        )
        if d.chance(0.7):
            body += rod(
                (0, 0.01, 0),
                (0, h * d.span(0.6, 0.9), 0),
                min(foot, r) * 0.9,
                s.plain(d.colour("dark", "earth"), "gloss"),
            )
        if d.chance(0.6):
            body += "torus{%.4f,%.4f rotate x*90 scale<.8,1,1> translate %s %s}" % (
                h * 0.28,
                h * 0.06,
                vec(r * 0.95, h * 0.5, 0),
                china,
            )
        if d.chance(0.5):
            body += "difference{cylinder{0,<0,.012,0>,%.4f} sphere{<0,.3,0>,.292} %s}" % (r * 1.8, china)
        return body, h

    def fruit(self):
        d, s = self.d, self.s
        r = d.span(0.025, 0.07)
        skin = s.any(r * 3, ("strong",), picture=0, finish="satin")
        body = "sphere{0,%.4f scale<1,%.2f,1> translate y*%.4f %s}" % (r, d.span(0.8, 1.2), r * 0.95, skin)
        if d.chance(0.5):
            body += rod((0, r * 1.7, 0), (0.006, r * 2.2, 0), 0.002, s.plain((0.05, 0.03, 0.01)))
        return body, r * 2

    def books(self):
        d, y, body = self.d, 0, ""
        for _ in range(d.count(1, 5)):
            w, h = d.span(0.12, 0.22), d.span(0.01, 0.045)
            z = w * d.span(0.65, 0.8)
            body += "box{%s,%s rotate y*%.0f %s}" % (
                vec(-w / 2, y, -z / 2),
                vec(w / 2, y + h, z / 2),
                d.span(-20, 20),
                self.s.any(0.2, picture=0.4),
            )
            y += h
        return body, y

    def plate(self):
        d, s = self.d, self.s
        r = d.span(0.07, 0.16)
        body = (
            "difference{sphere{0,1 scale<%.3f,.03,%.3f> translate y*.03} box{<-1,.03,-1>,<1,1,1>}"
            " sphere{0,1 scale<%.3f,.028,%.3f> translate y*.036} %s}"
        ) % (r, r, r * 0.95, r * 0.95, s.any(0.1, ("pale", "any"), finish="gloss"))
        for _ in range(d.count(0, 7)):
            fruit, _height = self.fruit()
            body += "union{%s scale .6 translate %s}" % (
                fruit,
                vec(d.span(-0.6, 0.6) * r, 0.012, d.span(-0.6, 0.6) * r),
            )
        return body, 0.05

    def lumps(self):
        d = self.d
        parts = "".join(
            "sphere{%s,%.2f,%.1f}"
            % (vec(d.span(-0.3, 0.3), d.span(0.1, 1.2), d.span(-0.3, 0.3)), d.span(0.2, 0.5), d.span(0.6, 1.5))
            for _ in range(d.count(3, 10))
        )
        return "blob{threshold .4 %s %s}" % (parts, self.s.any(0.4, picture=0.25)), 1.3

    # the street

    def car(self):
        d, s = self.d, self.s
        paint, glass, tyre = (
            s.plain(d.colour(), "gloss"),
            s.plain((0.02, 0.02, 0.03), "gloss"),
            s.plain((0.01, 0.01, 0.01)),
        )
        length, h, cabin = d.span(3.6, 4.8), d.span(0.55, 0.85), d.span(0.5, 0.8)
        rounded = "superellipsoid{<%.2f,%.2f> scale %s translate %s %s}"
        body = rounded % (0.25, 0.25, vec(length / 2, h / 2, 0.85), vec(0, h / 2 + 0.25, 0), paint)
        body += rounded % (
            0.35,
            0.35,
            vec(length * 0.28, cabin / 2 + 0.05, 0.74),
            vec(0.15, h + 0.3 + cabin / 4, 0),
            paint,
        )
        body += rounded % (
            0.35,
            0.35,
            vec(length * 0.265, cabin / 2 - 0.05, 0.75),
            vec(0.15, h + 0.32 + cabin / 4, 0),
            glass,
        )
        for a in (-1, 1):
            for b in (-1, 1):
                body += rod((a * length * 0.31, 0.32, b * 0.7), (a * length * 0.31, 0.32, b * 0.87), 0.32, tyre)
                body += rod(
                    (a * length * 0.31, 0.32, b * 0.7),
                    (a * length * 0.31, 0.32, b * 0.88),
                    0.19,
                    s.plain((0.4, 0.4, 0.4), "metal"),
                )
                light = s.plain((0.9, 0.9, 0.7) if a > 0 else (0.6, 0.02, 0.02), "gloss")
                body += ball((a * length * 0.495, 0.6, b * 0.55), 0, light, (0.05, 0.08, 0.12))
        return body, h + cabin

    def bicycle(self):
        d, s = self.d, self.s
        paint, rubber, r = s.plain(d.colour(), "gloss"), s.plain((0.02, 0.02, 0.02)), 0.33
        body = ""
        for x in (-0.5, 0.5):
            body += "torus{%.2f,.02 rotate x*90 translate %s %s}" % (r, vec(x, r, 0), rubber)
            for i in range(8):
                body += rod(
                    (x, r, 0), (x + r * math.cos(i * math.pi / 4), r + r * math.sin(i * math.pi / 4), 0), 0.003, rubber
                )
        frame = [(-0.5, r), (-0.05, 0.3), (-0.18, 0.8), (0.35, 0.75), (0.5, r)]
        for a, b in ((0, 1), (1, 2), (0, 2), (2, 3), (1, 3), (3, 4)):
            body += rod((*frame[a], 0), (*frame[b], 0), 0.018, paint)
        body += ball((-0.2, 0.9, 0), 0, rubber, (0.14, 0.03, 0.07)) + rod(
            (0.33, 1, -0.28), (0.33, 1, 0.28), 0.015, rubber
        )
        body += rod((0.35, 0.75, 0), (0.33, 1, 0), 0.015, paint) + rod((-0.18, 0.8, 0), (-0.2, 0.9, 0), 0.015, paint)
        return body, 1.05

    def house(self):
        d, s = self.d, self.s
        w, z, h = d.span(5, 14), d.span(5, 12), d.pick(d.span(3, 6), d.span(6, 15), d.span(10, 40))
        body = block((-w / 2, -2, -z / 2), (w / 2, h, z / 2), s.windows() if d.chance(0.7) else s.any(2, picture=0.3))
        if h < 12 and d.chance(0.7):
            roof, rise = s.any(1, ("earth", "grey", "dark"), picture=0.1), d.span(1, 4)
            body += (
                "prism{linear_sweep linear_spline %.2f,%.2f,4,<%.2f,0>,<0,%.2f>,<%.2f,0>,<%.2f,0> "
                "rotate x*-90 translate y*%.2f %s}"
                % (
                    -z / 2 - 0.3,
                    z / 2 + 0.3,
                    -w / 2 - 0.4,
                    rise,
                    w / 2 + 0.4,
                    -w / 2 - 0.4,
                    h,
                    roof,
                )
            )
            h += rise
        return body, h

    def pole(self):
        d, s = self.d, self.s
        h, r = d.span(1, 7), d.span(0.03, 0.12)
        body = rod((0, 0, 0), (0, h, 0), r, s.any(0.3, ("grey", "dark", "earth")))
        if d.chance(0.5):
            body += ball((0, h, 0), r * d.span(1.5, 4), s.any(0.1, ("pale",)))
        elif d.chance(0.5):
            body += block((-0.4, h - 0.7, -0.06), (0.4, h, -0.02), s.any(0.3, ("strong",), picture=0.4))
        return body, h

    # choices

    def subject(self):
        return self.d.pick(
            self.person,
            self.person,
            self.person,
            self.animal,
            self.animal,
            self.bicycle,
            self.lumps,
            self.plant,
            self.box,
            self.chair,
            self.bust,
        )()

    def small(self):
        make = self.d.pick(
            self.vase,
            self.bottle,
            self.cup,
            self.cup,
            self.fruit,
            self.fruit,
            self.fruit,
            self.books,
            self.plate,
            self.plant,
            lambda: self.box((0.04, 0.22)),
            self.toy,
        )
        return make()

    def toy(self):
        body, height = self.d.pick(self.lumps, self.animal, self.person, self.car)()
        scale = 0.2 if height < 1.5 else 0.1
        return "union{%s scale %.2f}" % (body, scale), height * scale
