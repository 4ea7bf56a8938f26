"""Pictures for crates/server/tests/comparing.rs: photographs that scikit-image ships (coffee, chelsea, brick: CC0) as a pinhole of 60 degrees
sees them, changed by OpenCV. The turn is made as K R' K^-1 with cv2.warpPerspective; blur by cv2.GaussianBlur; haze as a blend with light;
a shadow as a soft-edged darkening; rain, snow, a parked thing of 3 % and a bush of 12 % drawn on it; each then with a sensor's noise and a
JPEG's loss. The table says what was done; `--table N BINARY` does N of each sort and counts what the program says (docs/methods.md).
"""

import json
import os
import pathlib
import subprocess
import sys
import tempfile

import cv2
import numpy as np
import skimage

HERE = pathlib.Path(__file__).parent
DATA = pathlib.Path(skimage.__file__).parent / "data"
W, H, FIELD, SOURCE_FIELD = 640, 360, 60.0, 74.0
rng = np.random.default_rng(27)


def photo(name):
    return cv2.imread(str(DATA / f"{name}.png"), cv2.IMREAD_COLOR)


BASES = {name: photo(name) for name in ("coffee", "chelsea", "brick")}
BUSH = {name: photo(name) for name in ("grass", "gravel")}


def camera(width, height, focal):
    return np.array([[focal, 0, (width - 1) / 2], [0, focal, (height - 1) / 2], [0, 0, 1]])


def axes(right, down, roll):
    a, b, c = np.radians([right, down, roll])
    forward = np.array([np.sin(a) * np.cos(b), np.sin(b), np.cos(a) * np.cos(b)])
    r = np.array([np.cos(a), 0, -np.sin(a)])
    d = np.cross(forward, r)
    return np.stack([r * np.cos(c) + d * np.sin(c), d * np.cos(c) - r * np.sin(c), forward], 1)


def view(source, right=0.0, down=0.0, roll=0.0, scale=1.0):
    height, width = source.shape[:2]
    focal = W / 2 / np.tan(np.radians(FIELD / 2))
    there = camera(width, height, width / 2 / np.tan(np.radians(SOURCE_FIELD / 2)))
    turn = camera(W, H, focal * scale) @ axes(right, down, roll).T @ np.linalg.inv(there)
    return cv2.warpPerspective(source, turn, (W, H), flags=cv2.INTER_CUBIC, borderMode=cv2.BORDER_REFLECT)


def clip(picture):
    return np.clip(picture, 0, 255).astype(np.uint8)


def sensor(picture, noise, gain=1.0):
    return clip(picture.astype(np.float32) * gain + rng.normal(0, noise, picture.shape))


def blob(share, corners=14):
    mask = np.zeros((H, W), np.float32)
    middle = rng.uniform([W * 0.25, H * 0.25], [W * 0.75, H * 0.75])
    angle = np.linspace(0, 2 * np.pi, corners, endpoint=False)
    radius = np.sqrt(share * W * H / np.pi) * rng.uniform(0.85, 1.2, (corners, 1))
    cv2.fillPoly(mask, [(middle + np.stack([np.cos(angle), np.sin(angle)], 1) * radius).astype(np.int32)], 1.0)
    return mask


def shadows(picture):
    mask = np.zeros((H, W), np.float32)
    for _ in range(rng.integers(1, 4)):
        corners = rng.uniform([0, 0], [W, H]) + rng.uniform(-170, 170, (4, 2))
        cv2.fillPoly(mask, [corners.astype(np.int32)], 1.0)
    mask = cv2.GaussianBlur(mask, (0, 0), 1.5)[..., None]
    return clip(picture * (1 - 0.5 * mask * np.array([0.9, 1, 1.05])))


def rain(picture):
    wet = picture.copy()
    for _ in range(220):
        at, long = rng.uniform([0, 0], [W, H]), rng.uniform(8, 22)
        cv2.line(wet, tuple(at.astype(int).tolist()), tuple((at + [0.15 * long, long]).astype(int).tolist()), (205, 205, 205), 1, cv2.LINE_AA)
    return clip(0.92 * wet + 0.08 * 150)


def snow(picture):
    white = picture.copy()
    for _ in range(260):
        cv2.circle(white, tuple(rng.integers([0, 0], [W, H]).tolist()), int(rng.integers(1, 3)), (235, 235, 235), -1, cv2.LINE_AA)
    return white


def parked(picture, share=0.03):
    there = picture.copy()
    wide = int(np.sqrt(share * W * H * 1.8))
    high = int(wide / 1.8)
    other = cv2.resize(BASES[rng.choice(list(BASES))], (wide, high))
    x, y = rng.integers(0, W - wide), rng.integers(0, H - high)
    there[y : y + high, x : x + wide] = other
    return there


