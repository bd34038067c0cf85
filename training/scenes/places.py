"""The kinds of scene: where the camera stands and what is around it. `WEIGHTS` says how often each is drawn."""

import math

from scenes import receding
from scenes.scene import HALF_LONG_SIDE, Scene
from scenes.surface import rgb
from scenes.things import ball, block, rod, vec

WEIGHTS = {
    "outdoor": 0.11,
    "landscape": 0.06,
    "street": 0.07,
    "facade": 0.06,
    "room": 0.08,
    "tabletop": 0.1,
    "close": 0.1,
    "wood": 0.04,
    "trunks": 0.04,
    "wall": 0.02,
    "obstacle": 0.04,
    "window": 0.02,
    "crowd": 0.04,
    "print": 0.02,
    "hall": 0.06,
    "tower": 0.04,
    "arcade": 0.03,
    "vehicles": 0.03,
    "herd": 0.03,
    "foliage": 0.03,
}
# metres at which the fog of the depth pass leaves 1/e: short where the scene is near
DENSITY = {
    "foliage": 12.0,
    "hall": 40.0,
    "close": 6.0,
    "tabletop": 6.0,
    "print": 6.0,
    "room": 25.0,
    "wall": 25.0,
    "window": 25.0,
}


def build(seed, folder, kind=None):
    scene = Scene(seed, folder)
    scene.kind = kind or scene.dice.weighted(WEIGHTS)
    KINDS[scene.kind](scene)
    scene.density = DENSITY.get(scene.kind, 80.0)
    return scene


def subject_in_view(s, focal, eye, make=None, share=None, off=0.55):
    """Puts a thing so that it takes about `share` of the height of the frame, and looks towards it."""
    d = s.dice
    body, high = (make or s.things.subject)()
    share = share or d.span(0.3, 1.0)
    half_height = HALF_LONG_SIDE / focal * (1 / s.aspect if s.aspect >= 1 else 1)
    z = max(0.35, high / (2 * half_height * share))
    x = d.span(-off, off) * half_height * s.aspect * z
    y = s.height(x, z)
    eye += s.height(0, 0)
    s.camera((0, eye, 0), (x * d.span(0, 1), y + high * d.span(0.3, 0.8), z), focal)
    s.put((body, high), x, z, turn=d.near(0, 50) if d.chance(0.75) else None)
    return x, z


def outdoor(s):
    d, t = s.dice, s.things
    s.sky()
    focal = d.log_span(22, 110)
    if d.chance(0.45):
        s.terrain(d.pick(60, 150, 300), d.span(0.5, 12), d.span(1.7, 2.4), near_edge=-15)
    else:
        s.flat_ground(d.log_span(0.5, 5))
    x, z = subject_in_view(s, focal, d.pick(d.span(1.2, 1.8), d.span(0.2, 1.2), d.span(1.5, 4)))
    clear = (x, z, max(0.4, z * 0.3))
    if d.chance(0.5):
        s.scatter(t.subject, d.count(0, 4), (z * 0.8, z * 6), avoid=clear)
    if d.chance(0.75):
        s.scatter(t.tree, d.count(2, 25), (max(7, z * 1.5), max(80, z * 6)))
    if d.chance(0.5):
        s.scatter(t.bush, d.count(2, 14), (max(2.5, z), max(30, z * 5)), avoid=clear)
    if d.chance(0.4):
        s.scatter(t.house, d.count(1, 7), (max(20, z * 2), 150))
    if d.chance(0.35):
        s.scatter(t.rock, d.count(2, 15), (max(1.5, z * 0.6), max(25, z * 4)), avoid=clear)
    if d.chance(0.4):
        s.grass(d.count(60, 400), (max(0.8, z * 0.3), max(12, z * 2.5)))
    if d.chance(0.3):
        q = z * d.span(1.2, 4)
        s.fence((-q * d.span(0.5, 2), q), (q * d.span(0.5, 2), q * d.span(0.8, 1.6)))
    if d.chance(0.2):
        q = z * d.span(2, 6)
        s.add(
            "box{<-200,-1,%.2f>,<200,%.2f,%.2f> rotate y*%.1f %s}"
            % (q, q * d.span(0.1, 0.6), q + 0.5, d.span(-20, 20), s.surfaces.any(2, picture=0.25))
        )
    if d.chance(0.3):
        s.mountains()
    s.blur_share = 0.35


