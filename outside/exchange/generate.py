"""Drawings as other libraries write them, with what is in them, for crates/server/tests/exchange.rs.

DXF by ezdxf, its blocks opened by ezdxf; GeoJSON by the geojson package, its degrees projected by PROJ (azimuthal equidistant about the
middle). The broken ones are each broken in one way.
"""

import json
import pathlib

import ezdxf
import geojson
from ezdxf.disassemble import recursive_decompose
from pyproj import Transformer

FOLDER = pathlib.Path(__file__).parent
SQUARE = [(0, 0), (4000, 0), (4000, 3000), (0, 3000)]


def outlines(doc, scale):
    found = []
    for entity in recursive_decompose(doc.modelspace()):
        layer = entity.dxf.layer
        if entity.dxftype() == "LWPOLYLINE":
            found.append([layer, [[x * scale, y * scale] for x, y, *_ in entity.get_points()], bool(entity.closed)])
        elif entity.dxftype() == "POLYLINE":
            found.append([layer, [[v.dxf.location.x * scale, v.dxf.location.y * scale] for v in entity.vertices], bool(entity.is_closed)])
        elif entity.dxftype() == "LINE":
            found.append([layer, [[p.x * scale, p.y * scale] for p in (entity.dxf.start, entity.dxf.end)], False])
    return found


def yard():
    doc = ezdxf.new("R2010")
    doc.header["$INSUNITS"] = 4  # millimetres
    for layer in ("BUILDINGS", "FENCE", "Walls"):
        doc.layers.add(layer)
    space = doc.modelspace()
    space.add_lwpolyline(SQUARE, close=True, dxfattribs={"layer": "BUILDINGS", "thickness": 3200})
    space.add_lwpolyline([(0, 9000), (7000, 9000), (7000, 12000)], dxfattribs={"layer": "FENCE"})
    space.add_line((12000, 0), (12000, 5500), dxfattribs={"layer": "Walls"})
    space.add_polyline2d([(20000, 0), (26000, 0), (23000, 4000)], close=True, dxfattribs={"layer": "BUILDINGS"})
    space.add_text("Gate", dxfattribs={"layer": "TEXT"})
    bay = doc.blocks.new("BAY", base_point=(500, 0))
    bay.add_lwpolyline([(0, 0), (1000, 0), (1000, 600), (0, 600)], close=True, dxfattribs={"layer": "0"})
    bay.add_line((0, 1000), (1000, 1000), dxfattribs={"layer": "Walls"})
    pair = doc.blocks.new("PAIR")
    pair.add_blockref("BAY", (0, 0))
    pair.add_blockref("BAY", (3000, 0), dxfattribs={"rotation": 90})
    space.add_blockref("PAIR", (30000, 2000), dxfattribs={"layer": "BUILDINGS", "rotation": 30, "xscale": 2, "yscale": 2, "zscale": 2})
    return doc


def feet():
    doc = ezdxf.new("R2000")
    doc.header["$INSUNITS"] = 2
    doc.modelspace().add_lwpolyline([(0, 0), (10, 0), (10, 10), (0, 10)], close=True)
    return doc


def broken():
    itself = ezdxf.new("R2010")
    block = itself.blocks.new("ROUND")
    block.add_line((0, 0), (1, 0))
    block.add_blockref("ROUND", (5, 0))
    itself.modelspace().add_blockref("ROUND", (0, 0))
    itself.modelspace().add_lwpolyline([(0, 0), (4, 0), (4, 3)], close=True)
    crossing = ezdxf.new("R2010")
    crossing.modelspace().add_lwpolyline([(0, 0), (4, 4), (4, 0), (0, 4)], close=True)
    rising = ezdxf.new("R2010")
    rising.modelspace().add_polyline3d([(0, 0, 0), (5, 0, 2), (5, 5, 4)])
    empty = ezdxf.new("R2010")
    far = ezdxf.new("R2010")
    far.header["$INSUNITS"] = 6  # metres, it says; the figures are millimetres
    far.modelspace().add_lwpolyline([(451000000, 5400000000), (451010000, 5400000000), (451010000, 5400008000)], close=True)
    # Ten blocks, each ten times in the next: ten thousand million lines.
    laughs = ezdxf.new("R2010")
    for depth in range(10):
        held = laughs.blocks.new(f"B{depth}")
        for step in range(10):
            if depth:
                held.add_blockref(f"B{depth - 1}", (step, 0))
            else:
                held.add_line((step, 0), (step, 1))
    laughs.modelspace().add_blockref("B9", (0, 0))
    return {"itself": itself, "crossing": crossing, "rising": rising, "empty": empty, "far": far, "laughs": laughs}


expected = {}
for name, doc, scale in (("yard", yard(), 0.001), ("feet", feet(), 0.3048)):
    doc.saveas(FOLDER / f"{name}.dxf")
    expected[name] = outlines(doc, scale)
for name, doc in broken().items():
    doc.saveas(FOLDER / f"{name}.dxf")

shapes = [
    ("Shed", geojson.Polygon([[(-1.5321, 53.7461), (-1.5316, 53.7461), (-1.5316, 53.7464), (-1.5321, 53.7464), (-1.5321, 53.7461)]]), {"height": 4.5, "layer": "building"}),
    ("Fence", geojson.LineString([(-1.5330, 53.7455), (-1.5312, 53.7456), (-1.5309, 53.7469)]), {"height": "2.1 m", "layer": "fence"}),
    ("Two", geojson.MultiPolygon([[[(-1.5326, 53.7466), (-1.5324, 53.7466), (-1.5324, 53.7467), (-1.5326, 53.7466)]],
                                  [[(-1.5320, 53.7466), (-1.5318, 53.7466), (-1.5318, 53.7467), (-1.5320, 53.7466)]]]), {"base_m": 1, "top_m": 3}),
    ("Tap", geojson.Point((-1.5320, 53.7460)), {}),
]
collection = geojson.FeatureCollection([geojson.Feature(geometry=g, properties={"name": n, **p}) for n, g, p in shapes])
FOLDER.joinpath("yard.geojson").write_text(geojson.dumps(collection, indent=1) + "\n")
positions = [p for _, g, _ in shapes if g["type"] != "Point" for p in geojson.utils.coords(g)]
west, east = min(p[0] for p in positions), max(p[0] for p in positions)
south, north = min(p[1] for p in positions), max(p[1] for p in positions)
project = Transformer.from_crs("EPSG:4326", f"+proj=aeqd +lat_0={(south + north) / 2} +lon_0={(west + east) / 2} +ellps=WGS84", always_xy=True)
metres = lambda ring: [list(project.transform(*p)) for p in ring]
expected["geojson"] = [
    ["building", metres(shapes[0][1]["coordinates"][0][:-1]), True], ["fence", metres(shapes[1][1]["coordinates"]), False],
    *[["", metres(part[0][:-1]), True] for part in shapes[2][1]["coordinates"]]]
FOLDER.joinpath("expected.json").write_text(json.dumps(expected) + "\n")
