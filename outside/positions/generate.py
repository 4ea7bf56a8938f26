"""Where 500 points land in the pictures of ten heads, for crates/core/tests/picture_positions.rs, by OpenCV.

Pinhole heads: `projectPoints`. Equidistant ones: `fisheye.projectPoints` without its polynomial. Stereographic and equisolid ones:
the same with the polynomial that is the series of their own projection, 2 tan(θ/2) and 2 sin(θ/2), so that they are bent otherwise.
"""

import json
import pathlib

import cv2
import numpy as np

W, H, WIDTH_MM = 2688, 1520, 5.376
# Bend of the handbook's family → coefficients of θ³, θ⁵, θ⁷, θ⁹.
SERIES = {1.0: None, 0.0: [0, 0, 0, 0],
          0.5: [1 / 12, 1 / 120, 17 / 20160, 31 / 362880],
          -0.5: [-1 / 24, 1 / 1920, -1 / 322560, 1 / 92897280]}
# How far off the axis the points lie at most, as a tangent: the series is cut off, and OpenCV's pinhole has no picture beyond.
WIDE = {1.0: 1.0, 0.0: 1.2, 0.5: 0.75, -0.5: 1.2}


def axes(pan, tilt, roll):
    p, t, r = np.radians([pan, tilt, roll])
    forward = np.array([np.sin(p) * np.cos(t), np.cos(p) * np.cos(t), -np.sin(t)])
    right0 = np.array([np.cos(p), -np.sin(p), 0.0])
    down0 = np.cross(forward, right0)
    return np.stack([right0 * np.cos(r) + down0 * np.sin(r), down0 * np.cos(r) - right0 * np.sin(r), forward])


def hfov(bend, focal_mm):
    """The field across that a lens of this bend publishes, degrees."""
    r = WIDTH_MM / 2 / focal_mm
    half = {1.0: np.arctan(r), 0.0: r, 0.5: 2 * np.arctan(r / 2), -0.5: 2 * np.arcsin(r / 2)}[bend]
    return float(np.degrees(2 * half))


rng = np.random.default_rng(500)
heads = []
for number in range(10):
    bend = [1.0, 0.0, 0.5, -0.5, 1.0][number % 5]
    focal = [2.8, 2.6, 2.8, 2.7, 8.0, 4.0, 3.4, 4.0, 3.2, 12.0][number]
    pan, tilt, roll = (round(float(v), 2) for v in (rng.uniform(0, 360), rng.uniform(-5, 50), [0, 0, 90, 7, -30][number % 5]))
    eye = np.array([round(float(v), 2) for v in (*rng.uniform(-20, 20, 2), rng.uniform(1, 6))])
    rotation = axes(pan, tilt, roll)
    f = focal * W / WIDTH_MM
    k = np.array([[f, 0, W / 2], [0, f, H / 2], [0, 0, 1.0]])
    points = []
    while len(points) < 50:
        ahead = np.array([*rng.uniform(-1, 1, 2) * WIDE[bend], 1.0]) * rng.uniform(2, 60)
        # Inside the picture, roughly: a bent lens draws no farther out than a tangent does.
        if abs(f * ahead[0] / ahead[2]) < 0.49 * W and abs(f * ahead[1] / ahead[2]) < 0.49 * H:
            points.append(rotation.T @ ahead + eye)
    at = (np.array(points) - eye).reshape(-1, 1, 3)
    rvec, _ = cv2.Rodrigues(rotation)
    if SERIES[bend] is None:
        found, _ = cv2.projectPoints(at, rvec, np.zeros(3), k, None)
    else:
        found, _ = cv2.fisheye.projectPoints(at, rvec, np.zeros(3), k, np.array(SERIES[bend], dtype=np.float64))
    published = {} if bend == 1.0 else {"hfov_at_min_deg": hfov(bend, focal)}
    heads.append({"bend": bend, "focal_mm": focal, "lens": {"focal_min_mm": focal, "focal_max_mm": focal, **published},
                  "eye": [float(v) for v in eye], "pan_deg": pan, "tilt_deg": tilt, "roll_deg": roll,
                  "points": [{"at": [float(v) for v in p], "pixel": [float(v) for v in q]} for p, q in zip(points, found.reshape(-1, 2))]})
pathlib.Path(__file__).parent.joinpath("positions.json").write_text(json.dumps({"heads": heads}) + "\n")