def landscape(s):
    d, t = s.dice, s.things
    s.sky()
    size = d.pick(300, 600, 1000)
    rise = size * d.span(0.03, 0.28)
    s.terrain(size, rise, d.span(1.6, 2.4), near_edge=-size * 0.05, calm_in_front=d.chance(0.7))
    eye = s.height(0, 0) + d.pick(d.span(0.4, 2), d.span(2, 10), d.span(5, 60))
    away = d.span(0.15, 0.8) * size
    s.camera(
        (0, eye, 0), (0, s.height(0, away) * d.span(0.6, 1.1) + d.span(-0.05, 0.08) * away, away), d.log_span(18, 100)
    )
    if d.chance(0.35):
        level = min(rise * d.span(0.03, 0.35), eye - d.span(0.5, 2))
        water = s.surfaces.wrap(
            "pigment{%s}normal{bumps %.2f scale %s}finish{ambient .1 diffuse .25 specular .5 reflection{.1,.8}}"
            % (
                rgb((d.span(0, 0.1), d.span(0.05, 0.2), d.span(0.1, 0.3))),
                d.span(0.02, 0.2),
                vec(d.log_span(0.5, 5), 1, d.log_span(0.2, 2)),
            )
        )
        s.add("plane{y,%.2f %s}" % (level, water))
    if d.chance(0.7):
        s.scatter(t.tree, d.count(5, 60), (12, size * 0.5))
    if d.chance(0.3):
        s.scatter(t.house, d.count(1, 8), (25, size * 0.5))
    if d.chance(0.4):
        s.scatter(t.rock, d.count(3, 20), (2, 60))
    if d.chance(0.4):
        s.grass(d.count(100, 400), (1.0, 20))
    if d.chance(0.3):
        s.scatter(t.person, d.count(1, 3), (3, 30), 0.6)
    if d.chance(0.25):
        s.put(t.tree(), d.side() * d.span(0.5, 1) * s.half_width * 12, 12)
    if d.chance(0.5):
        s.mountains()


def rows_of_houses(s, width, far):
    d = s.dice
    for side in (-1, 1):
        if d.chance(0.12):
            continue
        z, shared = d.span(-8, 3), s.surfaces.windows() if d.chance(0.3) else None
        while z < far:
            deep, wide, high = d.span(4, 16), d.span(5, 12), d.pick(d.span(3, 7), d.span(6, 20), d.span(6, 14))
            front = width / 2 + d.span(0, 1.2)
            if d.chance(0.9):
                wall = shared or (s.surfaces.windows() if d.chance(0.6) else s.surfaces.any(2, picture=0.35))
                near, back = sorted((side * front, side * (front + wide)))
                s.add(block((near, -1, z), (back, high, z + deep), wall))
                if d.chance(0.4):
                    balconies(s, side * front, z, deep, high)
            if d.chance(0.3):
                near, back = sorted((side * (front - d.span(0.4, 1.2)), side * (front + 0.1)))
                s.add(
                    block(
                        (near, d.span(2.3, 3), z + deep * 0.2),
                        (back, 3.1, z + deep * 0.8),
                        s.surfaces.any(0.5, ("strong",)),
                    )
                )
            z += deep + (d.span(0, 5) if d.chance(0.25) else 0)
        if d.chance(0.5):
            near, back = sorted((side * (width / 2 - d.span(0.8, 2)), side * (width / 2 + 2)))
            s.add(block((near, -0.1, -5), (back, 0.14, 250), s.surfaces.any(1, ("grey",))))


def balconies(s, x, z, deep, high):
    d, surface = s.dice, s.surfaces.any(0.5, ("grey", "pale", "earth"))
    out = -math.copysign(d.span(0.5, 1.2), x)
    y = 2.8
    while y < high - 1.5:
        near, back = sorted((x + out, x + 0.1 * math.copysign(1, x)))
        s.add(block((near, y, z + deep * 0.15), (back, y + 0.12, z + deep * 0.8), surface))
        s.add(block((x + out - 0.02, y, z + deep * 0.15), (x + out + 0.02, y + 1, z + deep * 0.8), surface))
        y += 2.8


def street(s):
    d, t = s.dice, s.things
    s.sky()
    width = d.span(2.5, 14)
    s.flat_ground(d.log_span(0.5, 4))
    x, yaw = d.span(-0.5, 0.5) * width, math.radians(d.near(0, 12))
    eye = d.pick(d.span(1.3, 1.8), d.span(0.4, 3), d.span(3, 25))
    s.camera((x, eye, 0), (x + math.sin(yaw) * 20, eye + d.span(-2.4, 4), 20), d.log_span(18, 85))
    rows_of_houses(s, width, d.pick(60, 120, 250))
    for _ in range(d.count(0, 7)):
        s.put(t.car(), d.side() * width * d.span(0.15, 0.42), d.log_span(5, 80), turn=d.pick(90, -90) + d.span(-5, 5))
    for _ in range(d.count(0, 8)):
        s.put(d.pick(t.person, t.person, t.person, t.bicycle)(), d.span(-0.48, 0.48) * width, d.log_span(2.2, 50))
    for _ in range(d.count(0, 10)):
        s.put(t.pole(), d.side() * (width / 2 - d.span(0.3, 1)), d.log_span(3, 70))
    for _ in range(d.count(0, 8) if d.chance(0.5) else 0):
        s.put(t.tree(), d.side() * (width / 2 - d.span(0.2, 1)), d.log_span(5, 70), scale=0.7)
    if d.chance(0.3):
        z = d.span(25, 100)
        s.add(block((-40, 0, z), (40, d.span(5, 25), z + 5), s.surfaces.windows()))


