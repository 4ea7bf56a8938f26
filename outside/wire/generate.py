"""Routes and assignments of the wiring, found outside the project.

`routes`: cable ways that cross each other, cut by shapely; the shortest way between a camera and the recorder along them by networkx
(Dijkstra). Everything else is made so dear that each camera gets a cable of its own along the ways.

`assignments`: cameras on open ground, a recorder and outlets. Every choice of switches, of links between them, and of who hangs where by
himself or with another on one cable is tried (with a table of what was tried before, no solver): the least cost there is. What is legal
is worked out here anew from the handbook's formulas (sections 7 and 12).
"""

import itertools
import json
import math
import random
from functools import lru_cache
from pathlib import Path

import networkx as nx
from shapely.geometry import LineString, Point
from shapely.ops import unary_union

FOLDER = Path(__file__).parent

# ---------------------------------------------------------------------------------------------- routes


def routes(seed):
    dice = random.Random(seed)
    wide, high = 90.0, 60.0
    lines = []
    for _ in range(dice.randint(3, 5)):
        y = round(dice.uniform(3, high - 3), 1)
        lines.append([[0.0, y], [wide, round(y + dice.uniform(-3, 3), 1)]])
    for _ in range(dice.randint(3, 5)):
        x = round(dice.uniform(3, wide - 3), 1)
        lines.append([[x, 0.0], [round(x + dice.uniform(-3, 3), 1), high]])
    union = unary_union([LineString(line) for line in lines])
    graph = nx.Graph()
    for piece in union.geoms:
        ends = list(piece.coords)
        for a, b in zip(ends, ends[1:]):
            a, b = (tuple(round(v, 6) for v in p) for p in (a, b))
            graph.add_edge(a, b, weight=math.dist(a, b))
    corners = sorted(graph.nodes)
    chosen = dice.sample(corners, 5)
    recorder, cameras = chosen[0], chosen[1:]
    told = []
    for number, camera in enumerate(cameras):
        plan = nx.shortest_path_length(graph, recorder, camera, weight="weight")
        told.append({"id": f"c{number}", "at": camera, "plan_m": plan})
    return {"ways": lines, "recorder": recorder, "cameras": told}


# ---------------------------------------------------------------------------------------------- assignments

CLASSES = {
    1: (4.0, 3.84, 44.0, 37.0, 2), 2: (7.0, 6.49, 44.0, 37.0, 2), 3: (15.4, 12.95, 44.0, 37.0, 2), 4: (30.0, 25.5, 50.0, 42.5, 2),
    5: (45.0, 40.0, 50.0, 44.3, 4), 6: (60.0, 51.0, 50.0, 42.5, 4), 7: (75.0, 62.0, 52.0, 42.9, 4), 8: (90.0, 71.3, 52.0, 41.1, 4),
}  # fmt: skip
KITS = [(8, 120.0, 4, 40.0), (16, 240.0, 4, 70.0), (8, 240.0, 6, 60.0), (16, 480.0, 8, 105.0)]
METRE, DIG, SMALL_BOX, FIBRE_ENDS = 1.0, 3.0, 15.0, 30.0
HIGH, DEEP, OF_BOXES = 3.0, -0.5, 1.0
FREE = 0.2


def cable_m(a, ha, b, hb):
    """Through a trench: down into it and up again."""
    plan = math.dist(a, b)
    return (plan + abs(ha - DEEP) + abs(hb - DEEP)) * 1.10 + 0.12


def fed(klass, metres, watts):
    """Watts lost; none where it will not run on what it is stated to draw, or draws more than its class."""
    _, device, source, least, pairs = CLASSES[klass]
    loop = 2 * 0.0938 * metres / pairs
    under = source * source - 4 * loop * watts
    if under < 0 or watts > device:
        return None
    volts = (source + math.sqrt(under)) / 2
    return watts * watts * loop / volts**2 if volts >= least else None


def covering(watts):
    return next((k for k in CLASSES if CLASSES[k][1] >= watts), 8)


def singles(camera, place, port_class):
    """Ways of a camera by itself: (cost, watts at the place)."""
    at, klass, watts = camera
    plan = math.dist(at, place)
    metres = cable_m(at, HIGH, place, OF_BOXES)
    found = []
    cost = plan * (METRE + DIG)
    if metres <= 100 and klass <= port_class:
        lost = fed(klass, metres, watts)
        if lost is not None:
            found.append((cost, watts + lost))
    # A repeater half-way, which draws 3 W and takes one class more.
    middle = ((at[0] + place[0]) / 2, (at[1] + place[1]) / 2)
    height = 0.5 * (HIGH + OF_BOXES)
    first, second = cable_m(at, HIGH, middle, height), cable_m(middle, height, place, OF_BOXES)
    up = min(klass + 1, 8)
    if max(first, second) <= 100 and up <= port_class:
        lost = fed(klass, first, watts)
        if lost is not None:
            passed = 3 + watts + lost
            more = fed(up, second, passed)
            if more is not None:
                found.append((cost + SMALL_BOX, passed + more))
    if klass > port_class and metres <= 100:
        # An injector at the place; it feeds from the mains.
        lost = fed(klass, metres, watts)
        if lost is not None and watts + lost <= 90:
            found.append((cost + SMALL_BOX, 0.0))
    return found


