"""Kinds of scene in which depth runs on: halls, arcades, towers, rows of vehicles, herds, leaves before leaves."""

import math

from scenes.surface import rgb
from scenes.things import ball, block, rod, vec

FAR = 120


def looking(s, eye, yaw, pitch, focal):
    """Yaw to the right and pitch upwards, in degrees."""
    yaw, pitch = math.radians(yaw), math.radians(pitch)
    x, y, z = eye
    ahead = (math.sin(yaw) * math.cos(pitch), math.sin(pitch), math.cos(yaw) * math.cos(pitch))
    s.camera(eye, (x + 10 * ahead[0], y + 10 * ahead[1], z + 10 * ahead[2]), focal)


# inside


def hall(s):
    """A long room seen along or across: columns, beams, a vault, lamps and benches one behind the other."""
    d, t = s.dice, s.things
    half, high, deep = d.log_span(0.9, 9), d.log_span(2.4, 14), d.log_span(8, 60)
    stone = s.surfaces.any(1.5, ("pale", "grey", "earth"), picture=0.1, finish="matt")
    trim = s.surfaces.any(0.5, ("pale", "grey", "earth", "dark"), picture=0.05)
    floor = s.surfaces.ground(d.span(0.4, 2)) if d.chance(0.5) else s.surfaces.any(1, ("earth", "grey", "dark"))
    step, first = d.span(0.25, 0.7) * max(half, 2.5), d.span(-3, 1)
    s.add(block((-half - 3, -0.1, -6), (half + 3, 0, deep), floor))
    s.add(block((-half - 3, 0, deep), (half + 3, high * 1.6, deep + 0.2), stone))
    s.add(block((-half - 3, 0, -6.2), (half + 3, high * 1.6, -6), stone))
    aisle = half > 3 and d.chance(0.5)
    for side in (-1, 1):
        near, far = sorted((side * (half + (3 if aisle else 0)), side * (half + 3.2)))
        s.add(block((near, 0, -6), (far, high * 1.2, deep), stone))
        spots = [first + i * step for i in range(int((deep - first) / step))]
        if half > 1.6 and d.chance(0.75):
            columns(s, spots, side * half, high, trim)
        elif d.chance(0.8):
            doors(s, spots, side * half, high)
    ceiling(s, half, high, deep, first, step, stone, trim)
    if d.chance(0.5):
        z = first
        drop = d.span(0.15, 0.5) * high
        while z < deep and drop:
            for x in (0,) if half < 2.5 else (-half * 0.5, half * 0.5):
                s.add(rod((x, high, z), (x, high - drop, z), 0.012, trim))
                s.add(ball((x, high - drop, z), d.span(0.1, 0.3), s.surfaces.glow((1, 0.95, 0.8), d.span(0.7, 1.6))))
            z += step * 2
    if half > 2 and d.chance(0.5):
        rows(s, half, deep)
    for _ in range(d.count(0, 5)):
        s.put(t.person(), d.span(-0.8, 0.8) * half, d.log_span(2, deep * 0.8))
    for z in (d.span(0, deep * 0.3), d.span(deep * 0.4, deep * 0.9)):
        level = d.span(0.4, 0.9)
        at = vec(d.span(-0.6, 0.6) * half, high * d.span(0.6, 0.9), z)
        s.light_text += "light_source{%s %s}" % (at, rgb((level, level * d.span(0.8, 1), level * d.span(0.6, 1))))
    s.ambient = d.span(0.6, 1.6)
    yaw = d.pick(d.near(0, 6), d.near(0, 25), d.side() * d.span(30, 80))
    pitch = d.pick(d.near(0, 5), d.span(5, 25), d.span(20, 60), -d.span(5, 30))
    looking(s, (d.span(-0.7, 0.7) * half, d.span(1, min(2.2, high - 0.3)), 0), yaw, pitch, d.log_span(15, 50))


def columns(s, spots, x, high, surface):
    d = s.dice
    r, square, arch = d.span(0.08, 0.5), d.chance(0.4), d.chance(0.5)
    for z in spots:
        if square:
            s.add(block((x - r, 0, z - r), (x + r, high, z + r), surface))
        else:
            s.add("cone{<%.3f,0,%.3f>,%.3f,<%.3f,%.3f,%.3f>,%.3f %s}" % (x, z, r, x, high, z, r * 0.85, surface))
        for y in (0.15, high - 0.25):
            s.add(block((x - r * 1.3, y - 0.15, z - r * 1.3), (x + r * 1.3, y + 0.15, z + r * 1.3), surface))
    if arch and len(spots) > 1:
        arches(s, spots, x, high, min(r, 0.3), surface)