def facade(s):
    """A tall front from the street, from below or across a square."""
    d, t = s.dice, s.things
    s.sky()
    s.flat_ground(d.log_span(0.5, 4))
    away, yaw = d.log_span(4, 40), d.pick(0, d.near(0, 25), d.side() * d.span(30, 70))
    eye, wide = d.span(1.2, 2), away * d.span(0.8, 2.5)
    up = d.pick(d.span(-0.05, 0.15), d.span(0.2, 0.6), d.span(0.6, 1.4))
    s.camera((0, eye, 0), (0, eye + up * 10, 10), d.log_span(16, 50))
    floors, high = d.count(2, 12), 0
    front = []
    wall = s.surfaces.windows() if d.chance(0.4) else s.surfaces.any(2, ("earth", "grey", "pale", "any"), picture=0.1)
    glass, frame = s.surfaces.plain(d.colour("dark"), "gloss"), s.surfaces.any(0.3, ("pale", "grey", "dark"))
    high = floors * 3.2
    front.append(block((-wide, -1, 0), (wide, high, 6), wall))
    step, deep = d.span(1.5, 4), d.span(0.05, 0.4)
    for floor in range(floors):
        x, y = -wide + step / 2, floor * 3.2 + 0.9
        while x < wide - step / 2:
            front.append(block((x - 0.5, y - 0.1, -deep), (x + 0.5, y + 1.7, 0), frame))
            front.append(block((x - 0.42, y, -deep - 0.02), (x + 0.42, y + 1.6, 0), glass))
            x += step
        if d.chance(0.4):
            front.append(block((-wide, y - 0.5, -d.span(0.1, 0.8)), (wide, y - 0.35, 0), frame))
    for _ in range(d.count(0, 4)):
        x = d.span(-wide, wide)
        front.append(rod((x, -1, -0.3), (x, high, -0.3), d.span(0.1, 0.5), frame))
    s.add("union{%s rotate y*%.1f translate z*%.2f}" % ("".join(front), yaw, away))
    if d.chance(0.5):
        x = d.side() * d.span(0.6, 1.2) * away * s.half_width + d.side() * 2
        s.add(
            "box{<-3,0,-3>,<3,%.1f,3> translate %s %s}"
            % (high * d.span(0.3, 1.3), vec(x, 0, away * d.span(0.3, 0.7)), s.surfaces.windows())
        )
    s.scatter(d.pick(t.person, t.pole, t.car, t.tree), d.count(0, 5), (away * 0.3, away * 0.9))
    if d.chance(0.3):
        s.add(
            rod(
                s.ray(-1.2, d.span(0, 1), away * 0.5),
                s.ray(1.2, d.span(0, 1), away * 0.6),
                0.01,
                s.surfaces.plain((0.02, 0.02, 0.02)),
            )
        )


def walls(s, half_width, deep, high):
    d = s.dice
    plaster = s.surfaces.any(1.2, ("pale", "pale", "grey", "any", "earth"), picture=0.12, finish="matt")
    floor = (
        s.surfaces.ground(d.span(0.4, 2))
        if d.chance(0.5)
        else s.surfaces.any(1, ("earth", "grey", "dark"), picture=0.1)
    )
    s.add(block((-half_width, -0.1, -6), (half_width, 0, deep + 0.1), floor))
    s.add(
        block(
            (-half_width, high, -6),
            (half_width, high + 0.1, deep + 0.1),
            s.surfaces.any(1, ("pale",), picture=0.03, finish="matt"),
        )
    )
    back = plaster if d.chance(0.7) else s.surfaces.any(1, picture=0.2)
    s.add(block((-half_width, 0, deep), (half_width, high, deep + 0.1), back))
    for side in (-1, 1):
        near, far = sorted((side * half_width, side * (half_width + 0.1)))
        s.add(
            block((near, 0, -6), (far, high, deep + 0.1), plaster if d.chance(0.85) else s.surfaces.any(1, picture=0.2))
        )
    s.add(block((-half_width, 0, -6.1), (half_width, high, -6), plaster))
    for _ in range(d.count(0, 6)):
        on_the_wall(s, half_width, deep, high)
    for _ in range(d.count(1, 2)):
        level = d.span(0.4, 0.9)
        at = vec(d.span(-0.7, 0.7) * half_width, high * d.span(0.75, 0.97), d.span(-1, deep * 0.8))
        s.light_text += "light_source{%s %s}" % (at, rgb((level, level * d.span(0.8, 1), level * d.span(0.55, 1))))
    s.light_text += "light_source{<%.2f,%.2f,-3> rgb %.2f shadowless}" % (d.span(-1, 1), high * 0.6, d.span(0.1, 0.4))
    s.ambient = d.span(0.5, 1.6)


