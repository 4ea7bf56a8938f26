"""Projections and pixel densities by OpenCV, for crates/core/tests/projections.rs.

Rectilinear pictures come from cv2.projectPoints, equidistant ones from cv2.fisheye.projectPoints (no distortion:
r = f theta). Densities are OpenCV's own Jacobian by the translation, turned into the step along the ground square to
the bearing (across) and straight up (up). The camera's axes are built by turning about axes with cv2.Rodrigues, not by
the formulas under test.

Bends between the textbook ones come from cv2.fisheye too: its odd polynomial in theta carries the series of
tan(b theta)/b, or of sin(-b theta)/(-b), to the ninth power, and only directions are kept for which the next term is
under 1e-9 of the radius.
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


def series(bend):
    """Coefficients of theta^3, ^5, ^7, ^9 after theta itself."""
    if bend > 0:
        return np.array([bend**2 / 3, 2 * bend**4 / 15, 17 * bend**6 / 315, 62 * bend**8 / 2835])
    return np.array([-(bend**2) / 6, bend**4 / 120, -(bend**6) / 5040, bend**8 / 362880])


def next_term(bend, theta):
    return 1382 * (bend * theta) ** 10 / 155925 if bend > 0 else (bend * theta) ** 10 / 39916800


def between():
    """The same columns with the bend in front, for bends that no textbook names."""
    rng = np.random.default_rng(20261)
    rows = []
    while len(rows) < 160:
        bend = round(float(rng.uniform(-0.5, 0.6)), 4)
        width, height, width_mm, height_mm = SENSORS[rng.integers(len(SENSORS))]
        focal = round(float(rng.uniform(2.0, 8.0)), 2)
        pan, tilt, roll = (round(float(rng.uniform(*r)), 2) for r in ((-180, 360), (-20, 75), (-180, 180)))
        position = np.round(rng.uniform([-50, -50, 0.5], [50, 50, 12]), 3)
        rotation = axes(pan, tilt, roll)
        theta, around = rng.uniform(0.02, 1.0), rng.uniform(0, 2 * np.pi)
        ray = np.array([np.sin(theta) * np.cos(around), np.sin(theta) * np.sin(around), np.cos(theta)])
        point = np.round(position + rotation.T @ ray * rng.uniform(2, 80), 3)
        if next_term(bend, theta) > 1e-9 or not 0 <= point[2] <= 40 or np.hypot(*(point - position)[:2]) < 0.5:
            continue
        focal_px = focal * width / width_mm
        matrix = np.array([[focal_px, 0, width / 2], [0, focal_px, height / 2], [0, 0, 1]])
        rvec = cv2.Rodrigues(rotation)[0]
        pixel, jac = cv2.fisheye.projectPoints(point.reshape(1, 1, 3), rvec, -rotation @ position, matrix, series(bend))
        by_point = jac[:, 11:14] @ rotation
        east, north = (point - position)[:2] / np.hypot(*(point - position)[:2])
        across = np.linalg.norm(by_point @ np.array([north, -east, 0]))
        up = np.linalg.norm(by_point @ np.array([0, 0, 1.0]))
        rows.append([bend, width, height, width_mm, height_mm, focal, pan, tilt, roll, *position, *point]
                    + [repr(float(v)) for v in (*pixel.ravel(), across, up)])
    write("bends.csv", "bend", rows)


def write(name, first, rows):
    with open(pathlib.Path(__file__).with_name(name), "w", newline="") as out:
        writer = csv.writer(out, lineterminator="\n")
        columns = "width_px,height_px,width_mm,height_mm,focal_mm,pan_deg,tilt_deg,roll_deg,cx,cy,cz,tx,ty,tz,u,v,across,up"
        writer.writerow([first, *columns.split(",")])
        writer.writerows(rows)


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
    write("projections.csv", "kind", rows)


if __name__ == "__main__":
    main()
    between()