def arches(s, spots, x, high, thick, surface):
    """A wall over the columns with a round opening between every two."""
    step = spots[1] - spots[0]
    spring, radius = high - step / 2, step / 2 * 0.92
    wall = block((x - thick, spring, spots[0] - step), (x + thick, high + 0.6, spots[-1] + step), "")
    holes = "".join(
        "cylinder{<%.3f,%.3f,%.3f>,<%.3f,%.3f,%.3f>,%.3f}"
        % (x - 2 * thick, spring, z + step / 2, x + 2 * thick, spring, z + step / 2, radius)
        for z in [spots[0] - step, *spots]
    )
    s.add("difference{%s union{%s} %s}" % (wall, holes, surface))


def doors(s, spots, x, high):
    d = s.dice
    leaf, frame = s.surfaces.any(0.8), s.surfaces.any(0.3, ("pale", "dark", "grey"))
    bottom, top, wide = d.pick((0, 2.1), (0.9, 2.2), (high * 0.4, high * 0.85)), 0, d.span(0.3, 0.6)
    bottom, top = bottom
    face = leaf if d.chance(0.6) else s.surfaces.glow((0.9, 0.95, 1), d.span(0.6, 1.8))
    top = min(top, high - 0.1)
    for z in spots:
        for grow, out, surface in ((0, 0.03, face), (0.08, 0.06, frame)):
            near, far = sorted((x - out * (1 if grow else 1.2), x + out))
            s.add(block((near, bottom - grow, z - wide - grow), (far, top + grow, z + wide + grow), surface))


def ceiling(s, half, high, deep, first, step, stone, trim):
    d = s.dice
    kind = d.pick("flat", "beams", "beams", "vault", "gable")
    if kind == "vault":
        s.add(
            "difference{box{<%.2f,%.2f,-6>,<%.2f,%.2f,%.2f>} cylinder{<0,%.2f,-7>,<0,%.2f,%.2f>,%.2f} %s}"
            % (-half - 3, high, half + 3, high + half + 0.5, deep, high, high, deep + 1, half, stone)
        )
        z = first
        while z < deep:
            s.add(
                "difference{cylinder{<0,%.2f,%.2f>,<0,%.2f,%.2f>,%.2f} cylinder{<0,%.2f,%.2f>,<0,%.2f,%.2f>,%.2f} %s}"
                % (high, z, high, z + 0.3, half * 1.01, high, z - 1, high, z + 1, half * 0.93, trim)
            )
            z += step
        return
    if kind == "gable":
        rise = half * d.span(0.4, 1.1)
        for side in (-1, 1):
            corners = ((-half - 0.5) * side, high), (0, high + rise)
            (x0, y0), (x1, y1) = corners
            points = [(x0, y0, -6), (x1, y1, -6), (x1, y1, deep), (x0, y0, deep), (x0, y0, -6)]
            s.add("polygon{5,%s %s}" % (",".join(vec(*p) for p in points), stone))
        z = first
        while z < deep:
            for a, b in (
                ((-half, high), (0, high + rise)),
                ((half, high), (0, high + rise)),
                ((-half, high), (half, high)),
            ):
                s.add(rod((*a, z), (*b, z), d.span(0.06, 0.12), trim))
            z += step
        return
    s.add(block((-half - 3, high, -6), (half + 3, high + 0.2, deep), stone))
    if kind == "beams":
        size, z = d.span(0.08, 0.35), first
        while z < deep:
            s.add(block((-half - 3, high - size, z - size / 2), (half + 3, high, z + size / 2), trim))
            z += step * d.pick(0.5, 1)
        if d.chance(0.4):
            for i in range(-3, 4):
                x = half * i / 3
                s.add(block((x - size / 2, high - size * 0.7, -6), (x + size / 2, high, deep), trim))