def on_the_wall(s, half_width, deep, high):
    """A picture, a window or a door."""
    d = s.dice
    w, h = d.span(0.3, 1.4), d.span(0.3, 1.3)
    y = d.span(0.8, max(0.9, high - h - 0.1))
    if d.chance(0.2):
        w, h, y = 0.9, 2.1, 0
    face = s.surfaces.any(max(w, h), picture=0.6) if d.chance(0.7) else s.surfaces.glow((0.9, 0.95, 1), d.span(0.8, 2))
    frame, thick, rim = s.surfaces.plain(d.colour()), d.span(0.01, 0.05), 0.05
    wall = d.pick("back", "back", "left", "right")
    if wall == "back":
        x = d.span(-half_width + w / 2, half_width - w / 2)
        s.add(block((x - w / 2, y, deep - thick), (x + w / 2, y + h, deep), face))
        s.add(block((x - w / 2 - rim, y - rim, deep - thick * 0.7), (x + w / 2 + rim, y + h + rim, deep), frame))
    else:
        side, z = (-1 if wall == "left" else 1), d.span(0.5, max(1, deep - w))
        for grow, out, surface in ((0, thick, face), (rim, thick * 0.7, frame)):
            near, far = sorted((side * (half_width - out), side * half_width))
            s.add(block((near, y - grow, z - grow), (far, y + h + grow, z + w + grow), surface))


def furnish(s, half_width, deep, high):
    d, t = s.dice, s.things
    if d.chance(0.5):
        for _ in range(d.count(1, 5)):
            thing = d.pick(t.shelf, t.sofa, t.table, t.box)()
            if d.chance(0.5):
                s.put(thing, d.span(-0.8, 0.8) * half_width, deep - 0.45, turn=0)
            else:
                side = d.side()
                s.put(thing, side * (half_width - 0.45), d.span(0.8, deep), turn=90 * side)
    for _ in range(d.count(0, 7)):
        thing = d.pick(t.table, t.chair, t.chair, t.sofa, t.box, t.plant, t.bicycle, t.lamp)()
        s.put(thing, d.span(-0.8, 0.8) * half_width, d.span(1.3, deep * 0.9))
        if d.chance(0.3):
            laid_table(s, d.span(-0.5, 0.5) * half_width, d.span(1.3, deep * 0.8))
    for _ in range(d.count(0, 3)):
        z, x, drop = d.span(1.5, deep), d.span(-0.7, 0.7) * half_width, d.span(0.3, 1.0)
        s.add(rod((x, high, z), (x, high - drop, z), 0.01, s.surfaces.plain((0.05, 0.05, 0.05))))
        s.add(ball((x, high - drop, z), d.span(0.08, 0.25), s.surfaces.any(0.1, ("pale",))))


def laid_table(s, x, z):
    d, t = s.dice, s.things
    high = s.put(t.table(), x, z, turn=0)
    for _ in range(d.count(1, 6)):
        s.put(t.small(), x + d.span(-0.3, 0.3), z + d.span(-0.2, 0.2), y=high)


def room(s):
    d, t = s.dice, s.things
    half_width, deep, high = d.log_span(1.2, 6), d.log_span(2.2, 16), d.span(2.3, 3.6)
    walls(s, half_width, deep, high)
    eye = d.span(0.6, min(2.1, high - 0.2))
    target = (d.span(-0.6, 0.6) * half_width, eye + d.span(-0.5, 0.2) * min(deep, 4) * 0.6, deep)
    s.camera((d.span(-0.7, 0.7) * half_width, eye, d.span(-1.5, 0.5)), target, d.log_span(17, 60))
    furnish(s, half_width, deep, high)
    for _ in range(d.count(0, 3)):
        s.put(
            d.pick(t.person, t.person, t.animal)(),
            d.span(-0.7, 0.7) * half_width,
            d.span(1.2, deep * 0.85),
            turn=d.near(0, 60),
        )
    if d.chance(0.25):
        z = d.span(0.5, 1.2)
        s.put(d.pick(t.chair, t.plant, t.table, t.bust)(), d.span(-0.5, 0.5) * min(half_width, z), z)


