"""A picture under a wide colour profile, and what LittleCMS (through Pillow) makes of it in sRGB.

    python3 -m venv /tmp/colour && /tmp/colour/bin/pip install pillow && /tmp/colour/bin/python outside/colour/generate.py

The profile is written here after ICC.1:2010 (a matrix profile with one gamma); its primaries are made up: wider than sRGB's.
"""

import io
import struct
from pathlib import Path

import PIL
from PIL import Image, ImageCms, features

HERE = Path(__file__).parent
# Colorants in the profile connection space (D50): chosen to sum to its white, 0.9642 1.0 0.8249.
RED, GREEN, BLUE = (0.6097, 0.3111, 0.0195), (0.2053, 0.6257, 0.0609), (0.1492, 0.0632, 0.7445)
GAMMA = 2.2


def fixed(value: float) -> bytes:
    return struct.pack(">i", round(value * 65536))


def profile() -> bytes:
    xyz = lambda values: b"XYZ " + bytes(4) + b"".join(map(fixed, values))
    curve = b"curv" + bytes(4) + struct.pack(">IH", 1, round(GAMMA * 256)) + bytes(2)
    text = b"wide\0"
    described = b"desc" + bytes(4) + struct.pack(">I", len(text)) + text + bytes(4 + 4 + 2 + 1 + 67)
    tags = {
        b"desc": described + bytes(-len(described) % 4),
        b"cprt": b"text" + bytes(4) + b"none" + bytes(4),
        b"wtpt": xyz((0.9642, 1.0, 0.8249)),
        b"rXYZ": xyz(RED), b"gXYZ": xyz(GREEN), b"bXYZ": xyz(BLUE),
        b"rTRC": curve, b"gTRC": curve, b"bTRC": curve,
    }
    at = 128 + 4 + 12 * len(tags)
    table, data = struct.pack(">I", len(tags)), b""
    for name, content in tags.items():
        table += name + struct.pack(">II", at + len(data), len(content))
        data += content
    size = at + len(data)
    head = struct.pack(">I4sI4s4s4s", size, b"lcms", 0x02400000, b"mntr", b"RGB ", b"XYZ ")
    head += struct.pack(">6H", 2026, 1, 1, 0, 0, 0) + b"acsp" + bytes(4 + 4 + 4 + 4 + 8 + 4)
    head += b"".join(map(fixed, (0.9642, 1.0, 0.8249)))
    return head + bytes(128 - len(head)) + table + data


def main() -> None:
    steps = range(0, 256, 17)
    wide = Image.new("RGB", (64, 64))
    wide.putdata([(r, g, b) for b in steps for g in steps for r in steps])
    icc = profile()
    wide.save(HERE / "wide.png", icc_profile=icc, optimize=True)
    turned = ImageCms.profileToProfile(
        wide, ImageCms.ImageCmsProfile(io.BytesIO(icc)), ImageCms.createProfile("sRGB"),
        renderingIntent=ImageCms.Intent.RELATIVE_COLORIMETRIC, outputMode="RGB",
    )
    turned.info.clear()
    turned.save(HERE / "expected.png", optimize=True)
    print(f"Pillow {PIL.__version__}, LittleCMS {features.version('littlecms2')}")


main()