def rows(s, half, deep):
    """Benches or desks one behind the other, with a way between them."""
    d, t = s.dice, s.things
    seat, step = d.pick(t.sofa, t.table, t.chair)(), d.span(0.9, 1.8)
    z = d.span(0.8, 3)
    while z < deep * 0.8:
        for side in (-1, 1):
            s.put(seat, side * half * 0.5, z, turn=0)
            if seat[1] > 0.92:
                s.put(seat, side * half * 0.75, z, turn=0)
        z += step


# outside


def tower(s):
    """Tall buildings from below or along their fronts, at every angle."""
    d, t = s.dice, s.things
    s.sky()
    s.flat_ground(d.log_span(0.5, 4))
    for i in range(d.count(1, 6)):
        away = d.log_span(4, 25) if i == 0 else d.log_span(8, 90)
        wide, deep, high = d.span(3, 14), d.span(4, 25), d.log_span(8, 60)
        x = d.span(-1.2, 1.2) * away + d.side() * wide if i else d.span(-0.5, 0.5) * away
        s.add(
            "union{%s rotate y*%.1f translate %s}"
            % (storeys(s, wide, deep, high), d.span(-80, 80), vec(x, 0, away + wide / 2))
        )
    looking(
        s,
        (0, d.span(0.5, 2), 0),
        d.near(0, 10),
        d.pick(d.span(0, 15), d.span(10, 35), d.span(30, 65)),
        d.log_span(15, 50),
    )
    if d.chance(0.5):
        s.scatter(d.pick(t.tree, t.pole, t.trunk), d.count(1, 6), (3, 30))
    if d.chance(0.4):
        s.scatter(d.pick(t.person, t.car), d.count(1, 6), (3, 30))


def storeys(s, wide, deep, high):
    """A building with its near front at z = 0: windows in relief on two sides, ledges, and what it ends in."""
    d = s.dice
    wall = s.surfaces.any(2, ("earth", "grey", "pale", "any"), picture=0.1)
    glass, frame = s.surfaces.plain(d.colour("dark", "grey"), "gloss"), s.surfaces.any(0.3, ("pale", "grey", "dark"))
    parts = [block((-wide / 2, -1, 0), (wide / 2, high, deep), wall)]
    floor, step, size = d.span(2.6, 4), d.span(1.4, 3.5), d.span(0.3, 0.65)
    y, out = 1.0, d.span(0.03, 0.4)
    columns_wide, columns_deep = int(wide / step), int(deep / step)
    while y < high - 1.5 and len(parts) < 500:
        for i in range(columns_wide):
            x = (i + 0.5 - columns_wide / 2) * step
            parts.append(block((x - size, y, -out * 0.5), (x + size, y + floor * 0.55, 0.01), glass))
            parts.append(block((x - size - 0.1, y - 0.12, -out), (x + size + 0.1, y, 0.01), frame))
        for i in range(columns_deep):
            z = (i + 0.5) * step
            for side in (-1, 1):
                near, far = sorted((side * (wide / 2 - 0.01), side * (wide / 2 + out * 0.5)))
                parts.append(block((near, y, z - size), (far, y + floor * 0.55, z + size), glass))
        if d.chance(0.3):
            edge = out * d.span(1, 3)
            low, top = (-wide / 2 - edge, y - 0.5, -edge), (wide / 2 + edge, y - 0.3, deep + edge)
            parts.append(block(low, top, frame))
        y += floor
    end, roof = (
        d.pick("flat", "flat", "spire", "dome", "smaller"),
        s.surfaces.any(1, ("earth", "grey", "dark", "green")),
    )
    middle = "translate <0,%.2f,%.2f>" % (high, deep / 2)
    if end == "spire":
        parts.append("cone{0,%.2f,<0,%.2f,0>,.05 %s %s}" % (wide * 0.5, d.span(0.4, 1.2) * high * 0.6, middle, roof))
    elif end == "dome":
        parts.append("sphere{0,%.2f scale<1,%.2f,1> %s %s}" % (min(wide, deep) * 0.45, d.span(0.8, 1.4), middle, roof))
    elif end == "smaller":
        parts.append(block((-wide / 4, high, deep / 4), (wide / 4, high * d.span(1.1, 1.5), deep * 0.75), wall))
    return "".join(parts)