def tabletop(s):
    d, t = s.dice, s.things
    deep = d.span(1.0, 5)
    if d.chance(0.7):
        walls(s, d.span(1.5, 4), deep, d.span(2.3, 3))
        s.camera((0, 1, 0), (0, 1, 1), 50)
    else:
        s.sky()
        s.flat_ground(1)
        s.camera((0, 1, 0), (0, 1, 1), 50)
        s.scatter(d.pick(t.tree, t.bush, t.house, t.person), d.count(3, 20), (3, 40))
    high, away = d.span(0.5, 0.8), d.span(0.25, 1.3)
    fills = d.chance(0.35)  # the table fills the frame: no edge, no room behind it
    pitch = math.radians(d.span(25, 75) if fills else d.pick(d.span(5, 25), d.span(20, 55), d.span(50, 86)))
    centre, half, back = d.span(0.2, 0.5), d.span(0.5, 2.5), d.span(0.3, 1.2)
    if fills:
        half, back = 6, 8
    wood = s.surfaces.any(0.5, ("earth", "pale", "dark", "grey", "any"), picture=0.3)
    s.add(block((-half, high - 0.04, centre - d.span(0.5, 1)), (half, high, centre + back), wood))
    yaw = d.near(0, 0.4)
    target = (d.span(-0.1, 0.1), high + d.span(0, 0.1), centre)
    eye = (
        target[0] - math.sin(yaw) * math.cos(pitch) * away,
        high + math.sin(pitch) * away + 0.03,
        target[2] - math.cos(yaw) * math.cos(pitch) * away,
    )
    s.camera(eye, target, d.log_span(26, 100))
    spread, wanted, spots = away * max(s.half_width, s.half_height) * 1.3, d.count(1, 16), []
    for _ in range(wanted * 3):
        x, z = target[0] + d.span(-1, 1) * spread, centre + d.span(-1, 1.6) * spread
        if abs(x) > half or z > centre + back - 0.03 or math.hypot(x - eye[0], z - eye[2]) < 0.12:
            continue
        if len(spots) < wanted and all(math.hypot(x - a, z - b) >= 0.13 for a, b in spots):
            spots.append((x, z))
            s.put(t.small(), x, z, y=high)
    if d.chance(0.3) and deep > 1.5:
        s.put(
            d.pick(t.person, t.chair, t.shelf)(),
            d.span(-0.8, 0.8),
            min(deep - 0.3, centre + back + d.span(0.3, 1.5)),
            turn=0,
        )
    s.blur_share = 0.4


def close(s):
    """A near subject before a backdrop that is often out of focus."""
    d = s.dice
    s.sky()
    focal = d.log_span(35, 135)
    kind = d.pick("bust", "bust", "bust", "flower", "flower", "insect", "animal", "animal", "bush")
    back = d.pick("outdoor", "picture", "picture", "wall", "leaves", "plain")
    high = {"bust": 1.5, "flower": 0.3, "insect": 0.0, "animal": 0.6, "bush": 0.6}[kind]
    z = (
        {
            "bust": d.span(0.5, 1.6),
            "flower": d.span(0.15, 0.6),
            "insect": d.span(0.06, 0.25),
            "animal": d.span(0.8, 2.0),
            "bush": d.span(0.6, 1.5),
        }[kind]
        * focal
        / 50
        * 1.2
    )
    lift = d.span(0.2, 1) if kind == "insect" else 0
    eye = lift + d.span(0.1, 0.7) * z if kind == "insect" else high + d.span(-0.2, 0.3) * z
    off = d.span(-0.5, 0.5) * 18 / focal * z
    s.camera(
        (0, eye, 0), (off * d.span(0, 1), high + lift + (d.span(-0.15, 0.05) * z if kind != "insect" else 0), z), focal
    )
    near_subject(s, kind, z, off, lift, high)
    backdrop(s, back, z)
    s.blur_share = 0.3 if back == "wall" else 0.7


def near_subject(s, kind, z, off, lift, high):
    d, t = s.dice, s.things
    if kind == "insect":
        if d.chance(0.5):
            s.add(
                "sphere{0,1 scale<.12,.004,.05> rotate %s translate %s %s}"
                % (
                    vec(d.span(-20, 20), d.span(0, 360), d.span(-20, 20)),
                    vec(off, lift - 0.004, z),
                    s.surfaces.any(0.05, ("leaf",), picture=0.1),
                )
            )
        else:
            s.add(
                rod(
                    (-0.5, lift - 0.3 * d.span(-1, 1), z),
                    (0.5, lift + 0.3 * d.span(-1, 1), z + d.span(-0.05, 0.2)),
                    d.span(0.003, 0.01),
                    s.surfaces.any(0.05, ("green", "earth")),
                )
            )
        s.put(t.insect(), off, z, y=lift, tilt=25)
    elif kind == "bust":
        s.put(t.bust(), off, z, turn=d.near(0, 35))
        if d.chance(0.25):
            s.put(t.bust(), off + d.span(0.4, 0.7) * d.side(), z + d.span(-0.1, 0.6), turn=d.near(0, 35))
    elif kind == "animal":
        body, tall = t.animal()
        s.put((body, tall), off, z, turn=d.near(0, 60), scale=0.75 / tall)
    elif kind == "bush":
        # a bushy plant that fills much of the frame: leaves before leaves
        for _ in range(d.count(2, 7)):
            s.put(t.bush(), off + d.span(-0.5, 0.5) * z, z * d.span(1, 1.8), scale=d.span(0.4, 0.8))
    else:
        for i in range(d.pick(1, 1, 2, 5, 12)):
            body, tall = t.flower()
            at = (off, z) if i == 0 else (off + d.span(-0.3, 0.3) * z, z * d.span(0.8, 2.5))
            s.put((body, tall), *at, y=high - tall + (d.span(-0.1, 0.05) if i else 0))


