"""How much of a subject is hidden, for crates/core/tests/subjects.rs.

Another way than the code's: solids become triangle meshes (trimesh, earcut), and 60 x 60 rays go from the camera to an upright
rectangle that faces it, through Embree; the hidden share is the share of rays that meet something before their end.
Size and counted part of a subject are those of the handbook: face 0.20 x 0.28 m about its point; of a person 1.75 m tall and
0.5 m wide the upper two thirds; vehicle 1.8 x 1.5 m from the ground.
"""

import json
import pathlib

import numpy as np
import trimesh
from shapely.geometry import Point, Polygon

BODIES = {"face": (0.20, 1.6 - 0.14, 1.6 + 0.14), "person": (0.5, 1.75 / 3, 1.75), "vehicle": (1.8, 0.0, 1.5)}
RAYS = 60


def star(rng, centre, size):
    count = int(rng.integers(3, 8))
    angles = np.sort(rng.uniform(0, 2 * np.pi, count))
    gaps = np.diff(np.append(angles, angles[0] + 2 * np.pi))
    if gaps.max() > np.pi - 0.2 or gaps.min() < 0.25:
        return None
    radii = rng.uniform(0.2, 1.0, count) * size
    return [[round(float(centre[0] + r * np.cos(a)), 3), round(float(centre[1] + r * np.sin(a)), 3)] for r, a in zip(radii, angles)]


def case(rng):
    subject = str(rng.choice(list(BODIES)))
    far, bearing = float(rng.uniform(4, 25)), float(rng.uniform(0, 2 * np.pi))
    target = np.round([far * np.sin(bearing), far * np.cos(bearing)], 3)
    towards = target / np.linalg.norm(target)
    right = np.array([towards[1], -towards[0]])
    height = round(float(rng.uniform(1.2, 5)), 2)
    width, low, high = BODIES[subject]
    obstacles = []
    while len(obstacles) < 4:
        along = rng.uniform(0.15, 0.95)
        centre = target * along + right * rng.normal(0, 0.4)
        outline = star(rng, centre, rng.uniform(0.15, 1.5))
        if outline is None or not Polygon(outline).is_valid:
            continue
        area = Polygon(outline)
        near = min(area.distance(Point(p)) for p in [(0, 0), target, target + right * width / 2, target - right * width / 2])
        if near < 0.05:
            continue
        line = height + (rng.uniform(low, high) - height) * along
        base = 0.0 if rng.random() < 0.8 else round(max(line - 0.1, 0.05), 2)
        obstacles.append({"outline": outline, "base_m": base, "top_m": round(max(line + rng.normal(0, 0.2), base + 0.1), 2)})
    parts = []
    for o in obstacles:
        part = trimesh.creation.extrude_polygon(Polygon(o["outline"]), o["top_m"] - o["base_m"])
        part.apply_translation([0, 0, o["base_m"]])
        parts.append(part)
    mesh = trimesh.util.concatenate(parts)
    steps = (np.arange(RAYS) + 0.5) / RAYS
    side, up = np.meshgrid((steps - 0.5) * width, low + steps * (high - low))
    ends = np.stack([target[0] + right[0] * side, target[1] + right[1] * side, up], -1).reshape(-1, 3)
    eye = np.array([0, 0, height])
    ways = ends - eye
    lengths = np.linalg.norm(ways, axis=1)
    tris = trimesh.ray.ray_pyembree.RayMeshIntersector(mesh)
    where, ray, _ = tris.intersects_location(np.tile(eye, (len(ways), 1)), ways / lengths[:, None], multiple_hits=False)
    hit = np.zeros(len(ways), bool)
    hit[ray] = np.linalg.norm(where - eye, axis=1) < lengths[ray] - 1e-6
    return {"subject": subject, "target": target.tolist(), "camera_height_m": height, "obstacles": obstacles, "hidden": round(float(hit.mean()), 5)}


def main():
    rng = np.random.default_rng(11)
    cases = []
    # As many that hide nothing, a part, and all.
    want = {"none": 60, "part": 120, "all": 30}
    while any(want.values()):
        found = case(rng)
        kind = "none" if found["hidden"] == 0 else "all" if found["hidden"] == 1 else "part"
        if want[kind]:
            want[kind] -= 1
            cases.append(found)
    text = ",\n".join(json.dumps(found) for found in cases)
    pathlib.Path(__file__).with_name("subjects.json").write_text(f"[\n{text}\n]\n")


if __name__ == "__main__":
    main()
