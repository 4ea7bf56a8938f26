"""What 100 000 random rays meet first, and how far away, for crates/core/tests/picture_rays.rs.

Another way than the code's: solids become triangle meshes (trimesh, earcut), thin walls two triangles each, the ground two large
ones, and Embree follows the rays. Which pixel each ray goes through comes from a hash of its number (splitmix64), so that it need
not be written down; the ray of a pixel is the plain pinhole's.

site.json: the site. rays.bin: for each ray one byte (the solid's place; 254 the ground, 255 the sky) and four of its distance
(little-endian float, m; zero for the sky).
"""

import json
import pathlib

import numpy as np
import trimesh
from shapely.geometry import Polygon

RAYS = 100_000
GROUND, SKY = 254, 255
# The ground is square, so far from its middle to its sides, m: rays that come down beyond it meet the sky here, and are left out there.
REACH = 4000.0
W, H, WIDTH_MM = 2688, 1520, 5.376


def splitmix(numbers):
    z = (numbers.astype(np.uint64) + np.uint64(1)) * np.uint64(0x9E3779B97F4A7C15)
    z = (z ^ (z >> np.uint64(30))) * np.uint64(0xBF58476D1CE4E5B9)
    z = (z ^ (z >> np.uint64(27))) * np.uint64(0x94D049BB133111EB)
    return z ^ (z >> np.uint64(31))


def share(numbers):
    """Between 0 and 1 from the upper 53 bits of the hash."""
    return (splitmix(numbers) >> np.uint64(11)).astype(np.float64) / 2.0**53


def star(rng, centre, count):
    angles = np.sort(rng.uniform(0, 2 * np.pi, count))
    gaps = np.diff(np.append(angles, angles[0] + 2 * np.pi))
    if gaps.max() > np.pi - 0.2 or gaps.min() < 0.25:
        return None
    radii = rng.uniform(1.0, 5.0, count)
    return [[round(float(centre[0] + r * np.cos(a)), 2), round(float(centre[1] + r * np.sin(a)), 2)] for r, a in zip(radii, angles)]


def make_site(rng):
    cameras = []
    for i, (focal, roll) in enumerate([(2.4, 0), (4.0, 0), (2.8, 90), (6.0, 13)]):
        cameras.append({"id": f"c{i}", "name": f"C{i}", "position": [round(float(v), 2) for v in rng.uniform(-20, 20, 2)],
                        "height_m": [3.2, 5.1, 1.4, 2.7][i],
                        "model": {"name": "Made up", "form": "bullet",
                                  "sensor": {"width_px": W, "height_px": H, "width_mm": WIDTH_MM, "height_mm": WIDTH_MM * H / W},
                                  "lens": {"focal_min_mm": focal, "focal_max_mm": focal}},
                        "heads": [{"id": "h", "pan_deg": round(float(rng.uniform(0, 360)), 1), "tilt_deg": round(float(rng.uniform(2, 25)), 1),
                                   "roll_deg": roll, "focal_mm": focal}]})
    obstacles = []
    while len(obstacles) < 90:
        centre = rng.uniform(-40, 40, 2)
        if min(np.hypot(*(centre - np.array(c["position"]))) for c in cameras) < 6:
            continue
        wall = len(obstacles) % 4 == 3
        if wall:
            outline = [[round(float(v), 2) for v in centre + rng.uniform(-4, 4, 2)] for _ in range(2)]
        else:
            outline = star(rng, centre, int(rng.integers(4, 9)))
            if outline is None:
                continue
        base = 0.0 if rng.random() < 0.75 else round(float(rng.uniform(0.3, 2.5)), 2)
        obstacles.append({"id": f"o{len(obstacles)}", "name": "O", "kind": "other", "outline": outline, "closed": not wall, "base_m": base,
                          "top_m": round(base + float(rng.uniform(0.4, 4.5)), 2)})
    return {"format": "bright-angle/site", "version": 1, "name": "Rays", "obstacles": obstacles, "targets": [], "cameras": cameras}


def mesh_of(obstacles):
    """All triangles, and whose each is."""
    parts, owners = [], []
    for place, o in enumerate(obstacles):
        if o["closed"]:
            part = trimesh.creation.extrude_polygon(Polygon(o["outline"]), o["top_m"] - o["base_m"])
            part.apply_translation([0, 0, o["base_m"]])
        else:
            a, b = o["outline"]
            corners = [[*a, o["base_m"]], [*b, o["base_m"]], [*b, o["top_m"]], [*a, o["top_m"]]]
            part = trimesh.Trimesh(corners, [[0, 1, 2], [0, 2, 3]], process=False)
        parts.append(part)
        owners += [place] * len(part.faces)
    r = REACH
    parts.append(trimesh.Trimesh([[-r, -r, 0], [r, -r, 0], [r, r, 0], [-r, r, 0]], [[0, 1, 2], [0, 2, 3]], process=False))
    owners += [GROUND] * 2
    return trimesh.util.concatenate(parts), np.array(owners)


def axes(head):
    p, t, r = (np.radians(head[k]) for k in ("pan_deg", "tilt_deg", "roll_deg"))
    forward = np.array([np.sin(p) * np.cos(t), np.cos(p) * np.cos(t), -np.sin(t)])
    right0 = np.array([np.cos(p), -np.sin(p), 0.0])
    down0 = np.cross(forward, right0)
    return np.stack([right0 * np.cos(r) + down0 * np.sin(r), down0 * np.cos(r) - right0 * np.sin(r), forward])


site = make_site(np.random.default_rng(31))
mesh, owners = mesh_of(site["obstacles"])
embree = trimesh.ray.ray_pyembree.RayMeshIntersector(mesh)
each = RAYS // len(site["cameras"])
met = np.full(RAYS, SKY, dtype=np.uint8)
distances = np.zeros(RAYS, dtype="<f4")
for place, camera in enumerate(site["cameras"]):
    numbers = np.arange(place * each, (place + 1) * each, dtype=np.uint64)
    u, v = share(2 * numbers) * W, share(2 * numbers + np.uint64(1)) * H
    f = camera["heads"][0]["focal_mm"] * W / WIDTH_MM
    seen = np.stack([(u - W / 2) / f, (v - H / 2) / f, np.ones(each)], axis=1)
    directions = seen @ axes(camera["heads"][0])
    directions /= np.linalg.norm(directions, axis=1, keepdims=True)
    eye = np.array([*camera["position"], camera["height_m"]])
    at, rays, triangles = embree.intersects_location(np.tile(eye, (each, 1)), directions, multiple_hits=False)
    met[place * each + rays] = owners[triangles]
    distances[place * each + rays] = np.linalg.norm(at - eye, axis=1)
here = pathlib.Path(__file__).parent
here.joinpath("site.json").write_text(json.dumps(site, indent=None, separators=(",", ":")) + "\n")
rows = np.zeros(RAYS, dtype=[("met", "u1"), ("distance", "<f4")])
rows["met"], rows["distance"] = met, distances
here.joinpath("rays.bin").write_bytes(rows.tobytes())
print({name: int((met == code).sum()) for name, code in (("ground", GROUND), ("sky", SKY))}, "of", RAYS)
