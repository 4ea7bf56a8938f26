"""Pairs of what a fixed view and a turned head both see, for crates/core/tests/link.rs. The pixels come from OpenCV's projectPoints; pan
and tilt are read off a head whose place and scales differ from the drawing by known figures. For crates/core/tests/centred.rs the same things
stand somewhere in the turned head's own picture while it looks elsewhere."""

import json
import pathlib

import cv2
import numpy as np

W, H, FOCAL = 1920, 1080, 6.0
FOCAL_PX = FOCAL * W / 5.376


def axes(pan, tilt):
    p, t = np.radians([pan, tilt])
    forward = np.array([np.sin(p) * np.cos(t), np.cos(p) * np.cos(t), -np.sin(t)])
    right = np.array([np.cos(p), -np.sin(p), 0.0])
    return np.stack([right, np.cross(forward, right), forward])


def pixel_of(look, direction):
    rvec, _ = cv2.Rodrigues(look)
    pixel, _ = cv2.projectPoints(direction.reshape(1, 1, 3), rvec, np.zeros(3), np.array([[FOCAL_PX, 0, W / 2], [0, FOCAL_PX, H / 2], [0, 0, 1.0]]), None)
    return [float(x) for x in pixel.reshape(2)]


rng = np.random.default_rng(5)
elsewhere = np.random.default_rng(6)
cases = []
for number in range(6):
    eye = np.array([rng.uniform(-3, 3), rng.uniform(-3, 3), rng.uniform(3, 6)])
    pan, tilt = rng.uniform(0, 360), rng.uniform(14, 24)
    look = axes(pan, tilt)
    drawn = np.append(eye[:2] + rng.uniform(-12, 12, 2), rng.uniform(4, 8))
    moved = rng.uniform(-0.4, 0.4, 3)
    zero, lean = rng.uniform(0, 360), rng.uniform(-1.5, 1.5)
    # Its own axes: turned about the plumb line, then leaning about its own east.
    c, s = np.cos(np.radians(-zero)), np.sin(np.radians(-zero))
    about_up = np.array([[c, -s, 0], [s, c, 0], [0, 0, 1]])
    c, s = np.cos(np.radians(lean)), np.sin(np.radians(lean))
    own = about_up @ np.array([[1, 0, 0], [0, c, -s], [0, s, c]])
    pairs = []
    while len(pairs) < 7:
        ahead = look[2] * [1, 1, 0] / np.linalg.norm(look[2][:2])
        side = np.array([ahead[1], -ahead[0], 0])
        point = (eye * [1, 1, 0]) + ahead * rng.uniform(9, 32) + side * rng.uniform(-8, 8)
        rvec, _ = cv2.Rodrigues(look)
        pixel, _ = cv2.projectPoints(point.reshape(1, 1, 3), rvec, -look @ eye, np.array([[FOCAL_PX, 0, W / 2], [0, FOCAL_PX, H / 2], [0, 0, 1.0]]), None)
        u, v = pixel.reshape(2)
        if not (0 <= u <= W and 0 <= v <= H):
            continue
        direction = own.T @ ((point - drawn - moved) / np.linalg.norm(point - drawn - moved))
        own_pan, own_tilt = np.degrees(np.arctan2(direction[0], direction[1])) % 360, -np.degrees(np.arcsin(direction[2]))
        stood = (own_pan + elsewhere.uniform(-18, 18)) % 360, own_tilt + elsewhere.uniform(-10, 10)
        pairs.append({"pixel": [float(u), float(v)], "pan_deg": float(own_pan), "tilt_deg": float(own_tilt), "point": [float(x) for x in point],
                      "stood": [float(x) for x in stood], "seen_at": pixel_of(axes(*stood), direction)})
    cases.append({"eye": eye.tolist(), "pan_deg": pan, "tilt_deg": tilt, "drawn": drawn.tolist(), "position": (drawn + moved).tolist(),
                  "pan_zero_deg": zero, "lean_deg": lean, "pairs": pairs})
pathlib.Path(__file__).parent.joinpath("link.json").write_text(json.dumps(cases, indent=1) + "\n")