def backdrop(s, kind, z):
    d, t = s.dice, s.things
    away = z * d.log_span(1.5, 12)
    if kind == "wall":
        s.add(
            "plane{-z,0 rotate y*%.1f translate z*%.3f %s}"
            % (d.span(-35, 35), away + z * 0.5, s.surfaces.any(away * 0.5, picture=0.3))
        )
    elif kind == "picture" and s.backdrops:
        away = max(away, z * 3)
        w, h = (away * half * 3.2 + 0.2 for half in (s.half_width, s.half_height))
        picture = s.surfaces.wrap(
            'pigment{image_map{png "%s" interpolate 2} translate<-.5,-.5,0>}finish{ambient .95 diffuse 0}'
            % d.pick(*s.backdrops)
        )
        s.add(
            "polygon{5,<-.5,-.5>,<.5,-.5>,<.5,.5>,<-.5,.5>,<-.5,-.5> %s scale <%.3f,%.3f,1> translate %s}"
            % (picture, w, h, vec(*s.ray(0, 0, away)))
        )
        s.ambient = 1.0
    elif kind == "leaves":
        for _ in range(d.count(5, 40)):
            far = d.log_span(z * 1.3, z * 8)
            leaf = s.surfaces.any(0.3 * far, ("leaf",), picture=0)
            s.add(t.leaves(far * d.span(0.1, 0.4), 1, s.ray(d.span(-1.2, 1.2), d.span(-1.2, 1.2), far), leaf))
        if d.chance(0.6):
            s.add("plane{-z,%.2f %s}" % (-z * 9, s.surfaces.any(z, ("green",), picture=0.1)))
    elif kind == "outdoor":
        s.flat_ground(0.6, y=-0.02)
        s.scatter(d.pick(t.tree, t.bush, t.house, t.person, t.subject), d.count(2, 15), (z * 2.5 + 1, z * 12 + 10))
        s.grass(d.count(40, 250), (max(0.3, z * 0.9), z * 7))


def wall(s):
    """Seen square on: everything is nearly as far as everything else."""
    d, t = s.dice, s.things
    s.sky()
    s.ambient, away = 1, d.span(1.0, 10)
    s.camera((0, 1.5, 0), (0, 1.5 + d.span(-0.3, 0.3), away), d.log_span(24, 85))
    surface = s.surfaces.windows() if d.chance(0.3) else s.surfaces.any(away * 0.5, picture=0.35)
    s.add(
        "plane{-z,0 rotate y*%.1f translate z*%.2f %s}" % (d.pick(0, d.span(-10, 10), d.span(-60, 60)), away, surface)
    )
    s.flat_ground(0.8, y=d.pick(0, 0, -50))
    for _ in range(d.count(0, 5)):
        s.put(t.subject(), d.span(-1, 1) * s.half_width * away, away * d.span(0.4, 0.9), turn=d.near(0, 40))
    for _ in range(d.count(0, 6)):
        w, x, y = (
            d.span(0.05, 0.3) * away,
            d.span(-1, 1) * s.half_width * away,
            1.5 + d.span(-0.8, 0.8) * s.half_height * away,
        )
        s.add(
            block(
                (x, y, away - d.span(0.02, 0.4)),
                (x + w, y + w * d.span(0.4, 2), away + 0.1),
                s.surfaces.any(w, picture=0.4),
            )
        )


def wood(s):
    d, t = s.dice, s.things
    s.sky()
    if d.chance(0.6):
        s.terrain(d.pick(60, 120), d.span(1, 14), d.span(1.8, 2.4), near_edge=-8)
    else:
        s.flat_ground(d.log_span(0.5, 3))
    eye = s.height(0, 0) + d.span(0.3, 2.2)
    s.camera((0, eye, 0), (d.span(-2, 2), eye + d.span(-1.5, 2.5), 12), d.log_span(20, 70))
    s.scatter(d.pick(t.tree, t.trunk), d.count(10, 45), (2.5, 60), 1.2)
    s.scatter(t.bush, d.count(0, 25), (2, 30), 1.2)
    if d.chance(0.7):
        s.grass(d.count(100, 500), (0.8, 15))
    if d.chance(0.4):
        s.scatter(t.rock, d.count(1, 10), (2, 20))
    if d.chance(0.5):
        s.scatter(t.subject, d.count(1, 2), (2.5, 12), 0.6)
    if d.chance(0.4):
        twigs_in_front(s)


