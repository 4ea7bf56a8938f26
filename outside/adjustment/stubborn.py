"""Nets with a gross error of 1.7 m that plain Gauss-Newton does not settle, and where SciPy's trust-exact puts their points.

For crates/core/tests/adjustment.rs. Drawn positions p0, readings d with sigma; minimised is the sum of the site-file contract.
"""

import json
import pathlib
import random

import numpy as np
from scipy.optimize import minimize


def made_up(rng):
    at = [[round(rng.uniform(0, 30), 2), round(rng.uniform(0, 20), 2)] for _ in range(6)]
    drawn = [at[0]] + [[round(c + rng.gauss(0, 0.8), 2) for c in p] for p in at[1:]]
    sigma = rng.choice([0.5, 1.0, 5.0])
    spots = [{"id": f"s{i}", "name": f"S{i}", "position": p, "height_m": 3.0} for i, p in enumerate(drawn)]
    spots[0]["fixed"] = True
    for spot in spots[1:]:
        spot["position_sigma_m"] = sigma
    pairs = [(i, j) for i in range(6) for j in range(i)]
    rng.shuffle(pairs)
    readings = []
    for n, (i, j) in enumerate(pairs[: rng.choice([8, 9, 10, 11])]):
        slope = float(np.hypot(*np.subtract(at[i], at[j]))) + (1.7 if n == 0 else 0) + rng.gauss(0, 0.01)
        readings.append({"id": f"r{n}", "from": f"s{i}", "to": f"s{j}", "slope_m": round(slope, 3), "inclination_deg": 0, "sigma_m": 0.02})
    return {"format": "bright-angle/site", "version": 1, "name": "Net", "obstacles": [], "cameras": [], "targets": [], "spots": spots, "readings": readings}


def problem(site):
    p0 = np.array([s["position"] for s in site["spots"]], float)
    prior = np.repeat([s.get("position_sigma_m", 0.5) ** -2 for s in site["spots"][1:]], 2)
    ends = [(int(r["from"][1:]), int(r["to"][1:]), r["slope_m"], r["sigma_m"] ** -2) for r in site["readings"]]

    def parts(x):
        p = np.vstack([p0[:1], x.reshape(-1, 2)])
        f = prior @ (x - p0[1:].ravel()) ** 2 / 2
        g = np.zeros_like(p)
        gauss, full = np.zeros((12, 12)), np.zeros((12, 12))
        for i, j, d, w in ends:
            v = p[i] - p[j]
            r = np.hypot(*v)
            u = v / r
            f += w * (r - d) ** 2 / 2
            g[i] += w * (r - d) * u
            g[j] -= w * (r - d) * u
            plain = w * np.outer(u, u)
            bent = plain + w * (1 - d / r) * (np.eye(2) - np.outer(u, u))
            for a, b, s in [(i, i, 1), (j, j, 1), (i, j, -1), (j, i, -1)]:
                gauss[2 * a : 2 * a + 2, 2 * b : 2 * b + 2] += s * plain
                full[2 * a : 2 * a + 2, 2 * b : 2 * b + 2] += s * bent
        gradient = g[1:].ravel() + prior * (x - p0[1:].ravel())
        return f, gradient, gauss[2:, 2:] + np.diag(prior), full[2:, 2:] + np.diag(prior)

    return p0[1:].ravel(), parts


def plain_settles(x, parts):
    for _ in range(200):
        _, gradient, gauss, _ = parts(x)
        step = np.linalg.solve(gauss, -gradient)
        x = x + step
        if np.abs(step).max() < 1e-6:
            return True
    return False


def main():
    rng = random.Random(5)
    found = []
    while len(found) < 6:
        site = made_up(rng)
        start, parts = problem(site)
        if plain_settles(start, parts):
            continue
        best = minimize(lambda x: parts(x)[0], start, jac=lambda x: parts(x)[1], hess=lambda x: parts(x)[3], method="trust-exact", options={"gtol": 1e-8})
        found.append({"site": site, "least": float(best.fun), "positions": best.x.reshape(-1, 2).round(7).tolist()})
    pathlib.Path(__file__).with_name("stubborn.json").write_text(json.dumps(found, indent=1) + "\n")


if __name__ == "__main__":
    main()
