"""Light by night, held against what is not the program's own formula.

1. A lamp of so many lumens: its flux is integrated over the lower hemisphere and over a closed box around it, numerically, from the
   illuminance that the closed form gives; both must come back as the lumens. The box's walls are upright and level surfaces as targets are.
2. Worked examples of the inverse square and cosine laws as lighting handbooks print them (from memory of the IES Lighting Handbook's
   chapter on calculations: point source, E = I cos(theta) / d^2).
3. A small path tracer with its own camera, its own rays and its own sampling (numpy only): a road, walls and a plate under the infrared light
   of the camera. It gives the exposure that brings the mean of the picture to 18 % of white, hence how bright the plate becomes and whether it
   bleaches; once by direct light, and once with one bounce of light between the surfaces, to show what is left out.
"""

import json
from pathlib import Path

import numpy as np

rng = np.random.default_rng(20261129)


def flux():
    """Lumens that come back from integrating E over a box around a lamp, of a lamp of 1000 cd into the lower half space."""
    half, floor = 4.0, 5.0
    n = 400
    side = (np.arange(n) + 0.5) / n
    total = 0.0
    # The floor, level.
    x, y = np.meshgrid(half * (2 * side - 1), half * (2 * side - 1))
    d2 = x**2 + y**2 + floor**2
    total += np.sum(1000.0 * (floor / np.sqrt(d2)) / d2) * (2 * half / n) ** 2
    # Four walls, upright, below the lamp.
    along, down = np.meshgrid(half * (2 * side - 1), floor * side)
    d2 = along**2 + down**2 + half**2
    total += 4 * np.sum(1000.0 * (half / np.sqrt(d2)) / d2) * (2 * half / n) * (floor / n)
    return {"candela": 1000.0, "box_lumens": float(total), "hemisphere_lumens": float(1000.0 * 2 * np.pi)}


EXAMPLES = [
    # candela, height of the lamp over the point, horizontal distance, level or upright, lux as the handbook's example gives it
    {"candela": 1000, "over_m": 5, "beside_m": 0, "surface": "level", "lux": 40.0},
    {"candela": 1000, "over_m": 5, "beside_m": 5, "surface": "level", "lux": 14.142135623730951},
    {"candela": 1000, "over_m": 3, "beside_m": 4, "surface": "upright", "lux": 32.0},
    {"candela": 1000, "over_m": 3, "beside_m": 4, "surface": "level", "lux": 24.0},
    {"candela": 250, "over_m": 6, "beside_m": 8, "surface": "upright", "lux": 2.0},
]

PLATE, GROUND, WALL, VEHICLE, WHITE, GREY = 0.60, 0.36, 0.25, 0.25, 0.9, 0.18


def axes(tilt):
    t = np.radians(tilt)
    forward = np.array([0.0, np.cos(t), -np.sin(t)])
    right = np.array([1.0, 0.0, 0.0])
    return forward, right, np.cross(forward, right)


def meet(origins, directions, case):
    """The first surface along rays: distance, albedo, normal, whether a plate."""
    count = len(directions)
    best = np.full(count, np.inf)
    albedo, normal, plate = np.zeros(count), np.zeros((count, 3)), np.zeros(count, bool)

    def take(t, mask, a, n, is_plate=False):
        closer = mask & (t > 1e-6) & (t < best)
        best[closer], albedo[closer], normal[closer], plate[closer] = t[closer], a, n, is_plate

    with np.errstate(divide="ignore", invalid="ignore"):
        t = -origins[:, 2] / directions[:, 2]
        take(t, directions[:, 2] < 0, GROUND, (0, 0, 1))
        for wall in case["walls"]:
            # Upright, along x from x0 to x1 at a distance y, up to its top.
            t = (wall["y"] - origins[:, 1]) / directions[:, 1]
            at = origins + directions * t[:, None]
            inside = (at[:, 0] > wall["x"][0]) & (at[:, 0] < wall["x"][1]) & (at[:, 2] > 0) & (at[:, 2] < wall["top"])
            take(t, inside & (directions[:, 1] > 0), WALL, (0, -1, 0))
        far, up = case["plate"]
        t = (far - origins[:, 1]) / directions[:, 1]
        at = origins + directions * t[:, None]
        low = up - 0.75
        body = (np.abs(at[:, 0]) < 0.9) & (at[:, 2] > low) & (at[:, 2] < low + 1.5) & (directions[:, 1] > 0)
        take(t, body, VEHICLE, (0, -1, 0))
        own = (np.abs(at[:, 0]) < 0.26) & (np.abs(at[:, 2] - up) < 0.055) & (directions[:, 1] > 0)
        take(t - 1e-9, own, PLATE, (0, -1, 0), True)
    return best, albedo, normal, plate


