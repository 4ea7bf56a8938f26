"""Poses for crates/core/tests/pose.rs: points of a site seen by cameras with every bend, and the pose that SciPy's least squares finds.

Pixels of the bends 1 and 0 come from OpenCV's projectPoints and fisheye.projectPoints; the others from the family's formula (handbook,
section 3), which outside/projections holds against both. SciPy starts from many turns all around and takes the least of its minima.
"""

import json
import pathlib

import cv2
import numpy as np
from scipy.optimize import least_squares

rng = np.random.default_rng(25)
W, H, WIDTH_MM = 2688, 1520, 5.376
SIGMA = 2.0


def axes(pan, tilt, roll):
    p, t, r = np.radians([pan, tilt, roll])
    forward = np.array([np.sin(p) * np.cos(t), np.cos(p) * np.cos(t), -np.sin(t)])
    r0 = np.array([np.cos(p), -np.sin(p), 0.0])
    d0 = np.cross(forward, r0)
    return np.stack([r0 * np.cos(r) + d0 * np.sin(r), d0 * np.cos(r) - r0 * np.sin(r), forward])


def radius(bend, theta):
    if abs(bend) < 1e-9:
        return theta
    if bend < 0:
        return np.sin(-bend * theta) / -bend
    return np.tan(bend * theta) / bend


def solve_bend(focal, hfov):
    """The bend with which the focal length gives the published field, kept to [−½, 1]; and effective/nominal focal length."""
    half, wanted = np.radians(hfov) / 2, WIDTH_MM / 2 / focal
    low, high = -0.5, 1.0
    grows = lambda b: radius(b, half) if b <= 0 or b * half < np.pi / 2 else np.inf
    if grows(low) >= wanted:
        bend = low
    elif grows(high) <= wanted:
        bend = high
    else:
        for _ in range(100):
            middle = (low + high) / 2
            low, high = (middle, high) if grows(middle) < wanted else (low, middle)
        bend = (low + high) / 2
    return bend, WIDTH_MM / 2 / radius(bend, half) / focal


def ratio_at(lens, focal):
    lo, hi = lens["focal_min_mm"], lens["focal_max_mm"]
    if hi <= lo:
        return lens["ratio_min"]
    along = (np.clip(focal, lo, hi) - lo) / (hi - lo)
    return lens["ratio_min"] + (lens["ratio_max"] - lens["ratio_min"]) * along


def project(lens, eye, angles, focal, points):
    f_px = focal * ratio_at(lens, focal) * W / WIDTH_MM
    camera = (points - eye) @ axes(*angles).T
    flat = np.linalg.norm(camera[:, :2], axis=1)
    theta = np.arctan2(flat, camera[:, 2])
    scale = np.where(flat > 1e-12, radius(lens["bend"], np.minimum(theta, 3.0)) / np.maximum(flat, 1e-12), 0)
    return np.array([W / 2, H / 2]) + camera[:, :2] * (f_px * scale)[:, None], theta


def by_opencv(lens, eye, angles, focal, points):
    f_px = focal * ratio_at(lens, focal) * W / WIDTH_MM
    k = np.array([[f_px, 0, W / 2], [0, f_px, H / 2], [0, 0, 1.0]])
    look = axes(*angles)
    rvec, _ = cv2.Rodrigues(look)
    tvec = -look @ eye
    if lens["bend"] == 1.0:
        pixels, _ = cv2.projectPoints(points, rvec, tvec, k, None)
    else:
        pixels, _ = cv2.fisheye.projectPoints(points.reshape(-1, 1, 3), rvec, tvec, k, np.zeros(4))
    return pixels.reshape(-1, 2)


