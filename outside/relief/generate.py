"""The relief of three made-up yards, cell by cell, for crates/core/tests/relief.rs.

Another way than the code's: solids become triangle meshes (trimesh, earcut), every cell's centre is seen by a ray of its own
through Embree, and pixels and densities come from OpenCV: `projectPoints` for lenses without bend, `fisheye.projectPoints`
for equidistant ones, the density as the length in the picture of a step of a tenth of a millimetre.
Two meshes that share no triangle with the eye's own wall are assumed: no camera stands on a solid here.
"""

import json
import pathlib

import cv2
import numpy as np
import shapely
import trimesh
from shapely.geometry import Polygon

STEP = 1e-4
NODATA = -9999.0


def model(equidistant, focal):
    sensor = {"width_px": 2688, "height_px": 1520, "width_mm": 5.376, "height_mm": 3.04}
    lens = {"focal_min_mm": focal, "focal_max_mm": focal}
    if equidistant:
        # r = f·θ: the field that an equidistant lens of this focal length publishes.
        lens["hfov_at_min_deg"] = float(np.degrees(sensor["width_mm"] / focal))
    return {"name": "Made up", "form": "bullet", "sensor": sensor, "lens": lens}


def star(rng, centre, count):
    angles = np.sort(rng.uniform(0, 2 * np.pi, count))
    gaps = np.diff(np.append(angles, angles[0] + 2 * np.pi))
    if gaps.max() > np.pi - 0.2 or gaps.min() < 0.25:
        return None
    radii = rng.uniform(1.0, 5.0, count)
    return [[round(float(centre[0] + r * np.cos(a)), 2), round(float(centre[1] + r * np.sin(a)), 2)] for r, a in zip(radii, angles)]


def site(rng, name):
    cameras = []
    for i in range(5):
        equidistant = i % 2 == 1
        focal = [6.0, 2.8, 4.0, 1.9, 9.0][i]
        head = {"id": "h", "pan_deg": round(float(rng.uniform(0, 360)), 1), "tilt_deg": round(float(rng.uniform(4, 40)), 1),
                "roll_deg": [0, 0, 90, 7, 0][i], "focal_mm": focal}
        cameras.append({"id": f"c{i}", "name": f"C{i}", "position": [round(float(v), 2) for v in rng.uniform(-25, 25, 2)],
                        "height_m": [3.2, 4.1, 1.2, 2.7, 6.0][i], "model": model(equidistant, focal), "heads": [head]})
    obstacles = []
    while len(obstacles) < 24:
        centre = rng.uniform(-34, 34, 2)
        if min(np.hypot(*(centre - np.array(c["position"]))) for c in cameras) < 5.5:
            continue
        outline = star(rng, centre, int(rng.integers(4, 9)))
        if outline is None:
            continue
        base = 0.0 if rng.random() < 0.8 else round(float(rng.uniform(0.5, 2.0)), 2)
        obstacles.append({"id": f"o{len(obstacles)}", "name": "O", "kind": "building", "outline": outline, "base_m": base,
                          "top_m": round(base + float(rng.uniform(0.4, 4.5)), 2)})
    return {"format": "bright-angle/site", "version": 1, "name": name, "obstacles": obstacles, "targets": [], "cameras": cameras}


def mesh_of(obstacles):
    parts = []
    for o in obstacles:
        part = trimesh.creation.extrude_polygon(Polygon(o["outline"]), o["top_m"] - o["base_m"])
        part.apply_translation([0, 0, o["base_m"]])
        parts.append(part)
    return trimesh.util.concatenate(parts)


def axes(head):
    p, t, r = (np.radians(head[k]) for k in ("pan_deg", "tilt_deg", "roll_deg"))
    forward = np.array([np.sin(p) * np.cos(t), np.cos(p) * np.cos(t), -np.sin(t)])
    right0 = np.array([np.cos(p), -np.sin(p), 0.0])
    down0 = np.cross(forward, right0)
    return np.stack([right0 * np.cos(r) + down0 * np.sin(r), down0 * np.cos(r) - right0 * np.sin(r), forward])