def twigs_in_front(s):
    d = s.dice
    for _ in range(d.count(1, 5)):
        near = d.log_span(0.5, 2)
        at = s.ray(d.side() * d.span(0.6, 1.1), d.span(-1, 1.1), near)
        s.add(s.things.leaves(near * d.span(0.15, 0.4), 1, at, s.surfaces.any(0.3 * near, ("leaf",), picture=0)))


def trunks(s):
    """Trunks and branches, near and far, often against the sky."""
    d, t = s.dice, s.things
    s.sky(d.pick("grey", "clear", "clouds", "sunset"))
    if d.chance(0.5):
        s.terrain(120, d.span(0.5, 6), 2.2, near_edge=-8)
    else:
        s.flat_ground(d.log_span(0.5, 3))
    eye = s.height(0, 0) + d.span(0.4, 1.8)
    s.camera((0, eye, 0), (d.span(-1, 1), eye + d.pick(d.span(-1, 1), d.span(2, 9)), 10), d.log_span(20, 60))
    s.scatter(t.trunk, d.count(6, 40), (1.6, 50), 1.2)
    s.scatter(lambda: t.tree("bare"), d.count(0, 10), (4, 50), 1.2)
    if d.chance(0.5):
        s.grass(d.count(60, 300), (0.8, 12))
    if d.chance(0.4):
        s.scatter(t.bush, d.count(2, 12), (4, 40))
    if d.chance(0.4):
        near = d.log_span(0.8, 2.5)
        start, end = s.ray(-1.3, d.span(-1, 1), near), s.ray(1.3, d.span(-1, 1), near * d.span(1, 1.5))
        s.add(
            "cone{%s,%.3f,%s,.01 %s}"
            % (vec(*start), d.span(0.01, 0.06), vec(*end), s.surfaces.any(0.2, ("bark",), picture=0))
        )


def obstacle(s):
    """Something thin or dull stands nearer than what the picture is about."""
    d, t = s.dice, s.things
    d.pick(outdoor, street, room)(s)
    near = d.log_span(0.5, 1.6)
    kind = d.pick("bars", "mesh", "ropes", "twigs", "shoulder", "post", "grass", "table")
    surface = s.surfaces.any(0.2, ("grey", "dark", "earth", "any"))
    if kind == "bars":
        step, r = d.span(0.12, 0.5), d.span(0.004, 0.03) * near
        x = -1.3
        while x < 1.3:
            s.add(rod(s.ray(x, -1.6, near), s.ray(x, 1.6, near), r, surface))
            x += step
        for y in (d.span(-0.9, -0.3), d.span(0.3, 0.9)):
            s.add(rod(s.ray(-1.5, y, near), s.ray(1.5, y, near), r * 1.5, surface))
    elif kind == "mesh":
        step, r = d.span(0.15, 0.4), 0.002 * near
        for i in range(-12, 13):
            s.add(rod(s.ray(i * step - 2, -2, near), s.ray(i * step + 2, 2, near), r, surface))
            s.add(rod(s.ray(i * step + 2, -2, near), s.ray(i * step - 2, 2, near), r, surface))
    elif kind == "ropes":
        for _ in range(d.count(1, 6)):
            a, b = s.ray(-1.3, d.span(-1, 1), near * d.span(1, 3)), s.ray(1.3, d.span(-1, 1), near * d.span(1, 3))
            s.add(rod(a, b, near * d.span(0.002, 0.012), surface))
    elif kind == "twigs":
        twigs_in_front(s)
    elif kind == "shoulder":
        at = s.ray(d.side() * d.span(0.6, 1), d.span(-1.2, -0.5), near)
        body, _ = t.bust()
        s.add("union{union{%s} translate y*-1.5 rotate y*%.0f translate %s}" % (body, 180 + d.near(0, 30), vec(*at)))
    elif kind == "post":
        x = d.span(-0.8, 0.8)
        s.add(rod(s.ray(x, -1.6, near), s.ray(x + d.near(0, 0.1), 1.6, near), near * d.span(0.02, 0.12), surface))
    elif kind == "grass":
        for _ in range(d.count(8, 40)):
            at = s.ray(d.span(-1.2, 1.2), -1.2, near * d.span(0.8, 2))
            s.add(
                "object{GRASS%d scale %.3f rotate y*%.0f translate %s %s}"
                % (
                    d.count(0, 2),
                    near * d.span(0.2, 0.8),
                    d.span(0, 360),
                    vec(*at),
                    s.surfaces.any(0.2, ("green", "earth"), picture=0),
                )
            )
    else:
        edge = s.ray(0, d.span(-0.9, -0.45), near)
        s.add(block((edge[0] - 3, edge[1] - 0.05, edge[2] - 3), (edge[0] + 3, edge[1], edge[2] + 0.1), surface))
        for _ in range(d.count(0, 4)):
            s.put(t.small(), edge[0] + d.span(-0.8, 0.8) * near * s.half_width, edge[2] - d.span(0.05, 0.3), y=edge[1])