def bush(picture, share=0.12):
    mask = blob(share)[..., None]
    leaves = cv2.resize(BUSH[rng.choice(list(BUSH))], (W, H)).astype(np.float32) * np.array([0.45, 0.9, 0.5])
    return clip(picture * (1 - mask) + leaves * mask)


def dirt(picture, through=0.4):
    mask = cv2.GaussianBlur(blob(0.25), (0, 0), 12)[..., None]
    return clip(picture * (1 - mask * (1 - through)) + mask * (1 - through) * 170)


def turned(degrees):
    way = rng.uniform(0, 2 * np.pi)
    return [degrees * np.cos(way), degrees * np.sin(way), 0.0, 1.0]


SORTS = {
    "still": ([], lambda s: (view(s), None)),
    "noise": ([], lambda s: (sensor(view(s), 5.0), None)),
    "shadow": ([], lambda s: (shadows(view(s)), None)),
    "rain": ([], lambda s: (rain(view(s)), None)),
    "snow": ([], lambda s: (snow(view(s)), None)),
    "parked": ([], lambda s: (parked(view(s)), None)),
    "moved": (["moved"], lambda s, t=None: (view(s, *(t or turned(0.3))), t)),
    "knocked": (["moved"], lambda s, t=None: (view(s, *t), t)),
    "zoomed": (["moved"], lambda s, t=None: (view(s, *t), t)),
    "soft": (["out_of_focus"], lambda s: (cv2.GaussianBlur(view(s), (0, 0), 3.5), None)),
    "hazed": (["hazed"], lambda s: (clip(view(s) * 0.55 + 0.45 * 185), None)),
    "dirt": (["hazed"], lambda s: (dirt(view(s)), None)),
    "bush": (["blocked"], lambda s: (bush(view(s)), None)),
    "dark": (["darker"], lambda s: (view(s), None)),
}
TURNS = {
    "moved": lambda: turned(0.3),
    "knocked": lambda: [rng.uniform(-10, 10), rng.uniform(-5, 5), rng.uniform(-5, 5), 1.0],
    "zoomed": lambda: [0.0, 0.0, 0.0, rng.choice([0.95, 1.05])],
}


def pair(sort, base):
    says, change = SORTS[sort]
    source = BASES[base]
    before = sensor(view(source) if sort != "shadow" else shadows(view(source)), 2.0)
    turn = [float(figure) for figure in TURNS[sort]()] if sort in TURNS else None
    picture = (change(source, turn) if turn else change(source))[0]
    gain = 0.4 if sort == "dark" else float(rng.uniform(0.85, 1.15)) if not says or turn else 1.0
    return before, sensor(picture, 2.5, gain), says, turn, gain


def write(path, picture):
    cv2.imwrite(str(path), picture, [cv2.IMWRITE_JPEG_QUALITY, 82])


def table(count, program):
    with tempfile.TemporaryDirectory() as folder:
        for sort in SORTS:
            right, others, off = 0, {}, []
            for number in range(count):
                before, after, says, turn, _ = pair(sort, list(BASES)[number % len(BASES)])
                paths = [os.path.join(folder, name) for name in ("a.jpg", "b.jpg")]
                write(paths[0], before)
                write(paths[1], after)
                told = json.loads(subprocess.run([program, "compare", *paths], capture_output=True, text=True, check=True).stdout)
                right += set(says) <= set(told["says"])
                for extra in set(told["says"]) - set(says):
                    others[extra] = others.get(extra, 0) + 1
                if turn and told["moved"]:
                    moved = told["moved"]
                    off.append(np.hypot(moved["right_deg"] - turn[0], moved["down_deg"] - turn[1]))
            print(f"{sort:8} {right} of {count} as they are; also said: {others}; off by at most {max(off, default=0):.3f} degrees", flush=True)


def main():
    cases = []
    for sort in SORTS:
        for base in BASES:
            before, after, says, turn, gain = pair(sort, base)
            names = [f"{sort}-{base}-{which}.jpg" for which in ("before", "after")]
            if sort != "shadow":
                # One reference for all sorts.
                names[0] = f"{base}.jpg"
            if not (HERE / names[0]).exists():
                write(HERE / names[0], before)
            write(HERE / names[1], after)
            cases.append({"sort": sort, "before": names[0], "after": names[1], "says": says, "turn": turn, "gain": gain})
    (HERE / "cases.json").write_text(json.dumps({"field_deg": FIELD, "cases": cases}, indent=1) + "\n")


if sys.argv[1:2] == ["--table"]:
    table(int(sys.argv[2]), sys.argv[3])
else:
    main()
