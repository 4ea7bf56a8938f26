"""Maps of four corners onto 1920 × 1080 by OpenCV's getPerspectiveTransform, for crates/core/src/math/homography.rs."""

import json
import pathlib

import cv2
import numpy as np

rng = np.random.default_rng(4)
found = []
for _ in range(12):
    square = np.array([[200, 150], [1500, 150], [1500, 900], [200, 900]]) + rng.uniform(-120, 120, (4, 2))
    to = np.array([[0, 0], [1920, 0], [1920, 1080], [0, 1080]], dtype=np.float32)
    exact = square.astype(np.float32)
    found.append([exact.astype(float).tolist(), cv2.getPerspectiveTransform(exact, to).ravel().tolist()])
pathlib.Path(__file__).with_name("straighten.json").write_text(json.dumps(found, indent=1) + "\n")
