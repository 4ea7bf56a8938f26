"""Adjusts generated networks with SciPy's least squares, for the core's adjustment to be held against.

    python3 adjustment/generate.py > adjustment/adjustment.json

Twenty networks: ten without and ten with one reading that is metres off. Each is a site file's spots, targets and readings, and what
scipy.optimize.least_squares makes of it: positions, error ellipses, residuals, standardised residuals.
"""

import json

import numpy as np
from scipy.optimize import least_squares

rng = np.random.default_rng(20261124)


def network(outlier):
    spots, targets = rng.integers(2, 6), rng.integers(2, 6)
    names = [f"s{i}" for i in range(spots)] + [f"t{i}" for i in range(targets)]
    true = rng.uniform(0, 60, (len(names), 2))
    drawn = true + rng.normal(0, 0.4, true.shape)
    heights = np.concatenate([rng.uniform(2.4, 5, spots), rng.uniform(0.5, 2, targets)])
    fixed = np.zeros(len(names), bool)
    fixed[: rng.integers(0, 3)] = True
    drawn[fixed] = true[fixed]
    sigma = rng.choice([0.3, 0.5, 1.0], len(names))
    pairs = [(a, b) for a in range(len(names)) for b in range(spots) if a > b and np.hypot(*(true[a] - true[b])) > 6]
    rng.shuffle(pairs)
    readings = []
    for place, (a, b) in enumerate(pairs):
        s = float(rng.choice([0.01, 0.02, 0.05]))
        flat = np.hypot(*(true[a] - true[b])) + rng.normal(0, s)
        rise = heights[b] - heights[a]
        inclined = bool(rng.integers(0, 2))
        slope = float(np.hypot(flat, rise))
        readings.append({"id": f"r{place}", "from": names[a], "to": names[b], "slope_m": slope,
                         "inclination_deg": float(np.degrees(np.arctan2(rise, flat))) if inclined else None,
                         "from_height_m": float(heights[a]), "to_height_m": float(heights[b]), "sigma_m": s,
                         "used": bool(rng.random() > 0.1)})
    if outlier:
        used = [r for r in readings if r["used"]]
        used[len(used) // 2]["slope_m"] += float(rng.choice([2.5, 5.7]))
    return names, spots, drawn, heights, fixed, sigma, readings


def solve(names, drawn, fixed, sigma, readings):
    index = {name: i for i, name in enumerate(names)}
    used = [r for r in readings if r["used"]]
    ends = np.array([(index[r["from"]], index[r["to"]]) for r in used])
    flat = []
    for r in readings:
        if r["inclination_deg"] is not None:
            flat.append(r["slope_m"] * np.cos(np.radians(r["inclination_deg"])))
        else:
            flat.append(np.sqrt(r["slope_m"] ** 2 - (r["to_height_m"] - r["from_height_m"]) ** 2))
    flat = np.array(flat)
    d = flat[[r["used"] for r in readings]]
    s = np.array([r["sigma_m"] for r in used])
    free = np.flatnonzero(~fixed)

    def places(x):
        p = drawn.copy()
        p[free] = x.reshape(-1, 2)
        return p

    def misfits(x):
        p = places(x)
        apart = np.hypot(*(p[ends[:, 0]] - p[ends[:, 1]]).T)
        return np.concatenate([(d - apart) / s, ((drawn[free] - p[free]) / sigma[free, None]).ravel()])

    found = least_squares(misfits, drawn[free].ravel(), jac="3-point", method="lm", xtol=1e-15, ftol=1e-15, gtol=1e-15)
    p = places(found.x)
    # The slopes of the distances by hand, for Q.
    a = np.zeros((len(used), 2 * len(free)))
    column = {int(i): 2 * k for k, i in enumerate(free)}
    for row, (i, j) in enumerate(ends):
        along = (p[i] - p[j]) / np.hypot(*(p[i] - p[j]))
        for end, sign in ((i, 1), (j, -1)):
            if int(end) in column:
                a[row, column[int(end)] : column[int(end)] + 2] = sign * along
    normal = a.T @ np.diag(s**-2) @ a + np.diag(np.repeat(sigma[free] ** -2.0, 2))
    q = np.linalg.inv(normal)
    points = []
    for i, name in enumerate(names):
        block = np.zeros((2, 2)) if fixed[i] else q[column[i] : column[i] + 2, column[i] : column[i] + 2]
        values, vectors = np.linalg.eigh(block)
        east, north = vectors[:, 1]
        points.append({"id": name, "position": p[i].tolist(), "major_m": float(np.sqrt(max(values[1], 0))),
                       "minor_m": float(np.sqrt(max(values[0], 0))),
                       "bearing_deg": float(np.degrees(np.arctan2(east, north)) % 180)})
    residuals = d - np.hypot(*(p[ends[:, 0]] - p[ends[:, 1]]).T)
    standardised = residuals / np.sqrt(s**2 - np.einsum("ri,ij,rj->r", a, q, a))
    worst = int(np.argmax(np.abs(standardised)))
    doubtful = used[worst]["id"] if abs(standardised[worst]) > 3 else None
    return {"points": points, "doubtful": doubtful,
            "readings": [{"id": r["id"], "residual_m": float(v), "standardised": float(w)}
                         for r, v, w in zip(used, residuals, standardised)]}


cases = []
for place in range(20):
    names, spots, drawn, heights, fixed, sigma, readings = network(outlier=place % 2 == 1)
    point = lambda i: {"id": names[i], "name": names[i], "height_m": float(heights[i]),
                       "position_sigma_m": float(sigma[i]), "fixed": bool(fixed[i])}
    site = {"format": "bright-angle/site", "version": 1, "name": f"Network {place}", "obstacles": [], "cameras": [],
            "spots": [point(i) | {"position": drawn[i].tolist()} for i in range(spots)],
            "targets": [point(i) | {"subject": "face", "task": "identify",
                                    "shape": {"kind": "point", "points": [drawn[i].tolist()]}}
                        for i in range(spots, len(names))],
            "readings": readings}
    cases.append({"site": site, "outlier": place % 2 == 1, "found": solve(names, drawn, fixed, sigma, readings)})
print(json.dumps(cases))