def lens_of(kind):
    if kind == "pinhole":
        return {"focal_min_mm": 6.0, "focal_max_mm": 6.0, "bend": 1.0, "ratio_min": 1.0, "ratio_max": 1.0}
    if kind == "zoom":
        bend, low = solve_bend(2.8, 103.0)
        high = WIDTH_MM / 2 / radius(bend, np.radians(29.0) / 2) / 12.0
        return {"focal_min_mm": 2.8, "focal_max_mm": 12.0, "hfov_at_min_deg": 103.0, "hfov_at_max_deg": 29.0, "bend": bend, "ratio_min": low, "ratio_max": high}
    if kind == "equidistant":
        hfov = np.degrees(WIDTH_MM / 2.8)
        return {"focal_min_mm": 2.8, "focal_max_mm": 2.8, "hfov_at_min_deg": hfov, "bend": 0.0, "ratio_min": 1.0, "ratio_max": 1.0}
    hfov = {"half": 103.0, "below": 112.0, "equisolid": 78.0}[kind]
    focal = {"half": 2.8, "below": 2.8, "equisolid": 4.0}[kind]
    bend, ratio = solve_bend(focal, hfov)
    return {"focal_min_mm": focal, "focal_max_mm": focal, "hfov_at_min_deg": hfov, "bend": bend, "ratio_min": ratio, "ratio_max": ratio}


def solve(lens, designed, wish, points, seen):
    """The least of the minima from the design and from turns all around."""
    eye0 = np.array(designed["eye"])
    placed = wish is not None
    sigmas = np.array(wish) if placed else None

    def misses(x):
        eye = x[4:7] if placed else eye0
        pixels, theta = project(lens, eye, np.degrees(x[:3]), np.exp(x[3]), points)
        off = (pixels - seen) / SIGMA
        off[theta > (np.pi / 2 - 1e-3 if lens["bend"] == 1.0 else 3.0)] = 1e4
        off = np.nan_to_num(off.ravel(), nan=1e4, posinf=1e4, neginf=-1e4)
        return np.concatenate([off, (x[4:7] - eye0) / sigmas]) if placed else off

    def start(angles):
        begin = np.append(np.radians(angles), np.log(designed["focal"]))
        return np.append(begin, eye0) if placed else begin

    starts = [start(designed["angles"])]
    around = [(p, t, r) for p in range(0, 360, 60) for t in (-20, 20, 60) for r in (0, 90, 180, 270)]
    scored = sorted(around, key=lambda a: np.sum(np.minimum(np.abs(misses(start(a))), 1e3)))
    starts += [start(a) for a in scored[:10]]
    best = None
    for begin in starts:
        got = least_squares(misses, begin, method="lm", xtol=1e-15, ftol=1e-15, gtol=1e-15, max_nfev=4000)
        if best is None or got.cost < best.cost:
            best = got
    q = np.linalg.inv(best.jac.T @ best.jac)
    x, s = best.x, np.sqrt(np.diag(q))
    names = ["pan_deg", "tilt_deg", "roll_deg", "focal_mm"] + (["east_m", "north_m", "height_m"] if placed else [])
    values = list(np.degrees(x[:3])) + [np.exp(x[3])] + (list(x[4:7]) if placed else [])
    sigma = list(np.degrees(s[:3])) + [s[3] * np.exp(x[3])] + (list(s[4:7]) if placed else [])
    # SciPy may leave a tilt past the zenith: the same turn, told as angles are told.
    right, _, forward = axes(*values[:3])
    pan = np.arctan2(forward[0], forward[1])
    r0 = np.array([np.cos(pan), -np.sin(pan), 0])
    values[0] = np.degrees(pan) % 360
    values[1] = np.degrees(np.arcsin(-forward[2]))
    values[2] = np.degrees(np.arctan2(right @ np.cross(forward, r0), right @ r0))
    rms = float(np.sqrt(np.sum((best.fun[: 2 * len(points)] * SIGMA) ** 2) / len(points)))
    return {"at": dict(zip(names, values)), "sigma": dict(zip(names, sigma)), "rms_px": rms, "cost": float(best.cost)}