def direct(points, normals, case, forward, eye):
    step = points - eye
    s = np.linalg.norm(step, axis=1)
    cos_axis = np.clip((step / s[:, None]) @ forward, 0, 1)
    m = np.log(0.5) / np.log(np.cos(np.radians(case["beam_deg"] / 2)))
    slope = np.clip(-np.einsum("ij,ij->i", normals, step / s[:, None]), 0, 1)
    return (case["range_m"] / s) ** 2 * cos_axis**m, slope


def trace(case, bounces):
    eye = np.array([0.0, 0.0, case["height"]])
    forward, right, down = axes(case["tilt"])
    n = np.array(case["grid"])
    u = (rng.random((n[1], n[0])) + np.arange(n[0])[None, :]) / n[0] - 0.5
    v = (rng.random((n[1], n[0])) + np.arange(n[1])[:, None]) / n[1] - 0.5
    w, h, f = case["sensor_mm"][0], case["sensor_mm"][1], case["focal_mm"]
    rays = forward + (u * w / f)[..., None] * right + (v * h / f)[..., None] * down
    rays = (rays / np.linalg.norm(rays, axis=-1, keepdims=True)).reshape(-1, 3)
    origins = np.broadcast_to(eye, rays.shape)
    t, albedo, normal, plate = meet(origins, rays, case)
    hit = np.isfinite(t)
    light = np.zeros(len(rays))
    at = eye + rays[hit] * t[hit][:, None]
    falls, slope = direct(at, normal[hit], case, forward, eye)
    own = albedo[hit] * np.where(plate[hit], 50.0 * falls, falls * slope)
    if bounces:
        # One diffuse bounce: a direction over the surface, by the cosine; what it meets sends back what falls on it.
        k = 16
        extra = np.zeros(len(at))
        for _ in range(k):
            a, b = rng.random(len(at)), rng.random(len(at)) * 2 * np.pi
            r = np.sqrt(a)
            n0 = normal[hit]
            helper = np.where(np.abs(n0[:, 2:3]) > 0.9, [[1.0, 0, 0]], [[0, 0, 1.0]])
            t0 = np.cross(n0, helper)
            t0 /= np.linalg.norm(t0, axis=1, keepdims=True)
            t1 = np.cross(n0, t0)
            way = t0 * (r * np.cos(b))[:, None] + t1 * (r * np.sin(b))[:, None] + n0 * np.sqrt(1 - a)[:, None]
            t2, a2, n2, _ = meet(at + n0 * 1e-4, way, case)
            ok = np.isfinite(t2)
            point = at[ok] + way[ok] * t2[ok][:, None]
            falls2, slope2 = direct(point, n2[ok], case, forward, eye)
            extra[ok] += a2[ok] * falls2 * slope2
        own = own + albedo[hit] * extra / k
    light[hit] = WHITE * own
    low, high = 1e-9, 1.0
    mean = lambda k: np.mean(np.minimum(1.0, light * k))
    if mean(high) <= GREY:
        k = high
    else:
        for _ in range(80):
            middle = np.sqrt(low * high)
            low, high = (low, middle) if mean(middle) > GREY else (middle, high)
        k = low
    far, up = case["plate"]
    plate_at = np.array([[0.0, far, up]])
    falls, _ = direct(plate_at, np.array([[0.0, -1.0, 0.0]]), case, forward, eye)
    return float(50.0 * falls[0] * k)


def cases():
    found = []
    for number in range(24):
        case = {
            "height": float(rng.uniform(0.9, 3.0)),
            "range_m": float(rng.uniform(20, 60)),
            "beam_deg": float(rng.uniform(40, 100)),
            "focal_mm": float(rng.uniform(4, 16)),
            "sensor_mm": [5.376, 3.024],
            "grid": [480, 270],
            "plate": [float(rng.uniform(6, 22)), 0.75],
            "walls": [],
        }
        case["tilt"] = float(np.degrees(np.arctan2(case["height"] - 0.75, case["plate"][0])) + rng.uniform(-2, 2))
        if number % 3:
            near = number % 3 == 2
            y = float(rng.uniform(0.3, 0.8) if near else rng.uniform(1.5, 12))
            x = float(rng.uniform(0.03, 0.1) if near else rng.uniform(0.7, 1.6))
            case["walls"].append({"y": y, "x": [x, x + 8.0], "top": float(rng.uniform(2, 5))})
        if number % 2:
            case["walls"].append({"y": case["plate"][0] + 6.0, "x": [-12.0, 12.0], "top": 5.0})
        case["times"] = trace(case, 0)
        case["times_with_a_bounce"] = trace(case, 1)
        found.append(case)
    return found


if __name__ == "__main__":
    data = {"flux": flux(), "examples": EXAMPLES, "cases": cases()}
    Path(__file__).with_name("light.json").write_text(json.dumps(data, indent=1) + "\n")
