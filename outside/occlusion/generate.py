"""Which straight lines pass an extruded outline, by shapely (GEOS), for crates/core/tests/occlusion.rs.

The line's run over the outline is shapely's intersection of line and polygon (or crossing of line and wall); the
heights along that run decide. Cases nearer than a millimetre to the edge of the question are left out.
"""

import json
import pathlib

import numpy as np
from shapely.geometry import LineString, Point, Polygon

NEAR = 1e-3


def star(rng):
    """A simple outline about a centre: corners at growing angles, so it may be dented but not crossed."""
    count = int(rng.integers(3, 9))
    angles = np.sort(rng.uniform(0, 2 * np.pi, count))
    gaps = np.diff(np.append(angles, angles[0] + 2 * np.pi))
    if gaps.max() > np.pi - 0.1 or gaps.min() < 0.1:
        return None
    radii = rng.uniform(1.5, 8, count)
    centre = rng.uniform(-5, 5, 2)
    return [[round(float(centre[0] + r * np.cos(a)), 2), round(float(centre[1] + r * np.sin(a)), 2)] for r, a in zip(radii, angles)]


def wall(rng):
    points = np.cumsum(rng.uniform(-5, 5, (int(rng.integers(2, 5)), 2)), axis=0)
    return [[round(float(x), 2), round(float(y), 2)] for x, y in points]


def runs(shape, line):
    """Stretches of the line over the shape, as shares of its length."""
    met = shape.intersection(line)
    parts = getattr(met, "geoms", [met])
    ends = [[line.project(Point(c)) / line.length for c in part.coords] for part in parts if not part.is_empty]
    return [(min(shares), max(shares)) for shares in ends]


def judge(shape, closed, base, top, a, b):
    """Blocked or not, and whether the answer is too close to call."""
    line = LineString([a[:2], b[:2]])
    blocked, close = False, False
    for start, end in runs(shape, line):
        low, high = sorted(a[2] + (b[2] - a[2]) * share for share in (start, end))
        overlap = min(high, top) - max(low, base)
        blocked |= overlap > 0 if closed else base < low < top
        close |= abs(overlap) < NEAR or min(abs(z - edge) for z in (low, high) for edge in (base, top)) < NEAR
        close |= closed and (end - start) * line.length < NEAR
        close |= min(start, 1 - end) * line.length < NEAR and not (start == 0 or end == 1)
    return blocked, close


def main():
    rng = np.random.default_rng(77)
    cases = []
    while len(cases) < 400:
        closed = bool(rng.random() < 0.7)
        outline = star(rng) if closed else wall(rng)
        if outline is None:
            continue
        shape = Polygon(outline) if closed else LineString(outline)
        if not shape.is_valid or not shape.is_simple:
            continue
        base = 0.0 if rng.random() < 0.6 else round(float(rng.uniform(0, 3)), 2)
        top = round(base + float(rng.uniform(0.5, 6)), 2)
        a = [round(float(v), 3) for v in rng.uniform([-14, -14, 0.3], [14, 14, 9])]
        b = [round(float(v), 3) for v in rng.uniform([-14, -14, 0.0], [14, 14, 4])]
        corners = min(LineString([a[:2], b[:2]]).distance(Point(p)) for p in outline)
        blocked, close = judge(shape, closed, base, top, a, b)
        if close or corners < NEAR:
            continue
        # As many blocked lines as clear ones, else most miss.
        if sum(case["blocked"] for case in cases) * 2 > len(cases) and blocked:
            continue
        if sum(not case["blocked"] for case in cases) * 2 > len(cases) + 1 and not blocked:
            continue
        cases.append({"outline": outline, "closed": closed, "base": base, "top": top, "from": a, "to": b, "blocked": bool(blocked)})
    text = ",\n".join(json.dumps(case) for case in cases)
    pathlib.Path(__file__).with_name("occlusion.json").write_text(f"[\n{text}\n]\n")


if __name__ == "__main__":
    main()
