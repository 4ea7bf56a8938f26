"""What independent readers find in our own plans, for crates/server/tests/plan_out.rs: GeoJSON by geopandas (GDAL), DXF by ezdxf, SVG
rendered by CairoSVG.

    outside/exchange/readback.py target/debug/bright-angle
"""

import io
import json
import pathlib
import subprocess
import sys

import cairosvg
import ezdxf
import geopandas
from PIL import Image

ROOT = pathlib.Path(__file__).parents[2]
MM = 8  # px a millimetre in the rendered sheet


def exported(demo, kind):
    return subprocess.run([sys.argv[1], "export", "--format", kind, ROOT / "demo" / f"{demo}.json"], check=True, capture_output=True, text=True).stdout


def by_geopandas(text):
    table = geopandas.read_file(io.StringIO(text))
    metres = table.to_crs(table.estimate_utm_crs())
    covered = metres[metres["is"] == "coverage"]
    return {
        "layers": {name: int(count) for name, count in table.groupby("layer").size().items()},
        "valid": bool(table.geometry.is_valid.all()),
        "coverage_m2": {str(px): round(float(area), 1) for px, area in zip(covered["px_per_m"], covered.area)},
        "verdicts": {row["id"]: row["verdict"] for _, row in table[table["is"] == "promise"].iterrows()},
        "cameras": {row["name"]: [row.geometry.x, row.geometry.y] for _, row in table[table["is"] == "camera"].iterrows()},
    }


def by_ezdxf(text):
    doc = ezdxf.read(io.StringIO(text))
    space = doc.modelspace()
    return {
        "errors": len(doc.audit().errors),
        "units": doc.units,
        "layers": sorted({entity.dxf.layer for entity in space}),
        "cameras": sorted([list(map(lambda a: round(a, 4), point.dxf.location)) for point in space.query('POINT[layer=="cameras"]')]),
        "names": sorted(text.dxf.text for text in space.query("TEXT")),
        "solids": sorted([round(line.dxf.thickness, 3), len(line)] for line in space.query("LWPOLYLINE") if line.dxf.thickness),
    }


def by_cairo(text):
    drawn = Image.open(io.BytesIO(cairosvg.svg2png(bytestring=text.encode(), output_width=297 * MM))).convert("RGB")
    inked = sum(1 for pixel in drawn.resize((594, 420)).getdata() if pixel != (255, 255, 255))
    # The swatches of the legend, and the middle of the sheet's north arrow.
    at = lambda x, y: "#%02x%02x%02x" % drawn.getpixel((round(x * MM), round(y * MM)))
    return {"size": list(drawn.size), "inked": inked, "tints": [at(231, 22.1 + 4.4 * i) for i in range(5)]}


found = {demo: {"geojson": by_geopandas(exported(demo, "geojson")), "dxf": by_ezdxf(exported(demo, "dxf")), "svg": by_cairo(exported(demo, "svg"))}
         for demo in ("tern-quay", "saltpan-lane")}
pathlib.Path(__file__).with_name("readback.json").write_text(json.dumps(found, indent=1, ensure_ascii=False) + "\n")
print(json.dumps(found, indent=1, ensure_ascii=False)[:3000])
