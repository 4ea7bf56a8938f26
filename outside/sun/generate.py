"""The sun: positions by pvlib (its own implementation of NREL/TP-560-34302), and when it stands in a camera's picture, by pvlib and OpenCV.

Air: 1013.25 mbar, 10 degrees C; TT - UT1 = 67 s. Places in both hemispheres, the tropics, and where the sun stays up or down.
"""

import json
import pathlib

import cv2
import numpy as np
import pandas as pd
import pvlib

HERE = pathlib.Path(__file__).parent
PLACES = [("midlands", 52.4, -1.9, 140.0), ("tropics", 1.3, 103.8, 15.0), ("south", -33.9, 151.2, 40.0),
          ("far north", 78.2, 15.6, 5.0), ("far south", -69.0, 39.6, 20.0), ("west", 39.7, -105.2, 1830.0)]


def spa(times, latitude, longitude, height):
    return pvlib.solarposition.spa_python(times, latitude, longitude, altitude=height, pressure=101325, temperature=10,
                                          delta_t=67.0)


def positions():
    rows = []
    rng = np.random.default_rng(11)
    begin = pd.Timestamp("2027-01-01", tz="UTC")
    for name, latitude, longitude, height in PLACES:
        minutes = np.sort(rng.choice(365 * 1440, 300, replace=False))
        times = pd.DatetimeIndex([begin + pd.Timedelta(minutes=int(m)) for m in minutes])
        found = spa(times, latitude, longitude, height)
        for minute, azimuth, elevation in zip(minutes, found["azimuth"], found["apparent_elevation"]):
            rows.append([name, latitude, longitude, height, int(minute), float(azimuth), float(elevation)])
    return rows


# Pan, tilt, roll, focal length in px, size, fisheye (equidistant) or pinhole.
VIEWS = [(100.0, 4.0, 0.0, 1400.0, 2688, 1520, False), (250.0, -3.0, 0.0, 3000.0, 1920, 1080, False),
         (180.0, 20.0, 90.0, 1400.0, 2688, 1520, False), (0.0, 1.0, 5.0, 900.0, 1920, 1080, True)]


def axes(pan, tilt, roll):
    p, t, r = np.radians([pan, tilt, roll])
    f = np.array([np.sin(p) * np.cos(t), np.cos(p) * np.cos(t), -np.sin(t)])
    right = np.array([np.cos(p), -np.sin(p), 0.0])
    down = np.cross(f, right)
    return np.array([right * np.cos(r) + down * np.sin(r), down * np.cos(r) - right * np.sin(r), f])


def in_picture():
    found = []
    name, latitude, longitude, height = PLACES[0]
    times = pd.date_range("2027-01-01", "2028-01-01", freq="min", inclusive="left", tz="UTC")
    sun = spa(times, latitude, longitude, height)
    up = np.radians(sun["apparent_elevation"].to_numpy())
    azimuth = np.radians(sun["azimuth"].to_numpy())
    ways = np.stack([np.sin(azimuth) * np.cos(up), np.cos(azimuth) * np.cos(up), np.sin(up)], axis=1)
    for view in VIEWS:
        pan, tilt, roll, focal, width, tall, fisheye = view
        seen = ways @ axes(pan, tilt, roll).T
        camera = np.array([[focal, 0, width / 2], [0, focal, tall / 2], [0, 0, 1.0]])
        ahead = (up > 0) & (seen[:, 2] > 1e-3)
        points = seen[ahead].reshape(-1, 1, 3)
        zero = np.zeros(3)
        if fisheye:
            pixels, _ = cv2.fisheye.projectPoints(points, zero, zero, camera, np.zeros(4))
        else:
            pixels, _ = cv2.projectPoints(points, zero, zero, camera, None)
        u, v = pixels[:, 0, 0], pixels[:, 0, 1]
        holds = (u >= 0) & (u <= width) & (v >= 0) & (v <= tall)
        minutes = np.flatnonzero(ahead)[holds]
        # A target straight along the axis, and one 12 degrees to its right.
        behind = []
        for off in (0.0, 12.0):
            way = axes(pan + off, tilt, 0.0)[2]
            behind.append(int(((ways @ way >= np.cos(np.radians(20.0))) & (up > 0)).sum()))
        months = pd.Series(1, index=times[minutes]).groupby(times[minutes].month).sum()
        found.append({"pan_deg": pan, "tilt_deg": tilt, "roll_deg": roll, "focal_px": focal, "width": width,
                      "height": tall, "fisheye": fisheye, "minutes": int(len(minutes)), "backlit": behind,
                      "by_month": {int(m): int(n) for m, n in months.items()}})
    return {"latitude_deg": latitude, "longitude_deg": longitude, "elevation_m": height, "year": 2027, "views": found}


def main():
    with (HERE / "positions.csv").open("w") as out:
        out.write("place,latitude_deg,longitude_deg,elevation_m,minute_of_2027,azimuth_deg,apparent_elevation_deg\n")
        for row in positions():
            out.write(",".join(str(value) for value in row) + "\n")
    (HERE / "in_picture.json").write_text(json.dumps(in_picture(), indent=1) + "\n")


main()