def window(s):
    """The world outside, or a room, seen through a window whose frame is nearest."""
    d = s.dice
    d.pick(outdoor, street, landscape)(s)
    near, surface = d.log_span(0.4, 2), s.surfaces.any(0.3, ("pale", "dark", "earth", "grey"))
    r = near * d.span(0.01, 0.05)
    left, right, low, high = -d.span(0.5, 1.05), d.span(0.5, 1.05), -d.span(0.5, 1.05), d.span(0.5, 1.05)
    for x in (left, right, *[d.span(left, right) for _ in range(d.count(0, 2))]):
        s.add(rod(s.ray(x, -2, near), s.ray(x, 2, near), r, surface))
    for y in (low, high, *[d.span(low, high) for _ in range(d.count(0, 2))]):
        s.add(rod(s.ray(-2, y, near), s.ray(2, y, near), r, surface))
    plaster = s.surfaces.any(1, ("pale", "dark", "grey"), picture=0.05)
    for corners in (((-4, -4), (left, 4)), ((right, -4), (4, 4)), ((-4, -4), (4, low)), ((-4, high), (4, 4))):
        (x0, y0), (x1, y1) = corners
        p = [s.ray(x, y, near * 0.98) for x, y in ((x0, y0), (x1, y0), (x1, y1), (x0, y1), (x0, y0))]
        s.add("polygon{5,%s %s}" % (",".join(vec(*q) for q in p), plaster))


def crowd(s):
    d, t = s.dice, s.things
    if d.chance(0.4):
        half_width, deep = d.span(4, 9), d.span(8, 25)
        walls(s, half_width, deep, d.span(3, 7))
    else:
        s.sky()
        s.flat_ground(d.log_span(0.5, 4))
        deep = 60
    eye = d.pick(d.span(1.4, 1.8), d.span(1.8, 4))
    s.camera((0, eye, 0), (d.span(-1, 1), eye + d.span(-1.2, 0.4), 8), d.log_span(20, 70))
    if deep == 60 and d.chance(0.6):
        rows_of_houses(s, d.span(10, 24), 80)
    s.scatter(t.person, d.count(12, 40), (1.3, min(deep * 0.9, 35)), 1.0)
    if d.chance(0.4):
        s.scatter(d.pick(t.table, t.box, t.pole, t.animal), d.count(2, 8), (2, deep * 0.8))


def print_(s):
    """A page, a poster, a carpet or a wall with pictures of places: flat, whatever it shows."""
    d = s.dice
    s.sky("grey")
    s.ambient, away = 1.0, d.span(0.4, 3)
    s.camera((0, 1.5, 0), (d.span(-0.1, 0.1), 1.5 + d.span(-0.3, 0.3) * away, away), d.log_span(28, 85))
    turn = vec(d.near(0, 12), d.pick(0, d.near(0, 25)), d.near(0, 6))
    parts = ["plane{-z,0 %s}" % s.surfaces.any(away * 0.3, picture=0.2)]
    for _ in range(d.count(1, 5)):
        w = away * d.span(0.2, 1.0) * s.half_width * 2
        picture = str(d.pick(*(s.backdrops or s.surfaces.pictures)))
        face = s.surfaces.wrap(
            'pigment{image_map{png "%s" interpolate 2} translate<-.5,-.5,0>}finish{ambient .3 diffuse .7}' % picture
        )
        sheet = "box{<-.5,-.5,-.5>,<.5,.5,.5> %s scale <%.3f,%.3f,.004> translate <%.3f,%.3f,%.4f>}" % (
            face,
            w,
            w * d.span(0.5, 1.3),
            d.span(-0.8, 0.8) * away * s.half_width,
            d.span(-0.8, 0.8) * away * s.half_height,
            -d.span(0.001, 0.02),
        )
        parts.append(sheet)
    s.add("union{%s rotate %s translate %s}" % ("".join(parts), turn, vec(*s.ray(0, 0, away))))
    s.blur_share = 0.1


HERE = (outdoor, landscape, street, facade, room, tabletop, close, wood, trunks, wall, obstacle, window, crowd)
RECEDING = (receding.hall, receding.tower, receding.arcade, receding.vehicles, receding.herd, receding.foliage)
KINDS = {make.__name__: make for make in HERE + RECEDING} | {"print": print_}
