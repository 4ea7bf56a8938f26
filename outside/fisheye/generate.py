"""Pixels and densities of a round fisheye's picture, for crates/core/tests/fisheye.rs: OpenCV's fisheye model without its polynomial
(r = f·θ), the density as the length in the picture of a step of a tenth of a millimetre. Held on a ceiling, a wall and a table."""

import json
import pathlib

import cv2
import numpy as np

STEP = 1e-4
W, H, CIRCLE = 2592, 1944, 1944
FOCAL_MM = 1.2376
# r = f·θ: 180° across the image circle of 3.888 mm.
FOCAL_PX = CIRCLE / np.pi


def axes(pan, tilt, roll):
    p, t, r = np.radians([pan, tilt, roll])
    forward = np.array([np.sin(p) * np.cos(t), np.cos(p) * np.cos(t), -np.sin(t)])
    right0 = np.array([np.cos(p), -np.sin(p), 0.0])
    down0 = np.cross(forward, right0)
    right = right0 * np.cos(r) + down0 * np.sin(r)
    return np.stack([right, down0 * np.cos(r) - right0 * np.sin(r), forward])


def project(rotation, eye, points):
    camera = np.array([[FOCAL_PX, 0, W / 2], [0, FOCAL_PX, H / 2], [0, 0, 1.0]])
    at = (np.asarray(points, dtype=np.float64) - eye).reshape(-1, 1, 3)
    rvec, _ = cv2.Rodrigues(rotation)
    found, _ = cv2.fisheye.projectPoints(at, rvec, np.zeros(3), camera, np.zeros(4))
    return found.reshape(-1, 2)


rng = np.random.default_rng(9)
cases = []
for name, pan, tilt, roll, height in [("ceiling", 30, 90, 0, 3.1), ("wall", 215, 0, 0, 2.9), ("table", 120, -90, 0, 0.8), ("crooked", 75, 62, 20, 4.0)]:
    eye = np.array([5.0, -3.0, height])
    rotation = axes(pan, tilt, roll)
    looks = []
    while len(looks) < 12:
        point = eye + np.append(rng.uniform(-9, 9, 2), 0)
        point[2] = rng.uniform(0, 3.5)
        ahead = rotation @ (point - eye)
        # OpenCV's model ends where the axis plane does.
        if ahead[2] < 0.15 * np.linalg.norm(ahead):
            continue
        flat = (point - eye)[:2]
        square = np.array([flat[1], -flat[0], 0]) / np.linalg.norm(flat)
        around = [point, point + square * STEP, point - square * STEP, point + [0, 0, STEP], point - [0, 0, STEP]]
        at = project(rotation, eye, around)
        looks.append({"point": [float(v) for v in point], "pixel": [float(v) for v in at[0]],
                      "across": float(np.linalg.norm(at[1] - at[2]) / (2 * STEP)), "up": float(np.linalg.norm(at[3] - at[4]) / (2 * STEP)),
                      "in_view": bool(np.linalg.norm(at[0] - [W / 2, H / 2]) <= CIRCLE / 2)})
    cases.append({"name": name, "eye": [float(v) for v in eye], "pan_deg": pan, "tilt_deg": tilt, "roll_deg": roll, "looks": looks})
pathlib.Path(__file__).parent.joinpath("fisheye.json").write_text(json.dumps({"focal_mm": FOCAL_MM, "cases": cases}, indent=1) + "\n")