cases = []
kinds = ["pinhole", "zoom", "half", "equidistant", "below", "equisolid"]
for number in range(48):
    kind = kinds[number % len(kinds)]
    lens = lens_of(kind)
    sort = ["plain", "noise", "noise and place", "upside down", "corridor", "turned away", "wrong point", "other lens"][number // len(kinds) % 8]
    pan, tilt, roll = rng.uniform(0, 360), rng.uniform(2, 45), rng.uniform(-3, 3)
    if sort == "corridor":
        roll += 90
    eye = np.array([rng.uniform(-5, 5), rng.uniform(-5, 5), rng.uniform(2.5, 6)])
    focal = rng.uniform(lens["focal_min_mm"], lens["focal_max_mm"])
    designed = {"eye": list(eye), "angles": [pan, tilt, roll], "focal": focal}
    built = np.array([pan + rng.uniform(-4, 4), tilt + rng.uniform(-3, 3), roll + rng.uniform(-3, 3)])
    if sort == "upside down":
        built[2] += 180
    if sort == "turned away":
        built[0] += rng.uniform(90, 270)
    built_focal = focal * (rng.uniform(1.25, 1.6) if sort == "other lens" else rng.uniform(0.97, 1.03))
    if sort != "other lens":
        built_focal = float(np.clip(built_focal, lens["focal_min_mm"], lens["focal_max_mm"])) if kind == "zoom" else built_focal
    wish = [0.5, 0.5, 0.05] if sort == "noise and place" else None
    built_eye = eye + (rng.normal(0, 1, 3) * wish if wish else 0)
    points, seen = [], []
    count = 12 if wish else int(rng.integers(4, 9))
    while len(points) < count:
        pixel = np.array([rng.uniform(60, W - 60), rng.uniform(60, H - 60)])
        # A point somewhere along the ray of that pixel: by turns, near and far.
        f_px = built_focal * ratio_at(lens, built_focal) * W / WIDTH_MM
        flat = (pixel - [W / 2, H / 2]) / f_px
        r = np.linalg.norm(flat)
        b = lens["bend"]
        theta = r if abs(b) < 1e-9 else np.arctan(b * r) / b if b > 0 else np.arcsin(min(-b * r, 1.0)) / -b
        if theta > 1.45:
            continue
        ray = np.append(flat * np.sin(theta) / r, np.cos(theta)) @ axes(*built)
        points.append(built_eye + ray * rng.uniform(3, 30))
    points = np.array(points)
    seen, _ = project(lens, built_eye, built, built_focal, points)
    if kind in ("pinhole", "equidistant"):
        other = by_opencv(lens, built_eye, built, built_focal, points)
        assert np.abs(other - seen).max() < 1e-6, (kind, np.abs(other - seen).max())
        seen = other
    if "noise" in sort or sort == "wrong point":
        seen = seen + rng.normal(0, SIGMA, seen.shape)
    wrong = None
    if sort == "wrong point":
        wrong = int(rng.integers(0, len(seen)))
        seen[wrong] += 60 * np.array([np.cos(number), np.sin(number)])
    found = solve(lens, designed, wish, points, seen)
    cases.append(
        {
            "sort": sort, "lens": {k: v for k, v in lens.items() if k.endswith("_mm") or k.endswith("_deg")}, "bend": lens["bend"],
            "designed": {"eye": list(eye), "angles": designed["angles"], "focal": focal},
            "built": {"eye": list(built_eye), "angles": list(built), "focal": built_focal},
            "sigma_px": SIGMA, "place_sigma_m": wish, "wrong": wrong,
            "points": [list(p) + list(s) for p, s in zip(points, seen)],
            "scipy": found,
        }
    )
    print(number, kind, sort, found["rms_px"])

pathlib.Path(__file__).with_name("pose.json").write_text(json.dumps({"width_px": W, "height_px": H, "width_mm": WIDTH_MM, "cases": cases}, indent=1) + "\n")