def arcade(s):
    """Along a wall, a colonnade or a fence that begins beside the camera."""
    d, t = s.dice, s.things
    s.sky()
    s.flat_ground(d.log_span(0.4, 3))
    x, side = d.log_span(0.5, 4), d.side()
    high, step = d.span(2.2, 8), d.span(1.2, 4)
    stone = s.surfaces.any(1.5, ("pale", "grey", "earth", "any"), picture=0.2, finish="matt")
    trim = s.surfaces.any(0.5, ("pale", "grey", "earth", "dark"))
    spots = [-3 + i * step for i in range(int(FAR / step))]
    kind = d.pick("columns", "wall", "wall", "houses", "hedge")
    if kind == "columns":
        columns(s, spots[:40], side * x, high, trim)
        near, far = sorted((side * (x - 0.3), side * (x + 4)))
        s.add(block((near, high, -6), (far, high + 0.5, FAR), stone))
        near, far = sorted((side * (x + 3), side * (x + 4)))
        s.add(block((near, -1, -6), (far, high, FAR), stone))
    elif kind == "hedge":
        leaf = s.surfaces.any(0.3, ("leaf",), picture=0)
        for z in spots[:50]:
            s.add(t.leaves(d.span(0.7, 1.1) * high * 0.3, 1, (side * (x + high * 0.3), high * 0.25, z), leaf))
    else:
        wide = d.span(5, 12)
        front = s.surfaces.windows() if kind == "houses" else stone
        near, far = sorted((side * x, side * (x + wide)))
        s.add(block((near, -1, -6), (far, high, FAR * d.span(0.2, 1)), front))
        if d.chance(0.6):
            doors(s, spots[:40], side * x, high)
        if d.chance(0.4):
            for z in spots[:40:2]:
                s.add(rod((side * (x - 0.3), 0, z), (side * (x - 0.3), high * 0.9, z), 0.06, trim))
    looking(
        s, (0, d.span(0.4, 2.2), 0), side * d.span(-15, 60), d.pick(0, d.near(0, 6), d.span(5, 30)), d.log_span(16, 60)
    )
    if d.chance(0.4):
        s.scatter(d.pick(t.person, t.bicycle, t.tree, t.pole, t.house), d.count(1, 8), (2.5, 50))


def vehicles(s):
    """Cars, bicycles, coaches: one that fills the frame, or rows of them."""
    d, t = s.dice, s.things
    s.sky()
    s.flat_ground(d.log_span(0.4, 3))
    eye = d.pick(d.span(1.2, 1.8), d.span(0.3, 1), d.span(2, 6))
    focal = d.log_span(18, 70)
    if d.chance(0.5):
        turn, near, gap = d.pick(0, 90, d.span(0, 180)), d.span(2.5, 7), d.span(2.4, 6)
        for i in range(d.count(3, 14)):
            s.put(
                d.pick(t.car, t.car, t.car, t.bicycle)(),
                d.near(0, 0.15) + d.side() * d.pick(0, 2.6),
                near + i * gap,
                turn=turn,
            )
    else:
        s.put(d.pick(t.car, t.bicycle)(), d.span(-0.5, 0.5), d.span(3, 7), turn=d.span(0, 360))
    if d.chance(0.4):
        coach(s, d.side() * d.span(2.5, 5), d.span(1, 6))
    looking(s, (0, eye, 0), d.near(0, 12), d.near(-math.degrees(math.atan2(eye - 0.8, 6)), 4), focal)
    if d.chance(0.5):
        s.scatter(d.pick(t.person, t.pole), d.count(1, 5), (2, 20))
    if d.chance(0.6):
        s.scatter(d.pick(t.house, t.tree), d.count(2, 12), (12, 90))


def coach(s, x, z):
    """A long coach or a train of them, running away from the camera."""
    d = s.dice
    paint, glass = (
        s.surfaces.any(1, ("strong", "pale", "dark"), picture=0.05, finish="gloss"),
        s.surfaces.plain((0.02, 0.02, 0.03), "gloss"),
    )
    wheel, high = s.surfaces.plain((0.02, 0.02, 0.02)), d.span(2.6, 4)
    for _ in range(d.pick(1, 1, 3, 5)):
        long = d.span(7, 18)
        s.add(block((x - 1.25, 0.5, z), (x + 1.25, high, z + long), paint))
        windows = int(long / d.span(1, 2))
        for i in range(windows):
            at = z + (i + 0.2) * long / windows
            s.add(block((x - 1.27, high * 0.55, at), (x + 1.27, high * 0.85, at + long / windows * 0.6), glass))
        s.add(block((x - 1.0, high * 0.55, z - 0.02), (x + 1.0, high * 0.85, z), glass))
        for at in (z + long * 0.2, z + long * 0.8):
            s.add(rod((x - 1.2, 0.45, at), (x + 1.2, 0.45, at), 0.45, wheel))
        z += long + 0.8