def pixels(camera, head, points):
    """Pixels by OpenCV, NaN where a point is behind the camera."""
    sensor, equidistant = camera["model"]["sensor"], "hfov_at_min_deg" in camera["model"]["lens"]
    f = head["focal_mm"] * sensor["width_px"] / sensor["width_mm"]
    k = np.array([[f, 0, sensor["width_px"] / 2], [0, f, sensor["height_px"] / 2], [0, 0, 1.0]])
    seen = (points - np.array([*camera["position"], camera["height_m"]])) @ axes(head).T
    out = np.full((len(points), 2), np.nan)
    front = seen[:, 2] > 1e-9
    if not front.any():
        return out
    # Points of one distance keep OpenCV's arithmetic away from its limits.
    rays = seen[front] / np.linalg.norm(seen[front], axis=1, keepdims=True)
    rays = rays.reshape(-1, 1, 3)
    if equidistant:
        projected, _ = cv2.fisheye.projectPoints(rays, np.zeros(3), np.zeros(3), k, np.zeros(4))
    else:
        projected, _ = cv2.projectPoints(rays, np.zeros(3), np.zeros(3), k, None)
    out[front] = projected.reshape(-1, 2)
    return out


def relief(made, mesh, bounds, cell, height):
    x0, y0, x1, y1 = bounds
    columns, rows = round((x1 - x0) / cell), round((y1 - y0) / cell)
    xs, ys = x0 + (np.arange(columns) + 0.5) * cell, y0 + (np.arange(rows) + 0.5) * cell
    points = np.stack([*(a.ravel() for a in np.meshgrid(xs, ys)), np.full(columns * rows, height)], axis=1)
    caster = trimesh.ray.ray_pyembree.RayMeshIntersector(mesh)
    inside = np.zeros(len(points), bool)
    for o in made["obstacles"]:
        if o["base_m"] < height < o["top_m"]:

            inside |= shapely.contains_xy(Polygon(o["outline"]), points[:, 0], points[:, 1])
    best = np.zeros(len(points))
    for camera in made["cameras"]:
        head, eye = camera["heads"][0], np.array([*camera["position"], camera["height_m"]])
        sensor = camera["model"]["sensor"]
        at = pixels(camera, head, points)
        held = (at[:, 0] >= 0) & (at[:, 0] <= sensor["width_px"]) & (at[:, 1] >= 0) & (at[:, 1] <= sensor["height_px"]) & ~inside
        place = np.flatnonzero(held)
        if len(place) == 0:
            continue
        step = points[place] - eye
        far = np.linalg.norm(step, axis=1)
        hits, rays, _ = caster.intersects_location(np.broadcast_to(eye, step.shape), step / far[:, None], multiple_hits=False)
        near = np.full(len(place), np.inf)
        near[rays] = np.linalg.norm(hits - eye, axis=1)
        clear = near > far - 1e-3
        place, step = place[clear], step[clear]
        ground = np.hypot(step[:, 0], step[:, 1])
        across = np.stack([step[:, 1] / ground, -step[:, 0] / ground, np.zeros(len(ground))], axis=1)
        apart = pixels(camera, head, points[place] + across * STEP) - pixels(camera, head, points[place] - across * STEP)
        best[place] = np.maximum(best[place], np.linalg.norm(apart, axis=1) / (2 * STEP))
    return columns, rows, best


def main():
    rng = np.random.default_rng(606)
    cases = []
    for number, (height, cell) in enumerate([(1.6, 0.9), (0.0, 1.1), (0.7, 0.8)]):
        made = site(rng, f"Yard {number + 1}")
        bounds = [-36.0, -36.0, -36.0 + 80 * cell, -36.0 + 80 * cell]
        columns, rows, best = relief(made, mesh_of(made["obstacles"]), bounds, cell, height)
        cases.append({"site": made, "bounds": bounds, "cell_m": cell, "at_height_m": height, "columns": columns, "rows": rows,
                      "best": [NODATA if value == 0 else float(f"{value:.6g}") for value in best]})
    (pathlib.Path(__file__).parent / "relief.json").write_text(json.dumps(cases, separators=(",", ":")) + "\n")
    for case in cases:
        print(case["site"]["name"], case["at_height_m"], "m:", sum(v > 0 for v in case["best"]), "of", len(case["best"]), "cells seen")


main()
