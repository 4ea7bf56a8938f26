"""Where points of the photographs lie once OpenCV has turned them (cases.json), for crates/server/tests/comparing.rs: the same K R' K^-1 that made
the pictures, by cv2.perspectiveTransform. Pixels have their centres at whole numbers there and at halves in the table."""

import json
import pathlib

import cv2
import numpy as np

HERE = pathlib.Path(__file__).parent
W, H = 640, 360
TABLE = json.loads((HERE / "cases.json").read_text())


def camera(focal):
    return np.array([[focal, 0, (W - 1) / 2], [0, focal, (H - 1) / 2], [0, 0, 1]])


def axes(right, down, roll):
    """Right, down and forward of the turned camera: by cv2.Rodrigues about the first camera's down, then its own right, then its own forward."""
    about = [np.array([0, right, 0.0]), np.array([-down, 0, 0.0]), np.array([0, 0, roll])]
    turn = np.eye(3)
    for axis in about:
        turn = turn @ cv2.Rodrigues(np.radians(axis))[0]
    return turn


rng = np.random.default_rng(28)
found = []
for case in TABLE["cases"]:
    if not case["turn"]:
        continue
    right, down, roll, scale = case["turn"]
    focal = W / 2 / np.tan(np.radians(TABLE["field_deg"] / 2))
    turn = camera(focal * scale) @ axes(right, down, roll).T @ np.linalg.inv(camera(focal))
    points = np.stack([rng.uniform(20, W - 20, 20), rng.uniform(20, H - 20, 20)], 1)
    to = cv2.perspectiveTransform((points - 0.5).reshape(-1, 1, 2), turn).reshape(-1, 2) + 0.5
    pairs = [[[round(float(x), 3) for x in a], [round(float(x), 3) for x in b]] for a, b in zip(points, to)]
    found.append({"before": case["before"], "after": case["after"], "points": pairs})
(HERE / "points.json").write_text(json.dumps(found, indent=1) + "\n")
