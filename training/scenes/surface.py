"""What things look like: pigments, normals and finishes as POV-Ray text between the SURFACE marks."""

OPEN, CLOSE = "«", "»"

PATTERNS = (
    "bozo",
    "granite",
    "marble turbulence .6",
    "wrinkles",
    "crackle",
    "agate",
    "leopard",
    "bumps",
    "spotted",
    "wood turbulence .1",
    "bozo turbulence 1",
    "gradient x",
    "gradient y",
    "dents",
)


def rgb(colour):
    return "rgb<%.3f,%.3f,%.3f>" % tuple(colour)


class Surfaces:
    """Draws surfaces; `pictures` are the texture files it may put on things."""

    def __init__(self, dice, pictures):
        self.dice = dice
        self.pictures = pictures

    def finish(self, kind=None):
        d = self.dice
        kind = kind or d.pick("matt", "matt", "satin", "gloss")
        if kind == "matt":
            return "finish{ambient .25 diffuse .75}"
        if kind == "satin":
            return "finish{ambient .22 diffuse .7 specular %.2f roughness %.3f}" % (d.span(0.1, 0.4), d.span(0.02, 0.1))
        if kind == "gloss":
            return "finish{ambient .2 diffuse .65 specular .8 roughness .004 reflection %.2f}" % d.span(0.02, 0.18)
        return "finish{ambient .15 diffuse .4 specular .8 roughness .01 metallic reflection %.2f}" % d.span(0.15, 0.5)

    def colour_map(self, base, kinds, steps):
        d = self.dice
        entries = []
        for i in range(steps):
            colour = d.shade(base, 0.6) if d.chance(0.75) else d.colour(*kinds)
            entries.append("[%.2f %s]" % (i / (steps - 1), rgb(colour)))
        return "color_map{%s}" % "".join(entries)

    def pigment(self, scale=1.0, kinds=(), base=None, picture=0.15):
        d = self.dice
        base = base or d.colour(*kinds)
        if d.chance(0.28):
            return "pigment{%s}" % rgb(base)
        if self.pictures and d.chance(picture):
            turn = d.pick("", "", "rotate x*90", "rotate y*90")
            return self.image(scale * d.log_span(0.3, 1.5), turn)
        if d.chance(0.12):
            return self.tiles(scale * d.log_span(0.02, 0.15), base, kinds)
        colours = self.colour_map(base, kinds, d.count(2, 5))
        return "pigment{%s %s scale %.4f}" % (d.pick(*PATTERNS), colours, scale * d.log_span(0.03, 0.6))

    def tiles(self, scale, base, kinds):
        d = self.dice
        pattern = d.pick("brick", "checker", "hexagon")
        colours = [rgb(d.shade(base, 0.5) if d.chance(0.6) else d.colour(*kinds)) for _ in range(3)]
        if pattern == "brick":
            return "pigment{brick %s %s scale %.4f}" % (colours[0], colours[1], scale * 0.12)
        return "pigment{%s %s scale %.4f}" % (pattern, " ".join(colours[: 3 if pattern == "hexagon" else 2]), scale)

    def image(self, scale, turn=""):
        picture = self.dice.pick(*self.pictures)
        return 'pigment{image_map{png "%s" interpolate 2} scale %.4f %s}' % (picture, scale, turn)

    def roughness(self, scale=1.0):
        d = self.dice
        if d.chance(0.5):
            return ""
        pattern = d.pick("bumps", "granite", "wrinkles", "dents", "crackle")
        return "normal{%s %.2f scale %.4f}" % (pattern, d.span(0.1, 0.7), scale * d.log_span(0.01, 0.2))

    def any(self, scale=1.0, kinds=(), base=None, picture=0.15, finish=None):
        pigment = self.pigment(scale, kinds, base, picture)
        return self.wrap("%s %s %s" % (pigment, self.roughness(scale), self.finish(finish)))

    def plain(self, colour, finish="matt"):
        return self.wrap("pigment{%s}%s" % (rgb(colour), self.finish(finish)))

    def glow(self, colour, level):
        return self.wrap("pigment{%s}finish{ambient %.2f diffuse .2}" % (rgb(colour), level))

    def ground(self, scale=2.0):
        d = self.dice
        kind = d.pick("green", "green", "earth", "grey", "any", "pale")
        if self.pictures and d.chance(0.3):
            pigment = self.image(scale * d.span(0.5, 3), "rotate x*90 warp{turbulence .05}")
            return self.wrap("%s %s finish{ambient .25 diffuse .75}" % (pigment, self.roughness(scale)))
        if d.chance(0.4):
            parts = [self.pigment(scale * s, (kind,), picture=0)[len("pigment{") : -1] for s in (0.4, 0.5)]
            pigment = "pigment{bozo turbulence .5 pigment_map{[.3 %s][.7 %s]} scale %.2f}" % (*parts, scale)
            return self.wrap("%s %s finish{ambient .25 diffuse .75}" % (pigment, self.roughness(scale)))
        return self.any(scale, (kind,), picture=0, finish="matt")

    def windows(self):
        """A wall with rows of windows; the diagonal gradient shows them on every upright face."""
        d = self.dice
        wall = rgb(d.colour("earth", "grey", "pale", "any"))
        pane = rgb(d.colour("dark", "dark", "grey"))
        share = d.span(0.3, 0.6)
        row = "gradient <1,0,1> color_map{[0 %s][%.2f %s][%.2f %s][1 %s]} scale %.2f" % (
            wall,
            share,
            wall,
            share,
            pane,
            pane,
            d.span(1.2, 3.5),
        )
        pigment = "pigment{gradient y pigment_map{[0 %s][.35 %s][.35 %s][1 %s]} scale %.2f}" % (
            wall,
            wall,
            row,
            row,
            d.span(2.4, 3.6),
        )
        return self.wrap("%s %s finish{ambient .25 diffuse .7}" % (pigment, self.roughness(1)))

    @staticmethod
    def wrap(text):
        return "%stexture{%s}%s" % (OPEN, text, CLOSE)
