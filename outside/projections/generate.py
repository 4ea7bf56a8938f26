"""Projections and pixel densities by OpenCV, for crates/core/tests/projections.rs.

Rectilinear pictures come from cv2.projectPoints, equidistant ones from cv2.fisheye.projectPoints (no distortion:
r = f theta). Densities are OpenCV's own Jacobian by the translation, turned into the step along the ground square to
the bearing (across) and straight up (up). The camera's axes are built by turning about axes with cv2.Rodrigues, not by
the formulas under test.
"""

import csv
import pathlib

import cv2
import numpy as np

SENSORS = [(1920, 1080, 5.376, 3.024), (2688, 1520, 5.376, 3.04), (3840, 2160, 7.68, 4.32)]


def turn(axis, degrees):
    return cv2.Rodrigues(np.asarray(axis, float) * np.radians(degrees))[0]


def axes(pan, tilt, roll):
    """Rows right, down, forward of a camera that looked north and level, then rolled, tilted and panned."""
    level = np.array([[1.0, 0, 0], [0, 0, -1], [0, 1, 0]])
    rolled = level @ turn([0, 1, 0], roll).T  # clockwise as seen from behind
    tilted = rolled @ turn([1, 0, 0], -tilt).T  # down is positive
    return tilted @ turn([0, 0, 1], -pan).T  # bearings run clockwise


def project(kind, rotation, position, matrix, point):
    rvec = cv2.Rodrigues(rotation)[0]
    tvec = -rotation @ position
    if kind == "equidistant":
        pixel, jac = cv2.fisheye.projectPoints(point.reshape(1, 1, 3), rvec, tvec, matrix, np.zeros(4))
        by_translation = jac[:, 11:14]
    else:
        pixel, jac = cv2.projectPoints(point.reshape(1, 1, 3), rvec, tvec, matrix, np.zeros(5))
        by_translation = jac[:, 3:6]
    return pixel.ravel(), by_translation @ rotation


def main():
    rng = np.random.default_rng(20260)
    rows = []
    while len(rows) < 360:
        kind = "equidistant" if len(rows) >= 220 else "rectilinear"
        width, height, width_mm, height_mm = SENSORS[rng.integers(len(SENSORS))]
        focal = round(float(rng.uniform(2.0, 4.0) if kind == "equidistant" else rng.uniform(2.8, 32.0)), 2)
        pan, tilt = round(float(rng.uniform(-180, 360)), 2), round(float(rng.uniform(-20, 75)), 2)
        roll = 0.0 if len(rows) % 3 == 0 else round(float(rng.uniform(-180, 180)), 2)
        position = np.round(rng.uniform([-50, -50, 0.5], [50, 50, 12]), 3)
        rotation = axes(pan, tilt, roll)
        spread = 1.2 if kind == "equidistant" else 0.9
        off = rng.uniform(-spread, spread, 2)
        ray = np.array([np.tan(off[0]), np.tan(off[1]), 1.0])
        point = np.round(position + rotation.T @ ray * rng.uniform(2, 80) / np.linalg.norm(ray), 3)
        if not 0 <= point[2] <= 40 or np.hypot(*(point - position)[:2]) < 0.5:
            continue
        focal_px = focal * width / width_mm
        matrix = np.array([[focal_px, 0, width / 2], [0, focal_px, height / 2], [0, 0, 1]])
        pixel, by_point = project(kind, rotation, position, matrix, point)
        if abs(pixel[0]) > 20000 or abs(pixel[1]) > 20000:
            continue
        east, north = (point - position)[:2] / np.hypot(*(point - position)[:2])
        across = np.linalg.norm(by_point @ np.array([north, -east, 0]))
        up = np.linalg.norm(by_point @ np.array([0, 0, 1.0]))
        rows.append(
            [kind, width, height, width_mm, height_mm, focal, pan, tilt, roll, *position, *point]
            + [repr(float(v)) for v in (*pixel, across, up)]
        )
    with open(pathlib.Path(__file__).with_name("projections.csv"), "w", newline="") as out:
        writer = csv.writer(out, lineterminator="\n")
        writer.writerow(
            "kind,width_px,height_px,width_mm,height_mm,focal_mm,pan_deg,tilt_deg,roll_deg,cx,cy,cz,tx,ty,tz,u,v,across,up".split(",")
        )
        writer.writerows(rows)


if __name__ == "__main__":
    main()
