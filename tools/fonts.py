"""Makes the fonts of the papers: whole TrueType files of what the application ships for the screen, and one with further scripts.

    pip install fonttools brotli matplotlib
    python tools/fonts.py

Barlow (SIL Open Font License 1.1) comes from the packages of the front end, where it is cut by scripts; DejaVu Sans (its own free
licence) from matplotlib's package. Both licences lie beside the files.
"""

import pathlib
import shutil
import tempfile

import matplotlib
from fontTools.merge import Merger
from fontTools.ttLib import TTFont

ROOT = pathlib.Path(__file__).parent.parent
FILES = ROOT / "node_modules/@fontsource/barlow/files"
TO = ROOT / "crates/server/fonts"

TO.mkdir(exist_ok=True)
for weight, name in (("400", "Barlow-Regular"), ("600", "Barlow-SemiBold")):
    with tempfile.TemporaryDirectory() as folder:
        parts = []
        for script in ("latin", "latin-ext"):
            font = TTFont(FILES / f"barlow-{script}-{weight}-normal.woff2")
            font.flavor = None
            part = f"{folder}/{script}.ttf"
            font.save(part)
            parts.append(part)
        Merger().merge(parts).save(TO / f"{name}.ttf")
ttf = pathlib.Path(matplotlib.get_data_path()) / "fonts/ttf"
for name in ("DejaVuSans.ttf", "DejaVuSans-Bold.ttf", "LICENSE_DEJAVU"):
    shutil.copy(ttf / name, TO / name)
