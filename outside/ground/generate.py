"""Quiet paths and seen areas of made-up yards, for crates/core/tests/ground.rs.

Paths: networkx's Dijkstra on the same grid, its steps cut by shapely where they meet a wall; a step costs its length, and a thousand
times that more where it is seen, half for each of its ends. Areas: what a fisheye that looks straight down sees past walls that are
taller than it is a polygon; shapely takes the walls and the hulls of walls and far copies of them out of the bounds.
"""

import json
import pathlib

import networkx as nx
import numpy as np
from shapely.geometry import LineString, MultiPoint, Point, Polygon, box
from shapely.ops import unary_union

SEEN = 1000.0
FOLDER = pathlib.Path(__file__).parent


def rectangle(rng, width, height):
    w, h = rng.uniform(0.7, width / 4, 1)[0], rng.uniform(0.7, height / 4, 1)[0]
    x, y = rng.uniform(1, width - w - 1), rng.uniform(1, height - h - 1)
    return [[round(float(v), 3) for v in p] for p in [(x, y), (x + w, y), (x + w, y + h), (x, y + h)]]


def path_case(rng, columns, rows):
    solids = [rectangle(rng, columns, rows) for _ in range(int(rng.integers(2, 7)))]
    walls = []
    for _ in range(int(rng.integers(1, 5))):
        a, b = rng.uniform(1, [columns - 1, rows - 1]), rng.uniform(1, [columns - 1, rows - 1])
        walls.append([[round(float(v), 3) for v in a], [round(float(v), 3) for v in b]])
    # Seen in a few round pools of light.
    pools = [(rng.uniform(0, [columns, rows]), rng.uniform(2, 7)) for _ in range(int(rng.integers(2, 6)))]
    seen = [[bool(any(np.hypot(c + 0.5 - p[0], r + 0.5 - p[1]) < reach for p, reach in pools)) for c in range(columns)] for r in range(rows)]
    areas = [Polygon(s) for s in solids]
    lines = [LineString(w) for w in walls] + [a.exterior for a in areas]
    middle = lambda c, r: Point(c + 0.5, r + 0.5)
    graph = nx.Graph()
    for r in range(rows):
        for c in range(columns):
            if not any(a.contains(middle(c, r)) for a in areas):
                graph.add_node((c, r))
    for c, r in list(graph):
        for dc, dr in [(1, 0), (0, 1), (1, 1), (1, -1)]:
            to = (c + dc, r + dr)
            if to not in graph:
                continue
            step = LineString([middle(c, r), middle(*to)])
            if any(step.intersects(line) for line in lines):
                continue
            length = step.length
            graph.add_edge((c, r), to, weight=length * (1 + SEEN * 0.5 * (seen[r][c] + seen[to[1]][to[0]])))
    open_cells = [cell for cell in graph if graph.degree(cell) > 0]
    on_edge = lambda cell: cell[0] in (0, columns - 1) or cell[1] in (0, rows - 1)

    def cost_to(goal):
        costs = nx.single_source_dijkstra_path_length(graph, goal)
        return min((costs[cell] for cell in costs if on_edge(cell)), default=None)

    # Of a few places the one that is hardest to come to.
    places = [open_cells[int(i)] for i in rng.integers(len(open_cells), size=20)]
    priced = [(cost_to(place), place) for place in places]
    reached = [pair for pair in priced if pair[0] is not None]
    cost, goal = max(reached) if reached else priced[0]
    return {"columns": columns, "rows": rows, "solids": solids, "walls": walls, "seen": seen, "goal": list(goal), "cost": cost}


def area_case(rng):
    width, height = 60.0, 44.0
    eye = [round(float(v), 2) for v in rng.uniform(12, [width - 12, height - 12])]
    solids = []
    while len(solids) < 8:
        solid = rectangle(rng, width, height)
        if Polygon(solid).distance(Point(eye)) > 1.5:
            solids.append(solid)
    # The box around all that is drawn and five metres more, on whole metres.
    points = np.array([eye] + [p for s in solids for p in s])
    corners = [*np.floor(points.min(axis=0) - 5), *np.ceil(points.max(axis=0) + 5)]
    bounds = box(*corners)
    shadows = []
    for solid in solids:
        far = [[eye[0] + (x - eye[0]) * 1000, eye[1] + (y - eye[1]) * 1000] for x, y in solid]
        shadows.append(MultiPoint(solid + far).convex_hull)
    seen = bounds.difference(unary_union(shadows))
    walked = bounds.difference(unary_union([Polygon(s) for s in solids]))
    return {"bounds": [float(v) for v in corners], "eye": eye, "solids": solids, "seen_m2": seen.area, "open_m2": walked.area,
            "edge_m": seen.length}


rng = np.random.default_rng(20261125)
paths = [path_case(rng, int(rng.integers(16, 40)), int(rng.integers(14, 34))) for _ in range(24)]
areas = [area_case(rng) for _ in range(8)]
FOLDER.joinpath("ground.json").write_text(json.dumps({"paths": paths, "areas": areas}, separators=(",", ":")) + "\n")
