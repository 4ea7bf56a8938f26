"""Where a plate reads on its way, and its blur, by OpenCV's projectPoints and differences: 40 cameras beside 40 ways, nothing in between.

Read is: the whole plate (upright, facing the camera) in the picture, density x cos of the side angle at least 250 px/m, both angles at
most 15 degrees; the longest run of samples 0.1 m apart.
"""

import json
import pathlib

import cv2
import numpy as np

W, H, WIDTH_MM = 1920, 1080, 5.376
PLATE = (0.52, 0.11)


def axes(pan, tilt):
    p, t = np.radians([pan, tilt])
    f = np.array([np.sin(p) * np.cos(t), np.cos(p) * np.cos(t), -np.sin(t)])
    right = np.array([np.cos(p), -np.sin(p), 0.0])
    return np.stack([right, np.cross(f, right), f])


def projector(eye, pan, tilt, focal_mm):
    rotation = axes(pan, tilt)
    rvec, _ = cv2.Rodrigues(rotation)
    f = focal_mm * W / WIDTH_MM
    camera = np.array([[f, 0, W / 2], [0, f, H / 2], [0, 0, 1.0]])

    def project(points):
        at = (np.atleast_2d(points) - eye).reshape(-1, 1, 3)
        pixels, _ = cv2.projectPoints(at, rvec, np.zeros(3), camera, None)
        ahead = (at[:, 0] @ rotation[2]) > 0
        return pixels[:, 0], ahead

    return project


def case(rng):
    focal = round(float(rng.uniform(8, 32)), 1)
    eye = np.array([round(float(v), 2) for v in (rng.uniform(-3, 3), rng.uniform(-3, 3), rng.uniform(0.7, 2.5))])
    far = rng.uniform(12, 45)
    way = rng.uniform(-0.15, 0.15)
    begin = np.array([round(float(v), 2) for v in (rng.uniform(-3, 3), far + 6)])
    end = np.array([round(float(v), 2) for v in (begin[0] + way * 20, max(far - 18, 2))])
    aim = begin + (end - begin) * rng.uniform(0.2, 0.6)
    step = np.append(aim, 0.7) - eye
    pan = round(float(np.degrees(np.arctan2(step[0], step[1]))), 1) % 360
    tilt = round(float(np.degrees(np.arctan2(-step[2], np.hypot(step[0], step[1])))), 1)
    speed = round(float(rng.uniform(0.5, 20)), 1)
    shutter = float(1 / rng.choice([250, 500, 1000, 2000]))
    project = projector(eye, pan, tilt, focal)
    travel = np.append(end - begin, 0.0) / np.linalg.norm(end - begin)
    length = np.linalg.norm(end - begin)
    reads, rows = [], []
    for i in range(int(np.floor(length / 0.1 * (1 + 1e-12))) + 1):
        at = np.append(begin, 0.7) + travel * 0.1 * i
        to_eye = (eye - at)[:2]
        ground = np.linalg.norm(to_eye)
        square = np.array([to_eye[1], -to_eye[0], 0.0]) / ground
        side = np.degrees(np.arccos(min(1.0, abs(to_eye @ travel[:2]) / ground)))
        steep = np.degrees(np.arctan2(abs(eye[2] - at[2]), ground))
        corners = [at + square * sx * PLATE[0] / 2 + np.array([0, 0, sz * PLATE[1] / 2]) for sx in (-1, 1) for sz in (-1, 1)]
        pixels, ahead = project(np.array(corners + [at]))
        holds = ahead.all() and (pixels >= 0).all() and (pixels[:, 0] <= W).all() and (pixels[:, 1] <= H).all()
        d = 1e-5
        pair, _ = project(np.array([at - square * d, at + square * d]))
        across = np.linalg.norm(pair[1] - pair[0]) / (2 * d)
        pair, _ = project(np.array([at - [0, 0, d], at + [0, 0, d]]))
        up = np.linalg.norm(pair[1] - pair[0]) / (2 * d)
        pair, _ = project(np.array([at - travel * d, at + travel * d]))
        moved = np.linalg.norm(pair[1] - pair[0]) / (2 * d) * speed * shutter
        shown = across * np.cos(np.radians(side))
        reads.append(bool(holds and shown >= 250 and side <= 15 and steep <= 15))
        rows.append((0.1 * i, np.linalg.norm(eye - at), across, up, moved, shown * PLATE[0]))
    best, run = None, None
    for i, ok in enumerate(reads):
        run = (run if run is not None else i) if ok else None
        if run is not None and (best is None or i - run > best[1] - best[0]):
            best = (run, i)
    found = None
    if best:
        part = np.array(rows[best[0]:best[1] + 1])
        near, far_m = part[:, 1].min(), part[:, 1].max()
        found = {"from": part[0, 0], "to": part[-1, 0], "near_m": near, "far_m": far_m, "blur_px": part[:, 4].max(),
                 "char_height_px": part[:, 3].min() * 0.079, "stroke_px": part[:, 2].min() * 0.014,
                 "scene_width_m": W / part[:, 2].min(), "size_window_px": [0.9 * part[:, 5].min(), 1.1 * part[:, 5].max()],
                 "time_s": (part[-1, 0] - part[0, 0]) / speed}
    return {"focal_mm": focal, "eye": eye.tolist(), "pan_deg": pan, "tilt_deg": tilt, "speed_mps": speed, "shutter_s": shutter,
            "way": [begin.tolist(), end.tolist()], "found": found}


rng = np.random.default_rng(88)
cases = [case(rng) for _ in range(40)]
pathlib.Path(__file__).parent.joinpath("plates.json").write_text(json.dumps(cases, default=float) + "\n")
print(sum(c["found"] is not None for c in cases), "read")