def herd(s):
    """Animals or people of one look, near and far."""
    d, t = s.dice, s.things
    s.sky()
    if d.chance(0.5):
        s.terrain(d.pick(60, 150), d.span(0.5, 10), d.span(1.8, 2.4), near_edge=-10)
    else:
        s.flat_ground(d.log_span(0.4, 4))
    eye = s.height(0, 0) + d.pick(d.span(0.3, 1), d.span(1, 2), d.span(2, 6))
    near = d.log_span(1.2, 6)
    s.camera((0, eye, 0), (d.span(-0.5, 0.5), s.height(0, near * 2) + d.span(0.2, 0.9), near * 2), d.log_span(24, 135))
    one = d.pick(t.animal, t.animal, t.animal, t.person)()
    for _ in range(d.count(2, 9)):
        thing = one if d.chance(0.7) else t.animal()
        away = near * d.log_span(1, 12)
        x = d.span(-0.9, 0.9) * s.half_width * away
        s.put(thing, x, away, scale=d.span(0.8, 1.2))
    if d.chance(0.6):
        s.grass(d.count(60, 350), (near * 0.6, near * 8))
    if d.chance(0.5):
        s.scatter(d.pick(t.tree, t.bush, t.rock), d.count(2, 20), (near * 3, 90))
    if d.chance(0.3):
        q = near * d.span(0.8, 5)
        s.fence((-q * 2, q), (q * 2, q * d.span(0.8, 2)))
    s.blur_share = 0.5


def foliage(s):
    """Leaves and stems that fill the frame, near and far, without a horizon."""
    d, t = s.dice, s.things
    s.sky(d.pick("grey", "clear"))
    near, reach = d.log_span(0.25, 3), d.log_span(2, 12)
    s.camera((0, 1.2, 0), (0, 1.2 + d.span(-1.2, 0.6), 1.5), d.log_span(24, 90))
    kinds = [s.surfaces.any(0.3 * near, ("leaf", "green"), picture=0) for _ in range(d.count(1, 4))]
    for _ in range(d.count(25, 90)):
        away = near * d.log_span(1, reach)
        at = s.ray(d.span(-1.2, 1.2), d.span(-1.2, 1.2), away)
        size = near * d.log_span(0.15, 0.6) * (away / near) ** 0.5
        if d.chance(0.7):
            s.add(t.leaves(size, d.span(0.5, 1), at, d.pick(*kinds)))
        else:
            name = d.pick("FAN%d" % d.count(0, 2), "GRASS%d" % d.count(0, 2))
            turn = vec(d.span(-50, 50), d.span(0, 360), d.span(-50, 50))
            s.add("object{%s scale %.3f rotate %s translate %s %s}" % (name, size * 2, turn, vec(*at), d.pick(*kinds)))
    for _ in range(d.count(0, 8)):
        away = near * d.log_span(1, reach)
        a, b = s.ray(d.span(-1.3, 1.3), -1.3, away), s.ray(d.span(-1.3, 1.3), 1.3, away * d.span(0.8, 1.5))
        s.add(rod(a, b, away * d.span(0.004, 0.03), s.surfaces.any(0.2, ("bark", "green"), picture=0)))
    for _ in range(d.count(0, 6)):
        body, tall = t.flower()
        away = near * d.log_span(1, 3)
        x, y, z = s.ray(d.span(-1, 1), d.span(-0.6, 0.9), away)
        s.put((body, tall), x, z, y=y - tall * near, scale=near)
    wall = s.surfaces.any(near * 3, ("green", "dark", "earth"), picture=0.1, finish="matt")
    s.add("plane{-z,0 rotate x*%.0f translate z*%.2f %s}" % (d.span(-40, 40), near * reach * 1.3, wall))
    s.blur_share = 0.5