def pairs(one, two, place, port_class):
    """Two cameras on one cable by way of a box at the first."""
    (at, ka, wa), (other, kb, wb) = one, two
    klass = covering(CLASSES[ka][0] + CLASSES[kb][0] + 3)
    if klass > port_class:
        return []
    between, up = cable_m(other, HIGH, at, HIGH), cable_m(at, HIGH, place, OF_BOXES)
    if max(between, up) > 100:
        return []
    lost_a, lost_b = fed(ka, 1.0, wa), fed(kb, between, wb)
    if lost_a is None or lost_b is None:
        return []
    passed = 3 + wa + lost_a + wb + lost_b
    lost = fed(klass, up, passed)
    if lost is None:
        return []
    cost = (math.dist(at, place) + math.dist(at, other)) * (METRE + DIG) + SMALL_BOX
    return [(cost, passed + lost)]


def cheapest(site):
    cameras = [(tuple(c["at"]), c["class"], c["watts"]) for c in site["cameras"]]
    recorder = tuple(site["recorder"]["at"])
    count = len(cameras)
    free = [recorder] + [tuple(at) for at in site["outlets"]]
    near = {
        i: [j for j in sorted(range(count), key=lambda j: math.dist(cameras[i][0], cameras[j][0])) if j != i and math.dist(cameras[i][0], cameras[j][0]) <= 60][:3]
        for i in range(count)
    }  # fmt: skip
    best = math.inf
    # Few boxes first: what is dearer than the best by its boxes alone is not looked at.
    choices = itertools.product([None] + list(range(len(KITS))), repeat=len(free))
    for kits in sorted(choices, key=lambda kits: sum(KITS[k][3] for k in kits if k is not None)):
        opened = [p for p, kit in enumerate(kits) if kit is not None]
        # Each opened place is linked to the recorder or to another opened one, without a ring.
        for links in itertools.product([-1] + opened, repeat=len(opened)):
            up = dict(zip(opened, links))
            if any(p == up[p] for p in opened) or any(rings(up, p) for p in opened):
                continue
            cost = 0.0
            ports = {-1: float(site["recorder"]["ports"])}
            power = {-1: float(site["recorder"]["budget_w"])}
            classes = {-1: site["recorder"]["port_class"]}
            for p in opened:
                of_ports, budget, klass, price = KITS[kits[p]]
                ports[p], power[p], classes[p] = math.floor((1 - FREE) * of_ports + 1e-9), (1 - FREE) * budget, klass
                to = recorder if up[p] == -1 else free[up[p]]
                plan = math.dist(free[p], to)
                # A link to what stands on the same place is laid along it and not dug.
                metres = cable_m(free[p], OF_BOXES, to, OF_BOXES)
                cost += price + plan * (METRE + DIG) + (FIBRE_ENDS if plan > 0 and metres > 90 else 0)
            for p in opened:
                ports[p] -= 1
                ports[up[p]] -= 1
            if min(ports.values()) < 0 or cost >= best:
                continue
            keys = [-1] + opened
            ways = {}
            for i in range(count):
                for n, p in enumerate(keys):
                    at = recorder if p == -1 else free[p]
                    for c, w in singles(cameras[i], at, classes[p]):
                        ways.setdefault(i, []).append((1 << i, n, c, w))
                    for j in near[i]:
                        for c, w in pairs(cameras[i], cameras[j], at, classes[p]):
                            for begin in (i, j):
                                ways.setdefault(begin, []).append(((1 << i) | (1 << j), n, c, w))

            @lru_cache(maxsize=None)
            def least(left, state):
                if left == 0:
                    return 0.0
                first = (left & -left).bit_length() - 1
                found = math.inf
                for mask, n, c, w in ways.get(first, []):
                    if mask & ~left:
                        continue
                    held = list(state)
                    free_ports, free_power = held[n]
                    if free_ports < 1 or free_power < w - 1e-9:
                        continue
                    held[n] = (free_ports - 1, round(free_power - w, 9))
                    found = min(found, c + least(left & ~mask, tuple(held)))
                return found

            total = cost + least((1 << count) - 1, tuple((ports[k], power[k]) for k in keys))
            best = min(best, total)
    return best


def rings(up, begin):
    at, seen = begin, set()
    while at != -1:
        if at in seen:
            return True
        seen.add(at)
        at = up[at]
    return False


def assignment(seed):
    dice = random.Random(1000 + seed)
    wide = dice.choice([40, 90, 130])
    at = lambda: [round(dice.uniform(0, wide), 2), round(dice.uniform(0, wide * 0.6), 2)]  # noqa: E731
    watts = {2: 6.0, 3: 9.5, 4: 21.0}
    cameras = []
    for number in range(dice.randint(2, 5 if seed % 5 else 8)):
        klass = dice.choice([2, 2, 3, 3, 4])
        cameras.append({"id": f"c{number}", "at": at(), "class": klass, "watts": watts[klass]})
    site = {
        "cameras": cameras,
        "recorder": {"at": at(), "ports": dice.choice([2, 4, 8]), "budget_w": dice.choice([40, 120]), "port_class": 4},
        "outlets": [at() for _ in range(1 if len(cameras) > 4 else dice.randint(1, 2))],
    }
    cost = cheapest(site)
    print(seed, len(cameras), cost, flush=True)
    return {**site, "cost": None if math.isinf(cost) else cost}


def main():
    told = {"routes": [routes(seed) for seed in range(25)], "assignments": [assignment(seed) for seed in range(15)]}
    (FOLDER / "wire.json").write_text(json.dumps(told) + "\n")
    print(len([a for a in told["assignments"] if a["cost"] is not None]), "of", len(told["assignments"]), "can be wired")


main()
