"""What of a camera's body is seen from where somebody stands, by ray casting (trimesh on Embree), for crates/core/tests/seen.rs.

Solids are extruded meshes. A body is a disc square to the line, of which many random points are looked at; whoever looks stands at a
place, or at random places of the box that its distance leaves open, not behind what stands between the two.
"""

import json
import math
import pathlib

import numpy as np
import trimesh
from shapely.geometry import Point, Polygon

# Widths of bodies by form, m, and the height of eyes: as docs/methods.md states them.
BODY = {"bullet": 0.09, "turret": 0.11, "dome": 0.12, "ptz": 0.20}
EYES = 1.6
# The uncertainties that the test's sites state: along and across the line, and how much lower or higher eyes may be.
ALONG, ACROSS, RISE = 0.2, 0.5, 0.15 + 0.06
FAR = 28.0


def outline(rng):
    angles = np.sort(rng.uniform(0, 2 * np.pi, int(rng.integers(3, 7))))
    gaps = np.diff(np.append(angles, angles[0] + 2 * np.pi))
    if gaps.max() > np.pi - 0.1 or gaps.min() < 0.2:
        return outline(rng)
    # Posts, and things as large as sheds.
    size = rng.choice([0.08, 0.5, 2.5])
    centre = rng.uniform(-12, 12, 2)
    radii = rng.uniform(0.6, 1.4, len(angles)) * size
    return [[round(float(centre[0] + r * np.cos(a)), 3), round(float(centre[1] + r * np.sin(a)), 3)] for r, a in zip(radii, angles)]


class Scene:
    def __init__(self, solids):
        meshes = []
        for ring, base, top in solids:
            mesh = trimesh.creation.extrude_polygon(Polygon(ring), top - base)
            mesh.apply_translation([0, 0, base])
            meshes.append(mesh)
        self.mesh = trimesh.util.concatenate(meshes)

    def free(self, starts, ends):
        """Whether each straight line is free of all solids."""
        steps = ends - starts
        lengths = np.linalg.norm(steps, axis=1)
        where, ray, _ = self.mesh.ray.intersects_location(starts, steps / lengths[:, None], multiple_hits=False)
        free = np.ones(len(starts), bool)
        hits = np.linalg.norm(where - starts[ray], axis=1) < lengths[ray] - 1e-6
        free[ray[hits]] = False
        return free


def body_points(rng, eye, middle, radius, count):
    line = (middle - eye) / np.linalg.norm(middle - eye)
    right = np.cross(line, [0, 0, 1.0])
    right /= np.linalg.norm(right)
    up = np.cross(right, line)
    angle, out = rng.uniform(0, 2 * np.pi, count), radius * np.sqrt(rng.uniform(0, 1, count))
    return middle + out[:, None] * (np.cos(angle)[:, None] * right + np.sin(angle)[:, None] * up)


def share(rng, scene, eye, middle, radius, count):
    ends = body_points(rng, eye, middle, radius, count)
    return float(scene.free(np.repeat(eye[None], count, 0), ends).mean())


def shares_around(rng, scene, at, middle, radius, wider, count=250):
    """The least and the greatest share over the places where he may stand."""
    away = (at - middle)[:2]
    away = away / np.linalg.norm(away)
    right = np.array([away[1], -away[0]])
    offs = rng.uniform(-1, 1, (count, 3)) * np.array([ALONG, ACROSS, RISE]) * wider
    flat = at[:2] + offs[:, :1] * away + offs[:, 1:2] * right
    eyes = np.column_stack([flat, at[2] + offs[:, 2]])
    stands = np.column_stack([np.repeat(at[None, :2], count, 0), eyes[:, 2]])
    eyes = eyes[scene.free(stands, eyes)]
    found = [share(rng, scene, eye, middle, radius, 60) for eye in eyes]
    return (min(found), max(found)) if found else (0.0, 0.0)


def main():
    rng = np.random.default_rng(2311)
    sites = []
    for _ in range(24):
        solids = []
        for _ in range(int(rng.integers(5, 12))):
            base = float(rng.choice([0.0, 0.0, 1.2]))
            solids.append((outline(rng), base, round(base + float(rng.uniform(0.6, 5)), 2)))
        ground = [Polygon(ring) for ring, _, _ in solids]
        scene = Scene(solids)
        near = lambda p, off: any(shape.distance(Point(p)) < off for shape in ground)
        cameras, places = [], []
        while len(cameras) < 4:
            at = rng.uniform(-14, 14, 2).round(2)
            if not near(at, 0.3):
                cameras.append({"form": str(rng.choice(list(BODY))), "at": [*map(float, at), round(float(rng.uniform(2, 5)), 2)]})
        while len(places) < 10:
            at = rng.uniform(-14, 14, 2).round(2)
            if not near(at, 0.02):
                places.append([*map(float, at)])
        cases = []
        for c, camera in enumerate(cameras):
            middle, radius = np.array(camera["at"]), BODY[camera["form"]] / 2
            for p, place in enumerate(places):
                eye = np.array([*place, EYES])
                if np.linalg.norm(middle - eye) > FAR or math.dist(place, camera["at"][:2]) < 1:
                    continue
                least, most = shares_around(rng, scene, eye, middle, radius, 1.0)
                none = shares_around(rng, scene, eye, middle, radius, 1.15)[1] == 0.0
                stated = share(rng, scene, eye, middle, radius, 1500)
                cases.append({"camera": c, "place": p, "free": round(stated, 3), "least": round(least, 3), "most": round(most, 3), "never": none})
        sites.append({"solids": [{"ring": r, "base": b, "top": t} for r, b, t in solids], "cameras": cameras, "places": places, "cases": cases})
    out = pathlib.Path(__file__).with_name("seen.json")
    out.write_text(json.dumps({"along_m": ALONG, "across_m": ACROSS, "sites": sites}, separators=(",", ":")) + "\n")
    free = [case["free"] for site in sites for case in site["cases"]]
    print(len(free), sum(0.02 < f < 0.98 for f in free), sum(f == 0 for f in free))


main()
